/**
 * Which bar of a newer score is which bar of the older one: the alignment of greatest shared music, found by
 * dynamic programming over all pairs of bars (Needleman and Wunsch 1970, without gap costs).
 */
import type { BarContent } from './barContent';

export interface BarPair {
  readonly old: number;
  readonly next: number;
}

/** Shared music at the same place in the bar counts more than the same pitch at another place. */
const SAME_PLACE = 3;
const SAME_PITCH = 1;
/** A bar that holds the same and nothing else is that bar: so much more for each of its notes. */
const SAME_BAR = 4;
/** Breaks ties: the same printed number, which programs may change at will. */
const SAME_NUMBER = 0.0001;

/** In order of both scores. Bars that share no pitch are never paired. */
export function pairBars(old: readonly BarContent[], next: readonly BarContent[]): readonly BarPair[] {
  const likeness = likenessOf(old, next);
  const width = next.length + 1;
  const best = new Float64Array((old.length + 1) * width);
  for (let i = old.length - 1; i >= 0; i--) {
    for (let j = next.length - 1; j >= 0; j--) {
      const own = likeness[i * next.length + j]!;
      const skip = Math.max(best[(i + 1) * width + j]!, best[i * width + j + 1]!);
      best[i * width + j] = own > 0 ? Math.max(skip, own + best[(i + 1) * width + j + 1]!) : skip;
    }
  }
  const pairs: BarPair[] = [];
  for (let i = 0, j = 0; i < old.length && j < next.length;) {
    const here = best[i * width + j]!;
    const own = likeness[i * next.length + j]!;
    if (own > 0 && here === own + best[(i + 1) * width + j + 1]!) pairs.push({ old: i++, next: j++ });
    else if (here === best[(i + 1) * width + j]!) i++;
    else j++;
  }
  return pairs;
}

function likenessOf(old: readonly BarContent[], next: readonly BarContent[]): Float64Array {
  const likeness = new Float64Array(old.length * next.length);
  addShared(likeness, old, next, 'places', SAME_PLACE);
  addShared(likeness, old, next, 'pitches', SAME_PITCH);
  for (let i = 0; i < old.length; i++) {
    for (let j = 0; j < next.length; j++) {
      const k = i * next.length + j;
      if (likeness[k]! === 0) continue;
      if (old[i]!.whole === next[j]!.whole) likeness[k]! += SAME_BAR * old[i]!.notes.length;
      if (old[i]!.number === next[j]!.number) likeness[k]! += SAME_NUMBER;
    }
  }
  return likeness;
}

/** For each thing that both bars hold, the weights of the old bar's notes, as many as both have, heaviest first. */
function addShared(
  likeness: Float64Array,
  old: readonly BarContent[],
  next: readonly BarContent[],
  kind: 'places' | 'pitches',
  worth: number,
) {
  const holders = new Map<string, { bar: number; count: number }[]>();
  next.forEach((bar, j) => {
    for (const [key, weights] of bar[kind]) {
      const list = holders.get(key) ?? [];
      holders.set(key, list);
      list.push({ bar: j, count: weights.length });
    }
  });
  old.forEach((bar, i) => {
    for (const [key, weights] of bar[kind]) {
      const sums = runningSums(weights);
      for (const { bar: j, count } of holders.get(key) ?? []) {
        likeness[i * next.length + j]! += worth * sums[Math.min(count, weights.length)]!;
      }
    }
  });
}

function runningSums(weights: readonly number[]): readonly number[] {
  const sums = [0];
  for (const weight of [...weights].sort((a, b) => b - a)) sums.push(sums.at(-1)! + weight);
  return sums;
}
