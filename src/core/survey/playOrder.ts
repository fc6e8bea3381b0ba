/** The bars in the order in which they are played: repeats, endings, da capo, dal segno, coda, fine. */
import type { Measure } from '../score/model';

/** Stops a score that sends the player in circles. */
const MOST_STEPS = 20_000;

/** Bar indices. A repeat is not taken again after a jump back. Common practice. */
export function playOrder(measures: readonly Measure[]): readonly number[] {
  const order: number[] = [];
  const player = new Player(measures);
  while (player.bar < measures.length && order.length < MOST_STEPS) {
    if (player.skipsEnding()) continue;
    order.push(player.bar);
    if (player.isAtFine()) break;
    player.goOn();
  }
  return order;
}

/** Where a player is, in which pass, and whether a da capo or dal segno has been taken. */
class Player {
  bar = 0;
  private start = 0;
  private pass = 1;
  private jumped = false;
  private readonly passes = new Map<number, number>();

  constructor(private readonly measures: readonly Measure[]) {}

  /** Goes past an ending that is for another pass. */
  skipsEnding(): boolean {
    const { measures, bar } = this;
    if (measures[bar]!.repeatStart && bar !== this.start) this.beginAt(bar);
    const ending = endingAt(measures, bar);
    if (!ending || ending.includes(this.jumped ? lastPass(measures, bar) : this.pass)) return false;
    this.bar = afterEnding(measures, bar);
    return true;
  }

  isAtFine(): boolean {
    return this.jumped && this.measures[this.bar]!.jumps.fine;
  }

  /** To the next bar, or to where a sign sends the player. */
  goOn(): void {
    const { repeatEnd } = this.measures[this.bar]!;
    if (this.goesToCoda() || this.repeats()) return;
    if (repeatEnd) this.beginAt(this.bar + 1);
    if (!this.jumpsBack()) this.bar++;
  }

  private beginAt(bar: number): void {
    [this.start, this.pass] = [bar, 1];
  }

  private goesToCoda(): boolean {
    const { measures, bar } = this;
    if (!this.jumped || !measures[bar]!.jumps.toCoda) return false;
    const coda = measures.findIndex((one, k) => k > bar && one.jumps.coda);
    if (coda >= 0) this.bar = coda;
    return coda >= 0;
  }

  private repeats(): boolean {
    const { repeatEnd, repeatTimes } = this.measures[this.bar]!;
    const taken = this.passes.get(this.bar) ?? 1;
    if (!repeatEnd || this.jumped || taken >= repeatTimes) return false;
    this.passes.set(this.bar, taken + 1);
    this.pass = taken + 1;
    this.bar = this.start;
    return true;
  }

  private jumpsBack(): boolean {
    const { daCapo, dalSegno } = this.measures[this.bar]!.jumps;
    if (this.jumped || !(daCapo || dalSegno)) return false;
    this.jumped = true;
    const segno = this.measures.findIndex((one) => one.jumps.segno);
    this.bar = dalSegno && segno >= 0 ? segno : 0;
    this.beginAt(this.bar);
    return true;
  }
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
