/**
 * A step from one moment to the next without its place in the piece: what can lie where, and what the way costs,
 * depends on nothing else. Equal steps from the same states share their states, their ways and all prices.
 */
import type { FingeringProblem, Moment } from '../../problem/problem';
import { isSameAgain, isSilent, type Manner, type Strike } from '../../problem/strike';
import { sameNumbers } from '../../solver/numberRows';
import { type Cut, hurryOf, maybeCut } from './cuts';
import { LAST_SHARE, LONGEST_WINDOW_MS, RELEASE_SHARE } from './shares';

/** What of a struck note bears on its placement. */
export type StruckNote = Pick<
  Strike,
  'midi' | 'touch' | 'voice' | 'role' | 'manner' | 'unhurried' | 'inMove' | 'printed' | 'ornamented'
>;

/** A struck note and the one that leads to it; `again`: the same pitch, which still sounds or just ends. */
export interface Link {
  readonly kind: 'slur' | 'slide' | 'line' | 'bassLine' | 'parallel' | 'moved' | 'again' | 'restruck';
  readonly fromColumn: number;
  /** Index into `struck`, and after it into `laid`. */
  readonly to: number;
  readonly semitones: number;
  /** Of the note that it leads to. */
  readonly manner: Manner;
  /** Whether a finger slides well into the note: a slide is written, or it moves along with others. */
  readonly slid: boolean;
  /** See `hurryOf`. */
  readonly hurry: number;
  /** Of the same pitch again: whether it is struck in one chord after another; a chord that comes again is one. */
  readonly inChords: boolean;
}

/** A strike that sounds on into the new moment. */
export interface HeldNote {
  /** Its column in the layer before, −1 when it was left out there. */
  readonly column: number;
  /** What letting it go takes away; null where its pitch is struck again and the sound goes on. */
  readonly cut: Cut | null;
  /** The grip that it is part of: what lies whole stays whole, or is let go. */
  readonly grip: number | null;
  /** Part of a grip that is not heard at the new moment: where the grip is broken it is gone. */
  readonly silent: boolean;
  /** Columns of its grip in the layer before. */
  readonly unit: readonly number[];
}

export interface HandStep {
  readonly ticks: number;
  readonly ms: number;
  /** By column of the layer before: from the end of its strike to the new moment; 0 when it goes on until then. */
  readonly endedTicks: readonly number[];
  /** By column: from the beginning of its strike to its end, or to the new moment. */
  readonly lastedTicks: readonly number[];
  readonly endedMs: readonly number[];
  /** By column: how long before the new moment its finger may leave: when its note has ended, or in its last part. */
  readonly freeMs: readonly number[];
  /** What lies already: notes held on, then those that are struck where they lie. */
  readonly held: readonly HeldNote[];
  readonly struck: readonly StruckNote[];
  /** Index into `struck` of the notes that lie already; the last of `held`. */
  readonly taken: readonly number[];
  /** Notes of a grip that is taken here, which are struck later. */
  readonly laid: readonly StruckNote[];
  /** By note that lies already: what its grip consists of, columns of `lying` and indices into `struck`. */
  readonly units: readonly { readonly lying: readonly number[]; readonly struck: readonly number[] }[];
  /** What is held on and not struck, by column. */
  readonly lying: readonly Pick<Strike, 'midi' | 'voice' | 'manner'>[];
  readonly links: readonly Link[];
  /** Ms from so many ticks before the new moment to it. */
  readonly msBefore: (ticks: number) => number;
  /** Equal for steps that are alike in all of the above. */
  readonly key: string;
}

/** What is struck or laid at a moment; `taken`: indices into `struck` of what lies already. */
export type PlacedNotes = Pick<HandStep, 'struck' | 'taken' | 'laid' | 'units' | 'lying'>;

export function placedNotes(
  { strikes }: FingeringProblem,
  { struck, taken, laid, held }: Moment,
): PlacedNotes {
  const notesOf = (indices: readonly number[]) => indices.map((index) => noteOf(strikes[index]!));
  return {
    struck: notesOf(struck),
    taken: taken.map((strike) => struck.indexOf(strike)),
    laid: notesOf(laid),
    units: taken.map((strike) => {
      const isOfGrip = (other: number) => strikes[other]!.grip === strikes[strike]!.grip;
      return {
        lying: [...held.keys()].filter((h) => isOfGrip(held[h]!)),
        struck: taken.filter(isOfGrip).map((other) => struck.indexOf(other)),
      };
    }),
    lying: held.map((index) => strikes[index]!),
  };
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
): HandStep => stepBetween(problem, from, columns, { ...next, held: [], taken: [] }, []);

