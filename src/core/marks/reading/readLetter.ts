/** What a student's right hand plays where no letter is printed. Source: handbook 6 and 13. */
import type { Texture } from '../../figures/texture';
import type { Pluck } from '../../score/model';
import type { Role } from '../../fingering/problem/strike';

/** One note of what is struck at once. */
export interface Struck {
  readonly uid: string;
  readonly string: number;
  readonly role: Role;
  readonly texture: Texture;
}

/** What the student remembers of the strokes before. */
export interface Habit {
  /** The last single stroke of a finger. */
  readonly lastFinger: Pluck | null;
  /** The finger that it takes turns with: the one before it, if that came after it before. */
  readonly otherFinger: Pluck | null;
  /** The letters of the same place of the figure the last time it went round, not long ago. */
  readonly figure: readonly Pluck[] | null;
}

const LINES: readonly Texture[] = ['line', 'slowMelody', 'mixed'];

/**
 * The places of a figure that a stroke stands at, the surest first; none in a line, whose letters alternate. In a
 * tremolo they are counted from the thumb, elsewhere the strings say them: with those before, a chord also without.
 */
export function figurePlaces(
  struck: readonly Struck[],
  before: readonly number[],
  sinceThumb: number,
): readonly string[] {
  if (struck.some(({ texture }) => texture === 'tremolo'))
    return struck.length === 1 && struck[0]!.role !== 'bass' ? [`tremolo ${sinceThumb}`] : [];
  if (struck.length === 1 && LINES.includes(struck[0]!.texture)) return [];
  const strings = struck.map(({ string }) => string).join(' ');
  const afterThose = `${before.join(' ')} > ${strings}`;
  return struck.length === 1 ? [afterThose] : [afterThose, strings];
}

/** Rows: how many fingers play in a chord, and which, where they have no strings of their own. Source: handbook 13. */
const IN_CHORDS: readonly (readonly Pluck[])[] = [
  [],
  ['i'],
  ['i', 'm'],
  ['i', 'm', 'a'],
  ['p', 'i', 'm', 'a'],
];
/** The hand at rest. Source: handbook 6. */
const HOME: Readonly<Record<number, Pluck>> = { 1: 'a', 2: 'm', 3: 'i', 4: 'p', 5: 'p', 6: 'p' };

/**
 * Rules, in this order. A figure is played as it was before. A bass is the thumb's. Elsewhere every finger has its
 * string, but for a line, which alternates, i m where nothing else was said.
 * @param struck lowest string first
 */
export function readLetters(struck: readonly Struck[], habit: Habit): readonly Pluck[] {
  if (habit.figure) return habit.figure;
  const [lowest] = struck;
  if (!lowest) return [];
  if (struck.length === 1) return [single(lowest, habit)];
  const hasThumb = lowest.role === 'bass' || lowest.string >= 4 || struck.length > 3;
  const above = hasThumb ? struck.slice(1) : struck;
  return [...(hasThumb ? ['p' as const] : []), ...fingersFor(above, habit)];
}

function fingersFor(above: readonly Struck[], habit: Habit): readonly Pluck[] {
  if (above.length === 1) return [single({ ...above[0]!, role: 'melody' }, habit)];
  const home = above.map(({ string }) => HOME[string]!);
  const isHome = new Set(home).size === home.length && !home.includes('p');
  return isHome ? home : (IN_CHORDS[above.length] ?? home);
}

function single({ string, role, texture }: Struck, { lastFinger, otherFinger }: Habit): Pluck {
  if (role === 'bass') return 'p';
  if (!LINES.includes(texture)) return HOME[string]!;
  return otherFinger ?? (lastFinger === 'i' || lastFinger === 'a' ? 'm' : 'i');
}
