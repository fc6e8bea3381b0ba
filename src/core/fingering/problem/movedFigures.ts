/**
 * A figure that comes again at another place of the neck: over strings that stay the same some of its notes move
 * together, a shape that slides. Its notes keep their strings and fingers. Source: handbook 13, "parallels" and
 * "Shifts": the same figure a step higher keeps its fingers and strings.
 */
import type { Measure } from '../../score/model';
import { groupedBy } from './groupedBy';
import { INTERVALS as PAIRS } from './parallels';
import { STEP_SEMITONES, type Strike } from './strike';

/** One round of such a figure. */
export interface MovedFigure {
  readonly startTicks: number;
  readonly endTicks: number;
  /** Its notes that move, in the order of the figure. */
  readonly moving: readonly Strike[];
  /** Drones: the same in every round. */
  readonly staying: readonly Strike[];
  /** A bass that goes its own way. */
  readonly alone: readonly Strike[];
  /** The round before, note by note of `moving`; null for the first. */
  readonly from: readonly Strike[] | null;
}

/** A bar is a round, or has so many. */
const ROUNDS_IN_A_BAR = [4, 3, 2, 1] as const;

const LEAST_NOTES = 3;
const LEAST_MOVES = 2;

/** A scale asks for a semitone more or less; what moves exactly may go further. */
const MOST_SEMITONES = 5;
const MOST_APART = 1;
const MOST_SEMITONES_EXACT = 7;

interface Round {
  readonly startTicks: number;
  readonly endTicks: number;
  /** By onset, then by pitch. */
  readonly notes: readonly Strike[];
  /** Equal for rounds of one rhythm. */
  readonly rhythm: string;
}

export function movedFigures(
  strikes: readonly Strike[],
  measures: readonly Measure[],
  isOpen: (midi: number) => boolean,
): readonly MovedFigure[] {
  const found: MovedFigure[] = [];
  const taken = new Set<number>();
  for (const parts of ROUNDS_IN_A_BAR)
    for (const row of rowsOf(roundsOf(strikes, measures, parts))) {
      if (row.some(({ notes }) => notes.some(({ index }) => taken.has(index)))) continue;
      for (const figure of figuresOf(row, isOpen)) {
        found.push(figure);
        for (const { index } of [...figure.moving, ...figure.staying, ...figure.alone]) taken.add(index);
      }
    }
  return found;
}

/** A round for each part of each bar; null where the parts of a bar are not alike, or hold too little. */
function roundsOf(
  strikes: readonly Strike[],
  measures: readonly Measure[],
  parts: number,
): readonly (Round | null)[] {
  const inBar = (bar: Measure) =>
    strikes.filter(
      ({ onsetTicks, grace }) =>
        !grace && onsetTicks >= bar.startTicks && onsetTicks < bar.startTicks + bar.durationTicks,
    );
  return measures.flatMap((bar) => {
    const length = bar.durationTicks / parts;
    const notes = inBar(bar);
    const rounds = Array.from({ length: parts }, (_, k): Round => {
      const startTicks = bar.startTicks + k * length;
      const own = notes
        .filter(({ onsetTicks }) => onsetTicks >= startTicks && onsetTicks < startTicks + length)
        .sort((a, b) => a.onsetTicks - b.onsetTicks || a.midi - b.midi);
      const rhythm = own.map(({ onsetTicks }) => onsetTicks - startTicks).join();
      return { startTicks, endTicks: startTicks + length, notes: own, rhythm };
    });
    const isFigure = rounds.every(
      ({ notes: own, rhythm }) =>
        rhythm === rounds[0]!.rhythm &&
        own.length >= LEAST_NOTES &&
        own[0]!.onsetTicks !== own.at(-1)!.onsetTicks,
    );
    return isFigure ? rounds : [null];
  });
}

/** Rounds that follow each other and move twice or more. */
function rowsOf(rounds: readonly (Round | null)[]): readonly (readonly Round[])[] {
  const rows: Round[][] = [];
  let row: Round[] = [];
  for (const round of rounds) {
    const last = row.at(-1);
    if (round && last && goesOn(last, round)) row.push(round);
    else {
      rows.push(row);
      row = round ? [round] : [];
    }
  }
  rows.push(row);
  return rows.filter((one) => movesIn(one) >= LEAST_MOVES);
}

const movesIn = (row: readonly Round[]): number =>
  row.filter((round, k) => k > 0 && upperWays(row[k - 1]!, round).some((way) => way !== 0)).length;

