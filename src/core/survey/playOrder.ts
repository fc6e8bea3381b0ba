/** The bars in the order in which they are played: repeats, endings, da capo, dal segno, coda, fine. */
import type { Measure } from '../score/model';

/** Stops a score that sends the player in circles. */
const MOST_STEPS = 20_000;

/** Bar indices. A repeat is not taken again after a jump back. Common practice. */
export function playOrder(measures: readonly Measure[]): readonly number[] {
  const order: number[] = [];
  const passes = new Map<number, number>();
  let start = 0;
  let pass = 1;
  let jumped = false;
  for (let bar = 0; bar < measures.length && order.length < MOST_STEPS;) {
    const measure = measures[bar]!;
    if (measure.repeatStart && bar !== start) [start, pass] = [bar, 1];
    const ending = endingAt(measures, bar);
    if (ending && !ending.includes(jumped ? lastPass(measures, bar) : pass)) {
      bar = afterEnding(measures, bar);
      continue;
    }
    order.push(bar);
    if (jumped && measure.jumps.fine) break;
    const coda = measures.findIndex((one, k) => k > bar && one.jumps.coda);
    if (jumped && measure.jumps.toCoda && coda >= 0) {
      bar = coda;
      continue;
    }
    const taken = passes.get(bar) ?? 1;
    if (measure.repeatEnd && !jumped && taken < measure.repeatTimes) {
      passes.set(bar, taken + 1);
      pass = taken + 1;
      bar = start;
      continue;
    }
    if (measure.repeatEnd) [start, pass] = [bar + 1, 1];
    if (!jumped && (measure.jumps.daCapo || measure.jumps.dalSegno)) {
      jumped = true;
      const segno = measures.findIndex((one) => one.jumps.segno);
      bar = measure.jumps.dalSegno && segno >= 0 ? segno : 0;
      [start, pass] = [bar, 1];
      continue;
    }
    bar++;
  }
  return order;
}

/** The passes for which the ending over a bar holds; null outside endings. */
function endingAt(measures: readonly Measure[], bar: number): readonly number[] | null {
  for (let k = bar; k >= 0; k--) {
    const { ending, endingStops, repeatEnd } = measures[k]!;
    if (k < bar && (endingStops || repeatEnd)) return null;
    if (ending !== null) return passesOf(ending);
  }
  return null;
}

const passesOf = (ending: string) =>
  ending
    .split(/[,\s]+/)
    .map((part) => Number.parseInt(part, 10))
    .filter((n) => n > 0);

function afterEnding(measures: readonly Measure[], bar: number): number {
  for (let k = bar; k < measures.length; k++) {
    if (measures[k]!.endingStops || measures[k]!.repeatEnd || measures[k + 1]?.ending) return k + 1;
  }
  return measures.length;
}

/** After a jump the last ending of a group is played. */
function lastPass(measures: readonly Measure[], bar: number): number {
  let last = 1;
  for (let k = bar; k < measures.length; k++) {
    const passes = measures[k]!.ending === null ? [] : passesOf(measures[k]!.ending!);
    if (k > bar && measures[k]!.ending === null && endingAt(measures, k) === null) break;
    last = Math.max(last, ...passes);
  }
  return last;
}
