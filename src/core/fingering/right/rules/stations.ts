/** Each string has its finger: what a stroke makes of the map of stations. Source: handbook 13, "broken chord". */
import type { FingersPart, FingersStroke } from './memory';

/** Which finger has which string, in one number: three bits a string, rank + 1 of its finger, 0 for nobody. */
export type StationMap = number;

export const NO_STATIONS: StationMap = 0;
const BITS = 3;
const FINGER = 7;
const STRINGS = 6;

/** Rank + 1 of the finger that has a string; 0 for nobody. */
export const fingerOn = (map: StationMap, string: number): number => (map >> (BITS * (string - 1))) & FINGER;
const withFinger = (map: StationMap, string: number, finger: number): StationMap =>
  (map & ~(FINGER << (BITS * (string - 1)))) | (finger << (BITS * (string - 1)));

export interface Stationed {
  readonly map: StationMap;
  /**
   * kept: every finger plays on its own string, or on one that nobody has. visit: another finger on the string that has
   * just sounded. moved: the set stands elsewhere from now on.
   */
  readonly change: 'kept' | 'visit' | 'moved';
  /** How far new fingers lie from their neighbours, beyond a string for each finger. */
  readonly spread: number;
  readonly hazy: boolean;
}

/**
 * What the stations are after some fingers have played. A chord is a place of its own for all of its fingers. Of a hazy
 * map, which is part of one that is not known, only the string of the last stroke is kept: so whatever the whole map
 * is, nothing costs less on it.
 */
export function stationed(
  { map, last, string, since, hazy }: Pick<FingersPart, 'map' | 'last' | 'string' | 'since' | 'hazy'>,
  now: FingersStroke,
): Stationed {
  if (now.string === 0) {
    const kept = now.strings.every((at, k) => fits(map, at, now.ranks[k]! + 1));
    return { map: mapOf(now), change: kept ? 'kept' : 'moved', spread: 0, hazy: false };
  }
  const finger = now.ranks[0]! + 1;
  const again = since === 'nothing' && now.string === string && (last & now.bits) === 0;
  if (fits(map, now.string, finger)) {
    if (hazy) return { map: again ? map : mapOf(now), change: 'kept', spread: 0, hazy: true };
    const spread = spreadOf(map, now.string, finger);
    return { map: withFinger(map, now.string, finger), change: 'kept', spread, hazy: false };
  }
  if (again) return { map, change: 'visit', spread: 0, hazy };
  return { map: mapOf(now), change: 'moved', spread: 0, hazy: false };
}

function mapOf({ strings, ranks }: FingersStroke): StationMap {
  let map = NO_STATIONS;
  for (let k = 0; k < strings.length; k++) map = withFinger(map, strings[k]!, ranks[k]! + 1);
  return map;
}

/** Whether a finger may have a string: it is its own or nobody's, and the fingers stay in the order of the strings. */
function fits(map: StationMap, at: number, finger: number): boolean {
  const own = fingerOn(map, at);
  if (own !== 0 && own !== finger) return false;
  for (let string = 1; string <= STRINGS; string++) {
    const other = fingerOn(map, string);
    if (other === 0 || string === at) continue;
    if (other === finger || other > finger !== string < at) return false;
  }
  return true;
}

function spreadOf(map: StationMap, at: number, finger: number): number {
  if (fingerOn(map, at) !== 0) return 0;
  const below = nearest(map, at, 1);
  const above = nearest(map, at, -1);
  return (
    (below > 0 ? Math.abs(below - at - (finger - fingerOn(map, below))) : 0) +
    (above > 0 ? Math.abs(at - above - (fingerOn(map, above) - finger)) : 0)
  );
}

/** The next string with a finger, towards the lower-pitched ones (1) or the higher-pitched ones (−1); 0 for none. */
function nearest(map: StationMap, at: number, towards: 1 | -1): number {
  for (let string = at + towards; string >= 1 && string <= STRINGS; string += towards)
    if (fingerOn(map, string) !== 0) return string;
  return 0;
}

/** Whether a finger has its place on a lower-pitched string than p plays. */
export const isAbove = (map: StationMap, thumb: number): boolean => map >> (BITS * thumb) !== 0;

/** Fingers that p has reached over have lost their places. */
export const withoutThoseBelow = (map: StationMap, thumb: number): StationMap =>
  map & ((1 << (BITS * thumb)) - 1);
