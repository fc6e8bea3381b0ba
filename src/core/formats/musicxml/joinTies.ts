/** Noteheads become notes: ties joined, octave settled. */
import { midiOf } from '../../music/pitch';
import type { ScoreNote } from '../../score/model';
import type { NoteEvent } from './readEvents';

type Open = { -readonly [K in keyof ScoreNote]: ScoreNote[K] } & { tiedUids: string[] };

/** Uids of the notes that carry the teacher's word. */
export interface MarkedNotes {
  readonly mustRing: ReadonlySet<string>;
  readonly leftOut: ReadonlySet<string>;
}

/** A tie's stop continues the note of that pitch that ends where it begins. */
export function joinTies(events: readonly NoteEvent[], shift: number, marked: MarkedNotes): ScoreNote[] {
  const inTime = [...events].sort((a, b) => a.onsetTicks - b.onsetTicks);
  const notes: Open[] = [];
  const waiting = new Map<string, Open>();
  for (const event of inTime) {
    const soundingMidi = midiOf(event.pitch) + shift;
    if (event.grace) {
      notes.push(opened(event, soundingMidi, marked));
      continue;
    }
    const key = `${soundingMidi}@${event.onsetTicks}`;
    const before = event.tieStop ? waiting.get(key) : undefined;
    waiting.delete(key);
    const note = before ?? opened(event, soundingMidi, marked);
    if (before) before.tiedUids.push(event.uid);
    else notes.push(note);
    note.durationTicks += event.durationTicks;
    if (event.tieStart) waiting.set(`${soundingMidi}@${event.onsetTicks + event.durationTicks}`, note);
  }
  return notes.sort(
    (a, b) => a.onsetTicks - b.onsetTicks || beforeMain(b) - beforeMain(a) || a.soundingMidi - b.soundingMidi,
  );
}

const beforeMain = (note: ScoreNote) => note.grace?.beforeMain ?? 0;

const opened = (event: NoteEvent, soundingMidi: number, marked: MarkedNotes): Open => ({
  uid: event.uid,
  sourceId: event.element.attributes['id'] ?? null,
  measureIndex: event.measureIndex,
  voice: event.voice,
  onsetTicks: event.onsetTicks,
  durationTicks: 0,
  pitch: event.pitch,
  soundingMidi,
  tiedUids: [],
  printed: event.printed,
  grace: event.grace,
  harmonic: event.harmonic,
  tags: event.tags,
  mustRing: marked.mustRing.has(event.uid),
  leftOut: marked.leftOut.has(event.uid),
});
