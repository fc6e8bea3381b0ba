/** The fingering and the script of the hand as tables for other programs. */
import type { HandAction } from '../../fingering/left/explain/handScript';
import type { FingeringPlan } from '../../fingering/report/plan';
import { type Ink, NO_INK } from '../../fingering/problem/ink';
import { actionText } from '../../messages/hand';
import { pitchName } from '../../music/pitch';
import type { Score } from '../../score/model';
import { placeOf } from '../../score/places';
import { csvOf } from './csv';

/** Columns of a note; the state is that of its finger. */
const NOTE_HEAD = [
  'bar',
  'beat',
  'voice',
  'pitch',
  'midi',
  'string',
  'fret',
  'finger',
  'letter',
  'state',
] as const;

/** A row for each note that begins a sound, in the order of the music. */
export function notesCsv(score: Score, plan: FingeringPlan, ink: Ink): string {
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  return csvOf(
    NOTE_HEAD,
    plan.notes.map(({ uid, string, fret, finger, pluck }) => {
      const note = noteOf.get(uid)!;
      const { bar, beat } = placeOf(score, note.onsetTicks);
      const own = (ink.get(uid) ?? NO_INK).finger;
      const state =
        own !== null ? 'ink' : note.printed.finger === finger && finger !== null ? 'printed' : 'pencil';
      return [
        bar,
        beat,
        note.voice,
        pitchName(note.pitch),
        note.soundingMidi,
        string,
        fret,
        finger,
        pluck,
        state,
      ];
    }),
  );
}

const HAND_HEAD = [
  'bar',
  'beat',
  'finger',
  'action',
  'can be done from bar',
  'from beat',
  'ms before',
] as const;

/** What each finger of the left hand does, when it must be done and from when on it can. */
export function handCsv(score: Score, script: readonly HandAction[]): string {
  return csvOf(
    HAND_HEAD,
    script.map((action) => {
      const [at, from] = [placeOf(score, action.ticks), placeOf(score, action.earliestTicks)];
      // The words without the time, which has columns of its own.
      const words = actionText(action, (ticks) => placeOf(score, ticks)).replace(/; it can lie.*$/, '');
      return [at.bar, at.beat, action.finger, words, from.bar, from.beat, Math.round(action.leadMs)];
    }),
  );
}
