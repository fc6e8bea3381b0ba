/** Reading files and finding notes again. */
import { alignScores } from '../src/core/score/alignment/align';
import { readScore } from '../src/core/formats/musicxml/readScore';
import type { Score } from '../src/core/score/model';
import { importScore } from '../src/foreign/importScore';
import { note, percentile, timed, timedAsync } from './figures';
import { barredVoices } from './music';

const scoreOf = (xml: string): Score => {
  const document = readScore(xml);
  if (!document.ok) throw new Error(document.error.code);
  return document.value.score;
};

const RUNS = 9;

/** A bar of `barredVoices` holds ten notes. */
export async function imports() {
  for (const notes of [300, 10_000]) {
    const bytes = new TextEncoder().encode(barredVoices(notes / 10));
    const times: number[] = [];
    for (let run = 0; run < RUNS; run++) {
      const [result, ms] = await timedAsync(() => importScore(bytes, 'generated.musicxml', null));
      if (!result.ok || result.value.read.notes.length !== notes) throw new Error('not what was generated');
      times.push(ms);
    }
    note(
      'importing',
      `import of ${notes} notes (${Math.round(bytes.length / 1024)} KB), first`,
      times[0]!,
      'ms',
    );
    note('importing', `import of ${notes} notes, median of ${RUNS}`, percentile(times, 0.5), 'ms');
  }
}

const HEAD = barredVoices(1).slice(0, barredVoices(1).indexOf('<measure '));
const barsOf = (xml: string) => xml.match(/<measure .*?<\/measure>/gs) ?? [];

export function alignments() {
  const old = scoreOf(barredVoices(500));
  const bars = barsOf(barredVoices(500));
  // Twenty bars of other music in the middle.
  const newer = [...bars.slice(0, 250), ...barsOf(barredVoices(21, 7)).slice(1), ...bars.slice(250)];
  const next = scoreOf(HEAD + newer.join('') + '</part></score-partwise>');
  const inked = new Set(old.notes.filter((_, k) => k % 7 === 0).map((one) => one.uid));
  const times = Array.from({ length: RUNS }, () => timed(() => alignScores(old, next, inked))[1]);
  note('importing', `alignment at 500 bars, ${old.notes.length} notes, first`, times[0]!, 'ms');
  note('importing', `alignment at 500 bars, median of ${RUNS}`, percentile(times, 0.5), 'ms');
}