function stepBetween(
  problem: FingeringProblem,
  before: Moment | null,
  columns: readonly number[],
  next: Moment,
  links: readonly Link[],
): HandStep {
  const { strikes, reckoned: spans } = problem;
  const start = before?.tick ?? next.tick;
  const ends = columns.map((strike) => Math.min(next.tick, neededUntil(strikes[strike]!)));
  const alike = {
    ticks: next.tick - start,
    endedTicks: ends.map((end) => next.tick - end),
    lastedTicks: columns.map((strike, c) => Math.max(0, ends[c]! - strikes[strike]!.onsetTicks)),
    held: heldAt(problem, columns, next),
    ...placedNotes(problem, next),
    links,
  };
  const ms = spans.spanMs(start, next.tick);
  const endedMs = ends.map((end) => spans.spanMs(end, next.tick));
  return {
    ...alike,
    ms,
    endedMs,
    freeMs: columns.map((strike, c) => {
      const { onsetTicks } = strikes[strike]!;
      const lastedMs = onsetTicks < ends[c]! ? spans.spanMs(onsetTicks, ends[c]!) : 0;
      return Math.max(endedMs[c]!, RELEASE_SHARE * ms, Math.min(ms, LAST_SHARE * lastedMs));
    }),
    msBefore: (ago) => spans.spanMs(next.tick - ago, next.tick),
    key: keyOf(alike, pulseKey(problem, start, next)),
  };
}

/** A note of a grip rings on, but the hand may leave it when its written time is over. */
const neededUntil = ({ grip, endTicks, writtenEndTicks }: Strike): number =>
  grip === null ? endTicks : writtenEndTicks;

function heldAt(problem: FingeringProblem, columns: readonly number[], next: Moment): readonly HeldNote[] {
  const { strikes } = problem;
  const lying = [
    ...next.held.map((strike) => ({ strike: strikes[strike]!, column: columns.indexOf(strike) })),
    ...next.taken.map((strike) => ({
      strike: strikes[strike]!,
      column: takenFrom(strikes[strike]!, columns),
    })),
  ];
  return lying.map(({ strike, column }, h) => ({
    column,
    cut: h < next.held.length ? maybeCut(problem, strike, next) : null,
    grip: strike.grip,
    silent: h < next.held.length && isSilent(strike, next.tick),
    unit:
      strike.grip === null
        ? []
        : lying.filter((one) => one.strike.grip === strike.grip).map((one) => one.column),
  }));
}

/** Its own column, where it was laid before, or that of the note that it strikes again. */
const takenFrom = ({ index, continues }: Strike, columns: readonly number[]): number => {
  const own = columns.indexOf(index);
  return own < 0 && continues !== null ? columns.indexOf(continues) : own;
};

const noteOf = ({
  midi,
  touch,
  voice,
  role,
  manner,
  unhurried,
  inMove,
  printed,
  ornamented,
}: Strike): StruckNote => ({
  midi,
  touch,
  voice,
  role,
  manner,
  unhurried,
  inMove,
  printed,
  ornamented,
});

type Alike = Pick<
  HandStep,
  'ticks' | 'endedTicks' | 'lastedTicks' | 'held' | 'struck' | 'taken' | 'laid' | 'units' | 'lying' | 'links'
>;

/** Times in ms follow from those in ticks and the pulse. */
function keyOf(
  { ticks, endedTicks, lastedTicks, held, struck, taken, laid, lying, links }: Alike,
  pulse: number | string,
): string {
  const grips = [...new Set(held.map(({ grip }) => grip))];
  const cuts = held.map(({ column, cut, grip, silent }) => {
    const unit = grip === null ? '' : `g${grips.indexOf(grip)}${silent ? '-' : ''}`;
    return cut ? `${column}${unit}${cut.term}${cut.amount}${cut.mustRing ? '!' : ''}` : `${column}${unit}`;
  });
  const ties = links.map(
    ({ kind, fromColumn, to, semitones, manner, slid, inChords }) =>
      `${kind}${manner}${slid ? '~' : ''}${inChords ? 'c' : ''}${fromColumn},${to},${semitones}`,
  );
  const beside = lying.map(({ midi, voice, manner }) => `${midi}v${voice}${manner}`);
  return `${pulse};${beside.join()};${ticks};${endedTicks.join()};${lastedTicks.join()};${cuts.join()};${struck.map(nameOf).join('|')};${taken.join()};${laid.map(nameOf).join('|')};${ties.join('|')}`;
}

