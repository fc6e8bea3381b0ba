/** Corrections of the selected note, one key each. What cannot be done is said, and nothing changes. */
import { midiOf, spokenPitch } from '$core/music/pitch';
import { pitchText, spellMidi } from '$core/music/pitchText';
import { pitchInFile } from '$core/score/pitchInFile';
import { PIECE } from '$core/fingering/edition/attributes';
import type { ScoreNote } from '$core/score/model';
import type { Desk } from './desk.svelte';

/** Lengths in quarters that a key steps through: plain and dotted values. */
const LENGTHS = ['1/8', '3/16', '1/4', '3/8', '1/2', '3/4', '1', '3/2', '2', '3', '4'] as const;

const noteAt = (desk: Desk): ScoreNote | null =>
  desk.planning.score?.notes.find((note) => note.uid === desk.selection.uid) ?? null;

const say = (desk: Desk, text: string) => (desk.notice = text);

/** A semitone up or down, spelled for the key. */
export function correctPitch(desk: Desk, semitones: 1 | -1): void {
  const note = noteAt(desk);
  const { score } = desk.planning;
  if (!note || !score) return;
  if (note.tiedUids.length > 0) return void say(desk, 'The note is tied; take the tie away first.');
  const fifths = score.keys.findLast((key) => key.tick <= note.onsetTicks)?.fifths ?? 0;
  const pitch = spellMidi(midiOf(note.pitch) + semitones, semitones > 0 ? Math.max(fifths, 0) : fifths);
  const before = desk.nameOf(note.uid);
  desk.set(note.uid, 'pitch', pitchText(pitchInFile(score, note, pitch)));
  say(desk, `${before} is now ${spokenPitch(pitch, note.soundingMidi + semitones)}.`);
}

/** The next longer or shorter value that has room before the next note of the voice and the bar line. */
export function correctLength(desk: Desk, step: 1 | -1): void {
  const note = noteAt(desk);
  const { score } = desk.planning;
  if (!note || !score) return;
  if (note.tiedUids.length > 0 || note.grace) {
    return void say(desk, 'Tied notes and grace notes keep their length; take the tie away first.');
  }
  const now = note.durationTicks / score.ticksPerQuarter;
  const lengths = LENGTHS.map((text) => ({ text, quarters: quartersOf(text) }));
  const next =
    step > 0
      ? lengths.find((one) => one.quarters > now + 1e-9)
      : lengths.findLast((one) => one.quarters < now - 1e-9);
  if (!next) return;
  if (next.quarters > roomQuarters(desk, note) + 1e-9) {
    return void say(desk, 'There is no room: the next note of the voice or the bar line comes first.');
  }
  desk.set(note.uid, 'length', next.text);
  say(desk, `${desk.nameOf(note.uid)} lasts ${next.text} of a quarter now.`);
}

const quartersOf = (text: string) => {
  const [num, den] = text.split('/').map(Number);
  return num! / (den ?? 1);
};

function roomQuarters(desk: Desk, note: ScoreNote): number {
  const score = desk.planning.score!;
  const measure = score.measures[note.measureIndex]!;
  const next = score.notes
    .filter((other) => other.voice === note.voice && other.onsetTicks > note.onsetTicks)
    .reduce((end, other) => Math.min(end, other.onsetTicks), measure.startTicks + measure.durationTicks);
  return (next - note.onsetTicks) / score.ticksPerQuarter;
}

/** Ties the note to the next of its pitch, or takes its tie away. */
export function correctTie(desk: Desk): void {
  const note = noteAt(desk);
  if (!note || !desk.planning.score) return;
  const tie = (value: boolean | null, words: string) => {
    desk.set(note.uid, 'tie', value);
    say(desk, `${desk.nameOf(note.uid)}: ${words}.`);
  };
  if (note.tiedUids.length > 0) return tie(false, 'its tie is taken away');
  if (desk.session.valueOf(note.uid, 'tie') === false) return tie(null, 'its tie is there again');
  const end = note.onsetTicks + note.durationTicks;
  const next = desk.planning.score.notes.find(
    (one) => one.onsetTicks === end && one.soundingMidi === note.soundingMidi,
  );
  if (next) tie(true, 'tied to the next note');
  else say(desk, 'No note of this pitch begins where this one ends, so there is nothing to tie it to.');
}

/** To the next voice of the piece, in their order, and to a new one after the last. */
export function correctVoice(desk: Desk): void {
  const note = noteAt(desk);
  if (!note || !desk.planning.score) return;
  const voices = [...new Set(desk.planning.score.notes.map((one) => one.voice))].sort();
  const names = [...voices, ...(voices.length < 4 ? [freshVoice(voices)] : [])];
  const next = names[(names.indexOf(note.voice) + 1) % names.length]!;
  desk.set(note.uid, 'voice', next);
  say(desk, `${desk.nameOf(note.uid)} belongs to voice ${next} now.`);
}

function freshVoice(voices: readonly string[]): string {
  let k = 1;
  while (voices.includes(String(k))) k++;
  return String(k);
}

export function toggleMustRing(desk: Desk): void {
  const note = noteAt(desk);
  if (!note) return;
  const rings = !desk.session.valueOf(note.uid, 'mustRing');
  desk.set(note.uid, 'mustRing', rings ? true : null);
  say(
    desk,
    `${desk.nameOf(note.uid)} ${rings ? 'must ring for its written length' : 'need not ring to its end'}.`,
  );
}

export function toggleStaccato(desk: Desk): void {
  const note = noteAt(desk);
  if (!note) return;
  const own = desk.session.valueOf(note.uid, 'staccato');
  const next = own !== null ? null : !note.tags.includes('staccato');
  desk.set(note.uid, 'staccato', next);
  say(
    desk,
    `${desk.nameOf(note.uid)}: ${next === null ? 'as the file has it' : next ? 'staccato' : 'not staccato'}.`,
  );
}

/** The file's pitches an octave apart: taken as written, then as sounding, and back to what the file says. */
export function flipOctave(desk: Desk): void {
  const first = desk.planning.score?.notes[0];
  if (!first) return;
  const shift = first.soundingMidi - midiOf(first.pitch);
  const next = desk.session.valueOf(PIECE, 'octave') === null ? (shift === -12 ? 0 : -12) : null;
  desk.question = {
    text: `Move every note of the piece ${next === null ? 'back to the octave that the file says' : next === 0 ? 'an octave up' : 'an octave down'}? Ink stays on its notes.`,
    yes: () => {
      desk.set(PIECE, 'octave', next);
      say(desk, 'The whole piece was moved by an octave.');
    },
  };
}
