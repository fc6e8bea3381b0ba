/** Tables of what it costs to join a note to the one that leads to it, by where the two lie. */
import type { Arena } from '../../solver/arena';
import { chargeLine, chargeLineFinger, chargeSlur } from '../rules/connectionCost';
import { chargeAgain } from '../rules/cuts';
import { Bill } from '../rules/ledger';
import type { LeftWeights } from '../rules/weights';
import { type HandTables, NO_PLACE, PLACEMENTS } from './handTables';
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
  arena: Arena,
  before: StateRows,
  rows: StateRows,
  step: Step,
  struckColumns: readonly number[],
): readonly ConnectionColumn[] {
  return step.links.flatMap((link) => {
    const toColumn = struckColumns[link.to]!;
    return toColumn < 0 ? [] : [tabled(tables, arena, link, before, rows, toColumn)];
  });
}

function tabled(
  tables: HandTables,
  arena: Arena,
  link: Link,
  before: StateRows,
  rows: StateRows,
  toColumn: number,
): ConnectionColumn {
  const { geometry } = tables;
  const from = numbered(arena, before.count, (s) => before.places[s * before.columns + link.fromColumn]! + 1);
  const to = numbered(arena, rows.count, (s) => rows.places[s * rows.columns + toColumn]! + 1);
  const known = tables.pairsOf(nameOf(link));
  const width = to.values.length;
  const costs = arena.int32(from.values.length * width);
  for (let a = 0; a < from.values.length; a++) {
    const p = from.values[a]! - 1;
    if (p === NO_PLACE) continue;
    const costsFrom = known.rowOf(p);
    for (let b = 0; b < width; b++) {
      const q = to.values[b]! - 1;
      if (q === NO_PLACE) continue;
      if (costsFrom[q]! < 0) costsFrom[q] = costOf(geometry.weights, link, p, q);
      costs[a * width + b] = costsFrom[q]!;
    }
  }
  const row = arena.uint16(before.count);
  for (let s = 0; s < row.length; s++) row[s] = from.of[s]! * width;
  return { costs, row, column: to.of };
}

/** What the costs of a link depend on besides its places. */
const nameOf = ({ kind, semitones, slid, hurry }: Link) =>
  kind === 'again' ? `again ${hurry}` : `${kind}${slid ? '~' : ''} ${semitones}`;

function costOf(weights: LeftWeights, { kind, semitones, slid, hurry }: Link, p: number, q: number): number {
  const bill = new Bill(weights, undefined);
  const [a, b] = [PLACEMENTS[p]!, PLACEMENTS[q]!];
  if (kind === 'again') chargeAgain(a, b, hurry, bill);
  else if (kind === 'slur') chargeSlur(a, b, bill);
  else if (kind === 'line') {
    chargeLineFinger(a, b, slid, bill);
    chargeLine(a, b, semitones, bill);
  } else if (kind === 'bassLine') chargeLineFinger(a, b, slid, bill);
  else bill.charge('slideBroken', a.string === b.string && a.finger === b.finger ? 0 : 1);
  return bill.sum;
}
