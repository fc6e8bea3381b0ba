/** Thirds, sixths, octaves, tenths and chords of one form that move together. Source: handbook 13, "parallels". */
import { groupedBy } from './groupedBy';
import type { Strike } from './strike';

/** Further than a third nothing moves along; its notes may differ by a semitone or two, as the scale asks. */
const MOST_SEMITONES = 4;
const MOST_APART = 2;

/** So many moves in a row are a row of parallels. */
const LEAST_MOVES = 2;

/** Of two voices that move together: minor and major thirds, sixths, octaves and tenths. */
export const INTERVALS: ReadonlySet<number> = new Set([3, 4, 8, 9, 12, 15, 16]);

interface Move {
  readonly from: readonly Strike[];
  readonly to: readonly Strike[];
}

/** From which note each comes, for notes that move together; drones between them are passed over. */
export function parallelsAmong(strikes: readonly Strike[]): ReadonlyMap<number, number> {
  const moving = strikes.filter(({ manner }) => manner !== 'drone');
  const groups = [...groupedBy(moving, ({ onsetTicks }) => onsetTicks).values()];
  // Over a bass of its own a pair may move, or with it: whatever is a row counts.
  return new Map([...movesAmong(groups.map(overBass)), ...movesAmong(groups)]);
}

function movesAmong(all: readonly (readonly Strike[])[]): readonly (readonly [to: number, from: number])[] {
  const groups = all.filter((group) => group.length > 1);
  const moves = groups.slice(1).map((to, k): Move => ({ from: groups[k]!, to }));
  return rowsOf(moves)
    .filter((row) => row.length >= LEAST_MOVES)
    .flatMap((row) =>
      row.flatMap(({ from, to }) => to.map(({ index }, n) => [index, from[n]!.index] as const)),
    );
}

/** Two notes over a bass are a pair of their own. */
function overBass(group: readonly Strike[]): readonly Strike[] {
  const upper = group.filter(({ role }) => role !== 'bass');
  return upper.length > 1 ? upper : group;
}

/** Moves that follow each other. */
function rowsOf(moves: readonly Move[]): readonly (readonly Move[])[] {
  const rows: Move[][] = [];
  let last: Move | null = null;
  for (const move of moves) {
    const goesAlong = isAlong(move);
    if (goesAlong && last?.to === move.from) rows.at(-1)!.push(move);
    else if (goesAlong) rows.push([move]);
    last = goesAlong ? move : null;
  }
  return rows;
}

function isAlong({ from, to }: Move): boolean {
  if (from.length !== to.length || !isForm(from) || !isForm(to)) return false;
  const ways = to.map(({ midi }, n) => midi - from[n]!.midi);
  const [least, most] = [Math.min(...ways), Math.max(...ways)];
  return (
    Math.sign(least) === Math.sign(most) &&
    least !== 0 &&
    Math.max(-least, most) <= MOST_SEMITONES &&
    most - least <= MOST_APART
  );
}

const isForm = (group: readonly Strike[]): boolean =>
  group.length > 2 || INTERVALS.has(group[1]!.midi - group[0]!.midi);
