/**
 * Where systems end. All ways to part a piece into systems are compared by dynamic programming, as Knuth and Plass do for
 * paragraphs (Software: Practice and Experience 11, 1981): a system that is stretched or squeezed costs the cube of how
 * much, and one that ends where the music does is better than one that does not.
 */

/** A bar as it stands when nothing presses it, in staff spaces. */
export interface NaturalBar {
  readonly width: number;
  /** A double bar, a repeat or the end of a phrase stands at its end. */
  readonly ends: 'section' | 'phrase' | null;
}

export interface LineRoom {
  readonly width: number;
  /** Clef and key at the beginning of each system. */
  readonly head: number;
}

/** A system may be squeezed by so much of its natural width, and is stretched by so much without looking empty. */
const MOST_SQUEEZED = 0.1;
const EASILY_STRETCHED = 0.35;
/** No bar is narrower on paper, in staff spaces. */
export const LEAST_BAR = 5;
/** The last system fills so much of its line: over half, and some more as widths are estimates. */
const LAST_AT_LEAST = 0.56;

const COSTS = { bad: 100, shortLast: 20_000, line: 10 } as const;
const ENDS: Readonly<Record<'section' | 'phrase', number>> = { section: -90, phrase: -45 };

/** @returns the index of the first bar of each system */
export function breakLines(bars: readonly NaturalBar[], room: LineRoom): readonly number[] {
  const best: { readonly cost: number; readonly from: number }[] = [{ cost: 0, from: -1 }];
  for (let end = 1; end <= bars.length; end++) {
    let found = { cost: Infinity, from: end - 1 };
    for (let from = end - 1; from >= 0; from--) {
      const cost = costOf(bars, from, end, room);
      if (cost === null) break;
      const all = best[from]!.cost + cost;
      if (all < found.cost) found = { cost: all, from };
    }
    best.push(found);
  }
  const firsts: number[] = [];
  for (let end = bars.length; end > 0; end = best[end]!.from) firsts.unshift(best[end]!.from);
  return firsts;
}

/** Null where the bars do not fit into one system. A single bar always has one. */
function costOf(
  bars: readonly NaturalBar[],
  from: number,
  end: number,
  { width, head }: LineRoom,
): number | null {
  const own = bars.slice(from, end);
  const free = width - head;
  const natural = own.reduce((sum, bar) => sum + bar.width, 0);
  const narrowest = Math.min(...own.map((bar) => bar.width));
  const isAlone = end - from === 1;
  const isSqueezed = natural * (1 - MOST_SQUEEZED) > free || (narrowest / natural) * free < LEAST_BAR;
  if (isSqueezed && !isAlone) return null;
  const isLast = end === bars.length;
  const filled = (head + natural) / width;
  if (isLast && filled < 1)
    return COSTS.line + (filled < LAST_AT_LEAST ? COSTS.shortLast * (LAST_AT_LEAST - filled) : 0);
  const by = free / natural - 1;
  const bad = COSTS.bad * Math.abs(by / (by < 0 ? MOST_SQUEEZED : EASILY_STRETCHED)) ** 3;
  const { ends } = bars[end - 1]!;
  return COSTS.line + bad + (isLast || !ends ? 0 : ENDS[ends]);
}
