/** Where a tick lies, as a musician says it. */
import type { Score } from './model';

/** Bar number and beat ("2", "3.5") of a tick; a tick on a bar line belongs to the bar that begins there. */
export function placeOf(score: Score, ticks: number): { readonly bar: string; readonly beat: string } {
  const measure = score.measures.findLast((one) => one.startTicks <= ticks) ?? score.measures[0]!;
  const metre = score.metres.findLast((one) => one.tick <= ticks);
  const beatTicks = (score.ticksPerQuarter * 4) / (metre?.beatType ?? 4);
  const beat = 1 + (ticks - measure.startTicks) / beatTicks;
  return { bar: measure.number, beat: String(Number(beat.toFixed(2))) };
}

/** Quarters per minute at a tick. */
export const tempoAt = (score: Score, ticks: number): number =>
  (score.tempos.findLast((mark) => mark.tick <= ticks) ?? score.tempos[0]!).quartersPerMinute;