function nameOf(note: StruckNote): string {
  const { midi, touch, voice, role, manner, unhurried, inMove, printed, ornamented } = note;
  const touched = touch ? touch.map(({ string, fret }) => `${string}/${fret}`).join() : '';
  return `${midi}v${voice}${role}${manner}${unhurried ? 'u' : ''}${inMove === 'moves' ? 'm' : ''}${printed.finger},${printed.string}${ornamented ? 'o' : ''}${touched}`;
}

/** The pulse from the moment before on, and as far back as a freed hand remembers; where it changed, a step is like no other. */
function pulseKey({ reckoned: spans }: FingeringProblem, start: number, next: Moment): number | string {
  const here = spans.maybePulseMs(next.tick, next.tick)!;
  const back = Math.max(0, Math.min(start, next.tick - Math.ceil(LONGEST_WINDOW_MS / here)));
  return spans.maybePulseMs(back, next.tick) ?? `at ${next.tick}`;
}

/** So many notes struck together are a chord. */
const CHORD_NOTES = 3;

function linksInto(
  problem: FingeringProblem,
  before: Moment | null,
  columns: readonly number[],
  next: Moment,
): readonly Link[] {
  const { strikes } = problem;
  const links: Link[] = [];
  const placed = [...next.struck, ...next.laid];
  const hurry = before ? hurryOf(problem.reckoned.spanMs(before.tick, next.tick)) : 0;
  const isChord = (struck: readonly number[]) => struck.length >= CHORD_NOTES;
  const midisOf = (struck: readonly number[]) => struck.map((strike) => strikes[strike]!.midi);
  const isSame = (a: readonly number[], b: readonly number[]) =>
    a.length === b.length && a.every((midi) => b.includes(midi));
  const inChords =
    before !== null &&
    isChord(before.struck) &&
    isChord(next.struck) &&
    !isSame(midisOf(before.struck), midisOf(next.struck));
  const add = (kind: Link['kind'], from: number | null, to: number) => {
    const fromColumn = from === null ? -1 : columns.indexOf(from);
    if (fromColumn < 0 || to < 0) return;
    const { midi, manner, slidFrom, parallelFrom } = strikes[placed[to]!]!;
    const semitones = midi - strikes[from!]!.midi;
    const slid = slidFrom !== null || parallelFrom === from;
    links.push({ kind, fromColumn, to, semitones, manner, slid, hurry, inChords });
  };
  next.struck.forEach((index, to) => {
    const { slurredFrom, slidFrom, lineFrom, parallelFrom, inMove, role } = strikes[index]!;
    add('slur', slurredFrom, to);
    add('slide', slidFrom, to);
    // A note that lies already asks nothing of the fingers.
    if (next.taken.includes(index)) return;
    add(role === 'melody' ? 'line' : 'bassLine', lineFrom, to);
    add(inMove === null ? 'parallel' : 'moved', parallelFrom, to);
  });
  next.laid.forEach((index, n) => {
    const { parallelFrom, inMove } = strikes[index]!;
    if (inMove !== null) add('moved', parallelFrom, next.struck.length + n);
  });
  for (const index of columns) {
    const strike = strikes[index]!;
    const sounds = strike.writtenEndTicks >= next.tick;
    add(
      'again',
      index,
      placed.findIndex((other) => {
        const { continues } = strikes[other]!;
        return other === index || continues === index || (sounds && isSameAgain(strike, strikes[other]!));
      }),
    );
    const { midi, voice } = strike;
    add(
      'restruck',
      index,
      placed.findIndex((other) => sounds && strikes[other]!.midi === midi && strikes[other]!.voice !== voice),
    );
  }
  return links;
}
