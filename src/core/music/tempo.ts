/** Tempo as a step function over score ticks. */

export interface TempoMark {
  readonly tick: number;
  readonly quartersPerMinute: number;
  /** True when the file gives no tempo and Oculon derived one. */
  readonly assumed: boolean;
}

/**
 * Makes the clock of a score: ticks from the start to milliseconds from the start.
 * @param marks at least one, ascending, the first at tick 0
 * @throws RangeError when there is no mark at tick 0
 */
export function clockOf(marks: readonly TempoMark[], ticksPerQuarter: number): (tick: number) => number {
  const first = marks[0];
  if (!first || first.tick !== 0) throw new RangeError('a clock needs a tempo mark at tick 0');
  const starts: number[] = [0];
  for (let k = 1; k < marks.length; k++) {
    const before = marks[k - 1]!;
    starts.push(starts[k - 1]! + (marks[k]!.tick - before.tick) * msPerTick(before, ticksPerQuarter));
  }
  return (tick) => {
    let k = marks.length - 1;
    while (k > 0 && marks[k]!.tick > tick) k--;
    return starts[k]! + (tick - marks[k]!.tick) * msPerTick(marks[k]!, ticksPerQuarter);
  };
}

const msPerTick = (mark: TempoMark, ticksPerQuarter: number) =>
  60_000 / (mark.quartersPerMinute * ticksPerQuarter);
