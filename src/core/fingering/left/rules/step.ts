/**
 * A step from one moment to the next without its place in the piece: what can lie where, and what the way costs,
 * depends on nothing else. Equal steps from the same states share their states, their ways and all prices.
 */
import type { FingeringProblem, Moment } from '../../problem/problem';
import type { Strike } from '../../problem/strike';
import { sameNumbers } from '../../solver/numberRows';
import { type Cut, hurryOf, maybeCut } from './cuts';
import { LONGEST_WINDOW_MS } from './terms';

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

/** A strike that sounds on into the new moment. */
export interface HeldNote {
  /** Its column in the layer before, −1 when it was left out there. */
  readonly column: number;
  /** What letting it go takes away; null where its pitch is struck again and the sound goes on. */
  readonly cut: Cut | null;
}

export interface HandStep {
  readonly ticks: number;
  readonly ms: number;
  /** By column of the layer before: from the end of its strike to the new moment; 0 when it goes on until then. */
  readonly endedTicks: readonly number[];
  readonly endedMs: readonly number[];
  readonly held: readonly HeldNote[];
  readonly struck: readonly StruckNote[];
  readonly links: readonly Link[];
  /** Ms from so many ticks before the new moment to it. */
  readonly msBefore: (ticks: number) => number;
  /** Equal for steps that are alike in all of the above. */
  readonly key: string;
}

/** The last step to each moment of a problem: layers and explanations ask for the same. */
const known = new WeakMap<FingeringProblem, Map<Moment, { columns: readonly number[]; step: HandStep }>>();

/** @param columns the strikes of the layer before; none for the first moment of a piece */
export function stepTo(problem: FingeringProblem, columns: readonly number[], next: Moment): HandStep {
  let steps = known.get(problem);
  if (!steps) known.set(problem, (steps = new Map()));
  const last = steps.get(next);
  if (last && sameNumbers(last.columns, columns)) return last.step;
  const before = problem.moments[next.index - 1] ?? null;
  const step = stepBetween(problem, before, columns, next, linksInto(problem, before, columns, next));
  steps.set(next, { columns, step });
  return step;
}

/** A jump back to where a passage begins again, or on to another ending: nothing is held or led over it. */
export const jumpTo = (
  problem: FingeringProblem,
  from: Moment,
  columns: readonly number[],
  next: Moment,
): HandStep => stepBetween(problem, from, columns, { ...next, held: [] }, []);

function stepBetween(
  problem: FingeringProblem,
  before: Moment | null,
  columns: readonly number[],
  next: Moment,
  links: readonly Link[],
): HandStep {
  const { strikes, spans } = problem;
  const start = before?.tick ?? next.tick;
  const ends = columns.map((strike) => Math.min(next.tick, strikes[strike]!.endTicks));
  const alike = {
    ticks: next.tick - start,
    endedTicks: ends.map((end) => next.tick - end),
    held: next.held.map((strike) => ({
      column: columns.indexOf(strike),
      cut: maybeCut(problem, strikes[strike]!, next),
    })),
    struck: next.struck.map((index): StruckNote => {
      const { midi, touch, role, printed, ornamented } = strikes[index]!;
      return { midi, touch, role, printed, ornamented };
    }),
    links,
  };
  return {
    ...alike,
    ms: spans.spanMs(start, next.tick),
    endedMs: ends.map((end) => spans.spanMs(end, next.tick)),
    msBefore: (ago) => spans.spanMs(next.tick - ago, next.tick),
    key: keyOf(alike, pulseKey(problem, start, next)),
  };
}

type Alike = Pick<HandStep, 'ticks' | 'endedTicks' | 'held' | 'struck' | 'links'>;

/** Times in ms follow from those in ticks and the pulse. */
function keyOf({ ticks, endedTicks, held, struck, links }: Alike, pulse: number | string): string {
  const notes = struck.map(({ midi, touch, role, printed, ornamented }) => {
    const touched = touch ? touch.map(({ string, fret }) => `${string}/${fret}`).join() : '';
    return `${midi}${role}${printed.finger},${printed.string}${ornamented ? 'o' : ''}${touched}`;
  });
  const cuts = held.map(({ column, cut }) =>
    cut ? `${column}${cut.term}${cut.amount}${cut.mustRing ? '!' : ''}` : `${column}`,
  );
  const ties = links.map(
    ({ kind, fromColumn, to, semitones, slid }) =>
      `${kind}${slid ? '~' : ''}${fromColumn},${to},${semitones}`,
  );
  return `${pulse};${ticks};${endedTicks.join()};${cuts.join()};${notes.join('|')};${ties.join('|')}`;
}

/** The pulse from the moment before on, and as far back as a freed hand remembers; where it changed, a step is like no other. */
function pulseKey({ spans }: FingeringProblem, start: number, next: Moment): number | string {
  const here = spans.maybePulseMs(next.tick, next.tick)!;
  const back = Math.max(0, Math.min(start, next.tick - Math.ceil(LONGEST_WINDOW_MS / here)));
  return spans.maybePulseMs(back, next.tick) ?? `at ${next.tick}`;
}

function linksInto(
  problem: FingeringProblem,
  before: Moment | null,
  columns: readonly number[],
  next: Moment,
): readonly Link[] {
  const { strikes } = problem;
  const links: Link[] = [];
  const hurry = before ? hurryOf(problem.spans.spanMs(before.tick, next.tick)) : 0;
  const add = (kind: Link['kind'], from: number | null, to: number) => {
    const fromColumn = from === null ? -1 : columns.indexOf(from);
    if (fromColumn < 0 || to < 0) return;
    const { midi, slidFrom } = strikes[next.struck[to]!]!;
    const semitones = midi - strikes[from!]!.midi;
    links.push({ kind, fromColumn, to, semitones, slid: slidFrom !== null, hurry });
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