/** In semitones, note by note. */
const waysOf = (from: Round, to: Round): readonly number[] =>
  to.notes.map(({ midi }, n) => midi - from.notes[n]!.midi);

/** Without the bass, which may go its own way. */
function upperWays(from: Round, to: Round): readonly number[] {
  const bass = lowestOf(from) === lowestOf(to) ? lowestOf(from) : -1;
  return waysOf(from, to).filter((_way, n) => n !== bass);
}

/** Whether a round is the one before, or that one moved. */
function goesOn(from: Round, to: Round): boolean {
  if (from.rhythm !== to.rhythm) return false;
  const moved = upperWays(from, to).filter((way) => way !== 0);
  if (moved.length === 0) return true;
  const [least, most] = [Math.min(...moved), Math.max(...moved)];
  const furthest = Math.max(-least, most);
  return (
    Math.sign(least) === Math.sign(most) &&
    most - least <= MOST_APART &&
    furthest <= (least === most ? MOST_SEMITONES_EXACT : MOST_SEMITONES)
  );
}

const lowestOf = ({ notes }: Round): number =>
  notes.reduce((low, { midi }, n) => (midi < notes[low]!.midi ? n : low), 0);

/** The rounds of a row with what moves in them; none where that is no shape, or what stays is no drone. */
function figuresOf(row: readonly Round[], isOpen: (midi: number) => boolean): readonly MovedFigure[] {
  const places = row[0]!.notes.map((_, n) => n);
  const goesAlone = new Set(
    row.slice(1).flatMap((round, k) => (movesAlong(row[k]!, round) ? [] : [lowestOf(round)])),
  );
  const moving = places.filter(
    (n) => !goesAlone.has(n) && new Set(row.map(({ notes }) => notes[n]!.midi)).size > 1,
  );
  const figures = row.map(({ startTicks, endTicks, notes }, k): MovedFigure => ({
    startTicks,
    endTicks,
    moving: moving.map((n) => notes[n]!),
    staying: places.filter((n) => !moving.includes(n) && !goesAlone.has(n)).map((n) => notes[n]!),
    alone: [...goesAlone].map((n) => notes[n]!),
    from: k === 0 ? null : moving.map((n) => row[k - 1]!.notes[n]!),
  }));
  const isDrone = places.every(
    (n) =>
      moving.includes(n) || goesAlone.has(n) || isOpen(row[0]!.notes[n]!.midi) || n === lowestOf(row[0]!),
  );
  return isDrone && figures.every(movesWhole) && figures.every(({ moving: own }) => isShape(own))
    ? figures
    : [];
}

/** All of its notes, or none. */
const movesWhole = ({ moving, from }: MovedFigure): boolean =>
  !from || new Set(moving.map(({ midi }, n) => midi === from[n]!.midi)).size === 1;

/** Whether the lowest note goes with the others. */
function movesAlong(from: Round, to: Round): boolean {
  const low = lowestOf(to);
  const ways = waysOf(from, to);
  const others = ways.filter((way, n) => n !== low && way !== 0);
  const way = ways[low]!;
  if (others.length === 0 || way === 0) return true;
  const all = [...others, way];
  return Math.sign(Math.min(...all)) === Math.sign(Math.max(...all)) && spread(all) <= MOST_APART;
}

const spread = (all: readonly number[]) => Math.max(...all) - Math.min(...all);

/** In this part of its ways from note to note, or more, a broken chord leaps; a line that moves is no shape. */
const LEAPS_SHARE = 0.5;

/** Three pitches and more, or two of a chord: thirds, sixths, octaves, tenths. */
function isShape(notes: readonly Strike[]): boolean {
  const midis = [...new Set(notes.map(({ midi }) => midi))].sort((a, b) => a - b);
  const ways = notes.slice(1).map(({ midi }, k) => Math.abs(midi - notes[k]!.midi));
  const leaps = ways.filter((way) => way > STEP_SEMITONES).length;
  return (
    chordsIn(notes) <= 1 &&
    leaps >= LEAPS_SHARE * ways.length &&
    (midis.length > 2 || (midis.length === 2 && PAIRS.has(midis[1]! - midis[0]!)))
  );
}

/** How many different chords are struck: one after the other they are no shape that lies. */
function chordsIn(notes: readonly Strike[]): number {
  const chords = [...groupedBy(notes, ({ onsetTicks }) => onsetTicks).values()].filter(
    (struck) => struck.length > 1,
  );
  return new Set(chords.map((struck) => struck.map(({ midi }) => midi).join())).size;
}
