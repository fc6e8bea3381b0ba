/** Tables of what it costs to join a note to the one that leads to it, by where the two lie. */
import { chargeLine, chargeLineHop, chargeSlur } from '../connectionCost';
import { chargeAgain } from '../cuts';
import { Bill } from '../ledger';
import type { LeftWeights } from '../weights';
import { type HandTables, PLACEMENTS } from './handTables';
import { numbered } from './numbering';
import type { StateRows } from './packedLayer';
import type { Link, Step } from './step';

export interface ConnectionColumn {
  readonly costs: Int32Array;
  /** By state before: start of its row in `costs`; by state after: the column there. */
  readonly row: Uint16Array;
  readonly column: Uint16Array;
}

export function connectionColumns(
  tables: HandTables,
  before: StateRows,
  rows: StateRows,
  step: Step,
  struckColumns: readonly number[],
): readonly ConnectionColumn[] {
  return step.links.flatMap((link) => {
    const toColumn = struckColumns[link.to]!;
    return toColumn < 0 ? [] : [tabled(tables, link, before, rows, toColumn)];
  });
}

function tabled(
  { arena, geometry, pairsOf }: HandTables,
  link: Link,
  before: StateRows,
  rows: StateRows,
  toColumn: number,
): ConnectionColumn {
  const from = numbered(arena, before.count, (s) => before.places[s * before.columns + link.fromColumn]! + 1);
  const to = numbered(arena, rows.count, (s) => rows.places[s * rows.columns + toColumn]! + 1);
  const known = pairsOf(`${link.kind}${link.semitones}`);
  const width = to.values.length;
  const costs = arena.int32(from.values.length * width);
  from.values.forEach((p, a) => {
    to.values.forEach((q, b) => {
      if (p === 0 || q === 0) return;
      const key = p * 1024 + q;
      let cost = known.get(key);
      if (cost === undefined) known.set(key, (cost = costOf(geometry.weights, link, p - 1, q - 1)));
      costs[a * width + b] = cost;
    });
  });
  const row = arena.uint16(before.count);
  for (let s = 0; s < row.length; s++) row[s] = from.of[s]! * width;
  return { costs, row, column: to.of };
}

function costOf(weights: LeftWeights, { kind, semitones }: Link, p: number, q: number): number {
  const bill = new Bill(weights, undefined);
  const [a, b] = [PLACEMENTS[p]!, PLACEMENTS[q]!];
  if (kind === 'again') chargeAgain(a, b, bill);
  else if (kind === 'slur') chargeSlur(a, b, bill);
  else if (kind === 'line') {
    chargeLineHop(a, b, bill);
    chargeLine(a, b, semitones, bill);
  } else if (kind === 'bassLine') chargeLineHop(a, b, bill);
  else bill.charge('slideBroken', a.string === b.string && a.finger === b.finger ? 0 : 1);
  return bill.sum;
}
