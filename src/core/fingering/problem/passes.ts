/** How often each moment is played, and where the music goes back or on: repeats, endings, da capo, dal segno. */
import type { Measure } from '../../score/model';
import { playOrder } from '../../survey/playOrder';
import type { Moment } from './problem';

/** A step that is no step to the next moment: from the last moment before the jump to the first after it. */
export interface Return {
  readonly from: number;
  readonly to: number;
  readonly times: number;
  /** Where the bar ends that it comes from: its notes have ended by then. */
  readonly tick: number;
}

export interface Passes {
  /** By moment. */
  readonly plays: readonly number[];
  /** By moment: how often it follows on the one before it in the score. */
  readonly steps: readonly number[];
  readonly returns: readonly Return[];
}

export function passesOf(measures: readonly Measure[], moments: readonly Moment[]): Passes {
  const byBar = momentsByBar(measures, moments);
  const plays = moments.map(() => 0);
  const steps = moments.map(() => 0);
  const returns = new Map<string, Return>();
  let last: number | null = null;
  let lastBar = 0;
  for (const bar of playOrder(measures)) {
    for (const k of byBar[bar]!) {
      plays[k]!++;
      if (last === k - 1) steps[k]!++;
      else if (last !== null) {
        const key = `${last} ${k}`;
        const { startTicks, durationTicks } = measures[lastBar]!;
        const known = returns.get(key)?.times ?? 0;
        returns.set(key, { from: last, to: k, times: known + 1, tick: startTicks + durationTicks });
      }
      last = k;
    }
    lastBar = bar;
  }
  // What the order of play leaves out (a bar behind a fine) is fingered all the same.
  return { plays: plays.map((n) => Math.max(1, n)), steps, returns: [...returns.values()] };
}

/** How often the piece is begun: not when it is come back to. */
export const beginnings = ({ plays, returns }: Passes): number =>
  returns.reduce((times, one) => (one.to === 0 ? times - one.times : times), plays[0] ?? 1);

/** A moment before the first bar line (a grace note) belongs to the first bar. */
function momentsByBar(
  measures: readonly Measure[],
  moments: readonly Moment[],
): readonly (readonly number[])[] {
  const bars: number[][] = measures.map(() => []);
  let bar = 0;
  for (const moment of moments) {
    while (bar + 1 < measures.length && measures[bar + 1]!.startTicks <= moment.tick) bar++;
    bars[bar]!.push(moment.index);
  }
  return bars;
}
