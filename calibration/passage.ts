/**
 * Short passages of invented music with every fingering that common practice would accept. The music is written as
 * its fingering: tokens "string/fret-fingers" ("5/3-34": third fret of the fifth string by 3 or 4, "4/0" open),
 * chords joined by "+", "*n" for n eighths, "-" a rest, "~" before a token that is slurred to.
 */
import { type FingeringProblem, problemOf } from '../src/core/fingering/problem/problem';
import type { Placement } from '../src/core/fingering/left/rules/place';
import type { LeftSchoolId } from '../src/core/fingering/left/rules/schools';
import { leftWeights, type LeftWeights } from '../src/core/fingering/left/rules/weights';
import { maybePlayer } from '../src/core/instrument/hands';
import { openMidi, type TuningId, tuningOrThrow } from '../src/core/instrument/tuning';
import { barXml, scoreOrThrow, type TestNote } from '../tests/helpers/music';

export interface Voices {
  readonly upper: string;
  readonly lower?: string;
}

export interface Passage extends Voices {
  readonly id: string;
  readonly bpm: number;
  /** Why a teacher fingers it so. */
  readonly why: string;
  /** Other accepted fingerings of the same music. */
  readonly or?: readonly (Voices & { readonly why: string })[];
  readonly tuning?: TuningId;
  readonly hand?: string;
  readonly school?: LeftSchoolId;
}

/** Placements that are accepted for one note. */
type Choice = readonly Placement[];

export interface Task {
  readonly passage: Passage;
  readonly problem: FingeringProblem;
  /** Each accepted fingering: choices by strike. */
  readonly accepted: readonly (readonly Choice[])[];
}

interface ReadNote extends TestNote {
  readonly choice: Choice;
}

/** @throws Error for a token that cannot be read, or variants of different music: a mistake in the data */
export function taskOf(passage: Passage, weights?: (school: LeftSchoolId) => LeftWeights): Task {
  const player = maybePlayer(passage.hand ?? 'adult-medium');
  if (!player) throw new Error(`${passage.id}: no such hand`);
  const notes = readVoices(passage, passage);
  const score = scoreOrThrow(barXml(notes, passage.bpm));
  const school = passage.school ?? 'balanced';
  const problem = problemOf(
    { ...score, tuningId: passage.tuning ?? 'standard' },
    player.fretboard,
    player.hand,
    weights ? weights(school) : leftWeights(school, player.hand),
  );
  const accepted = [notes, ...(passage.or ?? []).map((voices) => readVoices(passage, voices))].map(
    (variant) => choicesByStrike(passage, problem, variant),
  );
  return { passage, problem, accepted };
}

function choicesByStrike(
  passage: Passage,
  problem: FingeringProblem,
  notes: readonly ReadNote[],
): readonly Choice[] {
  const ticks = problem.ticksPerQuarter / 2;
  const choices = problem.strikes.map((strike) => {
    const note = notes.find((one) => one.onset * ticks === strike.onsetTicks && one.midi === strike.midi);
    if (!note) throw new Error(`${passage.id}: a variant has no note at eighth ${strike.onsetTicks / ticks}`);
    return note.choice;
  });
  if (notes.length !== choices.length) throw new Error(`${passage.id}: a variant has other notes`);
  return choices;
}

function readVoices(passage: Passage, { upper, lower }: Voices): readonly ReadNote[] {
  return [...readVoice(passage, upper, 1), ...(lower ? readVoice(passage, lower, 2) : [])];
}

const SLUR = (type: 'start' | 'stop', number: number) =>
  `<notations><slur type="${type}" number="${number}"/></notations>`;

function readVoice(passage: Passage, text: string, voice: number): readonly ReadNote[] {
  const notes: ReadNote[] = [];
  let onset = 0;
  for (const token of text.trim().split(/\s+/)) {
    const [content, count] = token.replace(/^~/, '').split('*') as [string, string | undefined];
    const length = count === undefined ? 1 : Number(count);
    if (content !== '-') {
      const chord = content.split('+').map((part) => readNote(passage, part, onset, length, voice));
      if (token.startsWith('~')) {
        const before = notes.at(-1)!;
        notes[notes.length - 1] = { ...before, extra: SLUR('start', 1) };
        chord[0] = { ...chord[0]!, extra: SLUR('stop', 1) };
      }
      notes.push(...chord);
    }
    onset += length;
  }
  return notes;
}

function readNote(passage: Passage, part: string, onset: number, length: number, voice: number): ReadNote {
  const match = /^([1-6])\/(\d+)(?:-([1-4]+))?$/.exec(part);
  if (!match) throw new Error(`${passage.id}: “${part}” is no note`);
  const [string, fret] = [Number(match[1]), Number(match[2])];
  const fingers = fret === 0 ? [0] : [...(match[3] ?? '')].map(Number);
  if (fingers.length === 0) throw new Error(`${passage.id}: “${part}” has no finger`);
  const midi = openMidi(tuningOrThrow(passage.tuning ?? 'standard'), string) + fret;
  return { midi, onset, length, voice, choice: fingers.map((finger) => ({ string, fret, finger })) };
}
