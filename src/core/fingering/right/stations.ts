/** Each string has its finger: what a stroke makes of the map of stations. Source: handbook 13, "broken chord". */
import type { FingersPart, FingersStroke } from './memory';

export interface Stationed {
  readonly map: readonly number[];
  /**
   * kept: every finger plays on its own string, or on one that nobody has. visit: another finger on the string that has
   * just sounded. moved: the set stands elsewhere from now on.
   */
  readonly change: 'kept' | 'visit' | 'moved';
  /** How far new fingers lie from their neighbours, beyond a string for each finger. */
  readonly spread: number;
}

const EMPTY: readonly number[] = [0, 0, 0, 0, 0, 0, 0];

/** What the stations are after some fingers have played. */
export function stationed({ map, last, string, since }: Pick<FingersPart, 'map' | 'last' | 'string' | 'since'>, now: FingersStroke): Stationed {
  const agrees = now.strings.every((at, k) => fits(map, at, now.ranks[k]! + 1));
  if (agrees) {
    const next = [...map];
    now.strings.forEach((at, k) => (next[at] = now.ranks[k]! + 1));
    return { map: next, change: 'kept', spread: spreadOf(map, now) };
  }
  const again = since === 'nothing' && now.string > 0 && now.string === string && (last & now.bits) === 0;
  if (again) return { map, change: 'visit', spread: 0 };
  const fresh = [...EMPTY];
  now.strings.forEach((at, k) => (fresh[at] = now.ranks[k]! + 1));
  return { map: fresh, change: 'moved', spread: 0 };
}

/** Whether a finger may have a string: it is its own or nobody's, and the fingers stay in the order of the strings. */
function fits(map: readonly number[], at: number, finger: number): boolean {
  if (map[at] !== 0 && map[at] !== finger) return false;
  for (let string = 1; string <= 6; string++) {
    const other = map[string]!;
    if (other === 0 || string === at) continue;
    if (other === finger || other > finger !== string < at) return false;
  }
  return true;
}

function spreadOf(map: readonly number[], { strings, ranks }: FingersStroke): number {
  let sum = 0;
  strings.forEach((at, k) => {
    if (map[at] !== 0) return;
    const below = nearest(map, at, 1);
    const above = nearest(map, at, -1);
    if (below > 0) sum += Math.abs(below - at - (ranks[k]! + 1 - map[below]!));
    if (above > 0) sum += Math.abs(at - above - (map[above]! - ranks[k]! - 1));
  });
  return sum;
}

/** The next string with a finger, towards the lower-pitched ones (1) or the higher-pitched ones (−1); 0 for none. */
function nearest(map: readonly number[], at: number, towards: 1 | -1): number {
  for (let string = at + towards; string >= 1 && string <= 6; string += towards) if (map[string] !== 0) return string;
  return 0;
}

/** Whether a finger has its place on a lower-pitched string than p plays. */
export const isAbove = (map: readonly number[], thumb: number): boolean =>
  map.some((finger, string) => finger !== 0 && string > thumb);

/** Fingers that p has reached over have lost their places. */
export const withoutThoseBelow = (map: readonly number[], thumb: number): readonly number[] =>
  isAbove(map, thumb) ? map.map((finger, string) => (string > thumb ? 0 : finger)) : map;
