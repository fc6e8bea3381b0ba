/** The words of a copy as another program gets them: with the score, not on a page. */
import type { SaidWords } from '../formats/musicxml/writeBarWords';
import { barsNamed, phraseText, surveyed, syllable } from './rowTexts';
import type { Includable } from './paper';
import type { CopySource } from './source';

export function saidWords(
  source: CopySource,
  include: readonly Includable[],
  countedBars: string,
): SaidWords {
  const { score, remarks } = source;
  const survey = surveyed(source);
  const bars = score.measures.map(({ uid }, bar) => {
    const { chord } = survey.bars[bar]!;
    const isNew = chord !== survey.bars[bar - 1]?.chord;
    const words = {
      chord: include.includes('chords') && isNew ? chord : null,
      form: include.includes('form') ? phraseText(source, bar) : null,
      remark: include.includes('remarks') ? (remarks.get(uid) ?? null) : null,
    };
    return [bar, words] as const;
  });
  return {
    bars: new Map(bars),
    counting: include.includes('counting') ? counting(source, countedBars) : new Map(),
  };
}

/** Under the first note of each onset of the bars that are counted. */
function counting({ score }: CopySource, countedBars: string): ReadonlyMap<string, string> {
  const counted = barsNamed(score, countedBars);
  const seen = new Set<number>();
  const syllables = new Map<string, string>();
  for (const { uid, onsetTicks, measureIndex, grace } of score.notes) {
    if (grace || !counted.has(measureIndex) || seen.has(onsetTicks)) continue;
    seen.add(onsetTicks);
    syllables.set(uid, syllable(score, onsetTicks, measureIndex));
  }
  return syllables;
}
