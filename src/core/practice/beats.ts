/** What a metronome strikes: beats of a metre with their accents, grouped as one wishes. */

/** 2 the first of the bar, 1 the first of a group, 0 the others. */
export type Accent = 0 | 1 | 2;

export interface Beat {
  readonly accent: Accent;
  /** In quarters from the beginning of the bar. */
  readonly at: number;
}

/**
 * @param grouping how many units each group has, "3+3" or "2+2+2" for six; the usual one where it does not fill the bar
 * Source of the usual groups: common practice, threes in compound metres, single beats in simple ones.
 */
export function beatsOf(
  { beats, beatType }: { readonly beats: number; readonly beatType: number },
  grouping: readonly number[] = [],
): readonly Beat[] {
  const isCompound = beatType >= 8 && beats % 3 === 0;
  const usual = isCompound ? Array<number>(beats / 3).fill(3) : [beats];
  const groups = grouping.reduce((sum, size) => sum + size, 0) === beats ? grouping : usual;
  const firsts = new Set<number>();
  let at = 0;
  for (const size of groups) {
    firsts.add(at);
    at += size;
  }
  return Array.from({ length: beats }, (_, k): Beat => ({
    accent: k === 0 ? 2 : firsts.has(k) ? 1 : 0,
    at: (k * 4) / beatType,
  }));
}
