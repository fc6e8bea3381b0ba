/** Fingers, strings and letters by key. No key makes nonsense: what cannot be is refused, what contradicts older ink frees it. */
import type { Operation } from '$core/fingering/edition/operation';
import {
  type MarkedNote,
  type Neck,
  type Sense,
  senseOfFinger,
  senseOfString,
} from '$core/fingering/edition/sense';
import { tuningOrThrow } from '$core/instrument/tuning';
import { refusalText } from '$core/messages/sense';
import { spokenPitch } from '$core/music/pitch';
import type { Pluck, ScoreNote } from '$core/score/model';
import type { Desk } from './desk.svelte';

export function setFinger(desk: Desk, finger: number): void {
  decideBySense(desk, 'finger', finger, (note, neck, ink) => senseOfFinger(note, neck, ink, finger));
}

export function setString(desk: Desk, string: number): void {
  decideBySense(desk, 'string', string, (note, neck, ink) => senseOfString(note, neck, ink, string));
}

export function setPluck(desk: Desk, pluck: Pluck): void {
  const { uid } = desk.selection;
  if (uid) desk.set(uid, 'pluck', pluck);
}

type Judge = (note: MarkedNote, neck: Neck, ink: ReturnType<Desk['session']['inkOf']>) => Sense;

function decideBySense(desk: Desk, attribute: 'finger' | 'string', value: number, judge: Judge): void {
  const { session, selection } = desk;
  const note = scoreNoteOf(desk);
  if (!note) return;
  const sense = judge(
    { midi: note.soundingMidi, isHarmonic: note.harmonic === 'natural' },
    neckOf(desk),
    session.inkOf(note.uid),
  );
  const name = nameOf(note);
  if (sense.kind === 'refused') {
    desk.notice = refusalText(sense.why, name, attribute === 'finger' ? value : null);
    return;
  }
  const changes: (Operation | null)[] = [session.change(note.uid, attribute, value)];
  if (sense.kind === 'releases') changes.push(session.change(note.uid, sense.attribute, null));
  desk.decideHere(selection.uid!, changes);
  if (sense.kind === 'releases') desk.notice = releasedText(sense.attribute, value, name);
}

const releasedText = (released: 'finger' | 'string', value: number, name: string): string =>
  released === 'finger'
    ? `String ${value} leaves no room for the finger on this ${name}: the finger is released. Ctrl z takes it back.`
    : `Finger ${value} needs another string for this ${name}: the string is released. Ctrl z takes it back.`;

const scoreNoteOf = ({ planning, selection }: Desk): ScoreNote | undefined =>
  planning.score?.notes.find(({ uid }) => uid === selection.uid);

function neckOf({ planning, session }: Desk): Neck {
  const { score } = planning;
  return {
    tuning: tuningOrThrow(score!.tuningId),
    capo: score!.capo,
    frets: session.lens.player.fretboard.frets,
  };
}

export const nameOf = ({ pitch, soundingMidi }: ScoreNote): string => spokenPitch(pitch, soundingMidi);
