/**
 * A step from one moment to the next without its place in the piece: what can lie where, and what the way costs,
 * depends on nothing else. Equal steps from the same states share their states, their ways and all prices.
 */
import type { FingeringProblem, Moment, Strike } from '../../problem/problem';
import { chargeCut, hurryOf } from '../rules/cuts';
import { Bill } from '../rules/ledger';
import { LONGEST_WINDOW_MS } from '../rules/terms';

/** What of a struck note bears on its placement. */
export type StruckNote = Pick<Strike, 'midi' | 'touch' | 'role' | 'printed' | 'ornamented'>;

/** A struck note and the one that leads to it; `again`: the same pitch, which still sounds or just ends. */
export interface Link {
  readonly kind: 'slur' | 'slide' | 'line' | 'bassLine' | 'again';
  readonly fromColumn: number;
  /** Index into `struck`. */
  readonly to: number;
  readonly semitones: number;
  /** Whether a slide is written into the note. */
  readonly slid: boolean;
  /** See `hurryOf`. */
  readonly hurry: number;
}

export interface Step {
  readonly ticks: number;
  readonly ms: number;
  /** By column of the layer before: from the end of its strike to the new moment; 0 when it goes on until then. */
  readonly endedTicks: readonly number[];
  readonly endedMs: readonly number[];
  /** By held strike: its column in the layer before, −1 when it was left out there. */
  readonly heldColumns: readonly number[];
  /** By held strike: the price of letting it go; null where its pitch is struck again and the sound goes on. */
  readonly cuts: readonly (number | null)[];
  readonly struck: readonly StruckNote[];
  readonly links: readonly Link[];
  /** Ms from so many ticks before the new moment to it. */
  readonly msBefore: (ticks: number) => number;
  /** Equal for steps that are alike in all of the above. */
  readonly key: string;
}

/** The strike columns of the layer before; none for the first moment of a piece. */
export function stepTo(problem: FingeringProblem, columns: readonly number[], next: Moment): Step {
  const { strikes, spans } = problem;
  const start = problem.moments[next.index - 1]?.tick ?? next.tick;
  const ends = columns.map((strike) => Math.min(next.tick, strikes[strike]!.endTicks));
  const ticks = next.tick - start;
  const endedTicks = ends.map((end) => next.tick - end);
  const heldColumns = next.held.map((strike) => columns.indexOf(strike));
  const cuts = next.held.map((strike) => cutCost(problem, strike, next));
  const struck = next.struck.map((index): StruckNote => {
    const { midi, touch, role, printed, ornamented } = strikes[index]!;
    return { midi, touch, role, printed, ornamented };
  });
  const links = linksInto(problem, columns, next);
  return {
    ticks,
    ms: spans.spanMs(start, next.tick),
    endedTicks,
    endedMs: ends.map((end) => spans.spanMs(end, next.tick)),
    heldColumns,
    cuts,
    struck,
    links,
    msBefore: (ago) => spans.spanMs(next.tick - ago, next.tick),
    key: keyOf({ ticks, endedTicks, heldColumns, cuts, struck, links }, pulseKey(problem, start, next)),
  };
}

/** Times in ms follow from those in ticks and the pulse. */
function keyOf(
  { ticks, endedTicks, heldColumns, cuts, struck, links }: Omit<Step, 'ms' | 'endedMs' | 'msBefore' | 'key'>,
  pulse: number | string,
): string {
  const notes = struck.map(({ midi, touch, role, printed, ornamented }) => {
    const touched = touch ? touch.map(({ string, fret }) => `${string}/${fret}`).join() : '';
    return `${midi}${role}${printed.finger},${printed.string}${ornamented ? 'o' : ''}${touched}`;
  });
  const ties = links.map(
    ({ kind, fromColumn, to, semitones, slid }) =>
      `${kind}${slid ? '~' : ''}${fromColumn},${to},${semitones}`,
  );
  return `${pulse};${ticks};${endedTicks.join()};${heldColumns.join()};${cuts.join()};${notes.join('|')};${ties.join('|')}`;
}

/** The pulse from the moment before on, and as far back as a freed hand remembers; where it changed, a step is like no other. */
function pulseKey({ spans }: FingeringProblem, start: number, next: Moment): number | string {
  const here = spans.maybePulseMs(next.tick, next.tick)!;
  const back = Math.max(0, Math.min(start, next.tick - Math.ceil(LONGEST_WINDOW_MS / here)));
  return spans.maybePulseMs(back, next.tick) ?? `at ${next.tick}`;
}

function cutCost(problem: FingeringProblem, index: number, next: Moment): number | null {
  const strike = problem.strikes[index]!;
  if (next.struck.some((other) => problem.strikes[other]!.midi === strike.midi)) return null;
  const bill = new Bill(problem.weights, undefined);
  chargeCut(problem, strike, next.tick, bill);
  return bill.sum;
}

function linksInto(problem: FingeringProblem, columns: readonly number[], next: Moment): readonly Link[] {
  const { strikes } = problem;
  const links: Link[] = [];
  const moment = problem.moments[next.index - 1];
  const hurry = moment ? hurryOf(problem, moment, next) : 0;
  const add = (kind: Link['kind'], from: number | null, to: number) => {
    const fromColumn = from === null ? -1 : columns.indexOf(from);
    if (fromColumn < 0 || to < 0) return;
    const { midi, slidFrom } = strikes[next.struck[to]!]!;
    links.push({
      kind,
      fromColumn,
      to,
      semitones: midi - strikes[from!]!.midi,
      slid: slidFrom !== null,
      hurry,
    });
  };
  next.struck.forEach((index, to) => {
    const { slurredFrom, slidFrom, lineFrom, role } = strikes[index]!;
    add('slur', slurredFrom, to);
    add('slide', slidFrom, to);
    add(role === 'melody' ? 'line' : 'bassLine', lineFrom, to);
  });
  for (const index of columns) {
    const strike = strikes[index]!;
    if (strike.endTicks < next.tick) continue;
    add(
      'again',
      index,
      next.struck.findIndex((other) => strikes[other]!.midi === strike.midi),
    );
  }
  return links;
}
