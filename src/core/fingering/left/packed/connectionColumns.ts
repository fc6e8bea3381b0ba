/** Tables of what it costs to join a note to the one that leads to it, by where the two lie. */
import type { FingeringProblem, Moment } from '../../problem';
import { chargeLine, chargeSlur } from '../connectionCost';
import { Bill, priceOf } from '../ledger';
import { type HandTables, NO_PLACE, PLACEMENTS } from './handTables';
import { numbered } from './numbering';
import type { StateRows } from './packedLayer';

export interface ConnectionColumn {
  readonly costs: Int32Array;
  /** By state before: start of its row in `costs`; by state after: the column there. */
  readonly row: Uint16Array;
  readonly column: Uint16Array;
}

type Kind = 'slur' | 'slide' | 'line' | 'again';

export function connectionColumns(
  problem: FingeringProblem,
  tables: HandTables,
  before: StateRows,
  rows: StateRows,
  next: Moment,
): readonly ConnectionColumn[] {
  const { strikes } = problem;
  const found: ConnectionColumn[] = [];
  const add = (kind: Kind, from: number | null, to: number | undefined) => {
    const fromColumn = from === null ? -1 : before.strikes.indexOf(from);
    const toColumn = to === undefined ? -1 : rows.strikes.indexOf(to);
    if (fromColumn < 0 || toColumn < 0) return;
    const semitones = strikes[to!]!.midi - strikes[from!]!.midi;
    found.push(tabled(problem, tables, kind, semitones, before, fromColumn, rows, toColumn));
  };
  for (const index of next.struck) {
    const strike = strikes[index]!;
    add('slur', strike.slurredFrom, index);
    add('slide', strike.slidFrom, index);
    add('line', strike.lineFrom, index);
  }
  // A pitch struck again while it sounds, or as it ends, had better stay in its place.
  for (const index of before.strikes) {
    const strike = strikes[index]!;
    if (strike.endTicks < next.tick) continue;
    add(
      'again',
      index,
      next.struck.find((other) => strikes[other]!.midi === strike.midi),
    );
  }
  return found;
}

function tabled(
  problem: FingeringProblem,
  tables: HandTables,
  kind: Kind,
  semitones: number,
  before: StateRows,
  fromColumn: number,
  rows: StateRows,
  toColumn: number,
): ConnectionColumn {
  const [widthBefore, widthAfter] = [before.strikes.length, rows.strikes.length];
  const from = numbered(tables.arena, before.count, (s) => before.places[s * widthBefore + fromColumn]! + 1);
  const to = numbered(tables.arena, rows.count, (s) => rows.places[s * widthAfter + toColumn]! + 1);
  const known = tables.pairsOf(`${kind}${semitones}`);
  const width = to.values.length;
  const costs = tables.arena.int32(from.values.length * width);
  from.values.forEach((p, a) => {
    to.values.forEach((q, b) => {
      if (p === 0 || q === 0) return;
      const key = p * 1024 + q;
      let cost = known.get(key);
      if (cost === undefined) known.set(key, (cost = costOf(problem, kind, semitones, p - 1, q - 1)));
      costs[a * width + b] = cost;
    });
  });
  const row = tables.arena.uint16(before.count);
  for (let s = 0; s < row.length; s++) row[s] = from.of[s]! * width;
  return { costs, row, column: to.of };
}

function costOf(problem: FingeringProblem, kind: Kind, semitones: number, p: number, q: number): number {
  if (p === NO_PLACE || q === NO_PLACE) return 0;
  if (kind === 'again') return p === q ? 0 : priceOf(problem.weights, 'placeChanged', 1);
  const bill = new Bill(problem.weights, undefined);
  const [a, b] = [PLACEMENTS[p]!, PLACEMENTS[q]!];
  if (kind === 'slur') chargeSlur(a, b, bill);
  else if (kind === 'line') chargeLine(a, b, semitones, bill);
  else bill.charge('slideBroken', a.string === b.string && a.finger === b.finger ? 0 : 1);
  return bill.sum;
}
