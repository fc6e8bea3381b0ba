/** Tempo words as rows, slow to fast, in quarters a minute. Common practice, from memory; players differ. */
const TEMPO_WORDS = [
  { word: /\b(largo|lento|grave)\b/i, quartersPerMinute: 54 },
  { word: /\blarghetto\b/i, quartersPerMinute: 62 },
  { word: /\b(adagio|langsam|lent)\b/i, quartersPerMinute: 66 },
  { word: /\bandantino\b/i, quartersPerMinute: 82 },
  { word: /\bandante\b/i, quartersPerMinute: 76 },
  { word: /\b(moderato|mäßig|modéré)\b/i, quartersPerMinute: 96 },
  { word: /\ballegretto\b/i, quartersPerMinute: 108 },
  { word: /\b(vivace|vivo|lebhaft)\b/i, quartersPerMinute: 144 },
  { word: /\ballegro\b/i, quartersPerMinute: 126 },
  { word: /\b(presto|prestissimo)\b/i, quartersPerMinute: 172 },
] as const;

export interface TempoWord {
  readonly word: string;
  readonly quartersPerMinute: number;
}

/** The tempo that words ask for; null when they name none. Of "Allegro moderato" the slower one counts. */
export function maybeTempoWord(text: string): TempoWord | null {
  const row = TEMPO_WORDS.find(({ word }) => word.test(text));
  return row ? { word: text.trim(), quartersPerMinute: row.quartersPerMinute } : null;
}
