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

/** Lengths of time on a score. */
export interface Spans {
  /** Ms from one tick to a later one. Equal for equal lengths wherever one tempo holds for both. */
  readonly spanMs: (fromTick: number, toTick: number) => number;
  /** Ms a tick when one tempo holds from one tick to a later one, else null. */
  readonly maybePulseMs: (fromTick: number, toTick: number) => number | null;
}

/**
 * Like `clockOf`, for differences. A length inside one tempo is a multiple of its pulse, so that it does not depend
 * on rounding far from the start.
 * @throws RangeError when there is no mark at tick 0
 */
export function spansOf(marks: readonly TempoMark[], ticksPerQuarter: number): Spans {
  const clock = clockOf(marks, ticksPerQuarter);
  const markAt = (tick: number) => {
    let k = marks.length - 1;
    while (k > 0 && marks[k]!.tick > tick) k--;
    return k;
  };
  const maybePulseMs = (fromTick: number, toTick: number) => {
    const mark = markAt(fromTick);
    const next = marks[mark + 1];
    return next && next.tick < toTick ? null : msPerTick(marks[mark]!, ticksPerQuarter);
  };
  return {
    maybePulseMs,
    spanMs: (fromTick, toTick) => {
      const pulse = maybePulseMs(fromTick, toTick);
      return pulse === null ? clock(toTick) - clock(fromTick) : (toTick - fromTick) * pulse;
    },
  };
}

const msPerTick = (mark: TempoMark, ticksPerQuarter: number) =>
  60_000 / (mark.quartersPerMinute * ticksPerQuarter);
