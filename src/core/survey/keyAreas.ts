/**
 * Key areas: for each bar the key whose profile fits the music around it best, smoothed so that a key holds
 * until another is clearly better. Source: Krumhansl and Kessler 1982, probe-tone profiles (values from memory).
 */
import type { Score } from '../score/model';

export interface KeyArea {
  readonly fromBar: number;
  readonly toBar: number;
  /** Pitch class of the tonic. */
  readonly tonic: number;
  readonly mode: 'major' | 'minor';
}

const MAJOR = [6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88] as const;
const MINOR = [6.33, 2.68, 3.52, 5.38, 2.6, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17] as const;

/** Bars on each side that are heard with a bar. */
const AROUND = 2;
/** What a change of key must gain, summed over bars, in correlation. From memory. */
const CHANGE = 0.9;
/** The written key signature is believed a little. */
const SIGNATURE = 0.12;

/** Areas in order; together they cover all bars. */
export function keyAreas(score: Score): readonly KeyArea[] {
  const fits = score.measures.map((_, bar) => fitsAt(score, bar));
  const path = smoothest(fits);
  const areas: KeyArea[] = [];
  path.forEach((key, bar) => {
    const last = areas.at(-1);
    const tonic = key % 12;
    const mode = key < 12 ? 'major' : 'minor';
    if (last && last.tonic === tonic && last.mode === mode) areas[areas.length - 1] = { ...last, toBar: bar };
    else areas.push({ fromBar: bar, toBar: bar, tonic, mode });
  });
  return areas;
}

export const keyAt = (areas: readonly KeyArea[], bar: number): KeyArea | null =>
  areas.find((area) => area.fromBar <= bar && bar <= area.toBar) ?? null;

/** Correlation of the music around a bar with the 12 major, then the 12 minor keys. */
function fitsAt(score: Score, bar: number): readonly number[] {
  const weights = Array.from({ length: 12 }, () => 0);
  for (const note of score.notes) {
    const away = Math.abs(note.measureIndex - bar);
    if (away > AROUND || note.grace) continue;
    weights[note.soundingMidi % 12]! += note.durationTicks / (1 + away);
  }
  const tick = score.measures[bar]!.startTicks;
  const signature = score.keys.findLast((key) => key.tick <= tick)?.fifths ?? null;
  return Array.from({ length: 24 }, (_, key) => {
    const profile = key < 12 ? MAJOR : MINOR;
    const turned = profile.map((_, k) => profile[(k - (key % 12) + 12) % 12]!);
    const agrees = signature !== null && fifthsOf(key % 12, key < 12) === signature;
    return correlation(weights, turned) + (agrees ? SIGNATURE : 0);
  });
}

function correlation(a: readonly number[], b: readonly number[]): number {
  const mean = (list: readonly number[]) => list.reduce((sum, x) => sum + x, 0) / list.length;
  const [ma, mb] = [mean(a), mean(b)];
  let top = 0;
  let left = 0;
  let right = 0;
  for (let k = 0; k < a.length; k++) {
    top += (a[k]! - ma) * (b[k]! - mb);
    left += (a[k]! - ma) ** 2;
    right += (b[k]! - mb) ** 2;
  }
  return left === 0 ? 0 : top / Math.sqrt(left * right);
}

/** Viterbi over bars: fit minus the price of each change. */
function smoothest(fits: readonly (readonly number[])[]): readonly number[] {
  let best: number[] = [...(fits[0] ?? [])];
  const from: number[][] = [];
  for (const fit of fits.slice(1)) {
    const leader = best.indexOf(Math.max(...best));
    const origin = best.map((value, key) => (best[leader]! - CHANGE > value ? leader : key));
    best = fit.map((value, key) => value + Math.max(best[key]!, best[leader]! - CHANGE));
    from.push(origin);
  }
  if (fits.length === 0) return [];
  const path = [best.indexOf(Math.max(...best))];
  for (let k = from.length - 1; k >= 0; k--) path.unshift(from[k]![path[0]!]!);
  return path;
}

/** Signature of a key: C major and A minor are 0, G major 1, F major −1. */
export function fifthsOf(tonic: number, major: boolean): number {
  const relative = major ? tonic : (tonic + 3) % 12;
  const sharps = (relative * 7) % 12;
  return sharps > 6 ? sharps - 12 : sharps;
}
