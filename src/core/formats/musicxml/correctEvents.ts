/** The teacher's corrections put into the events of a part; the source text stays as it is. */
import { lcm } from '../../music/fraction';
import { midiOf } from '../../music/pitch';
import type { Corrections, NoteCorrection } from '../../score/corrections';
import { type NoteTag, isEffect } from '../../score/model';
import type { NoteEvent, PartEvents } from './readEvents';

/** Returns the corrected events; a length that does not fit its place is left as it was. */
export function correctEvents(events: PartEvents, corrections: Corrections): PartEvents {
  if (corrections.notes.size === 0) return events;
  const fine = inTicksFor(events, corrections);
  const notes = withTies(
    fine.notes.map((note) => corrected(fine, note, corrections.notes.get(note.uid))),
    corrections,
  );
  return { ...fine, notes };
}

function corrected(events: PartEvents, note: NoteEvent, wanted: NoteCorrection | undefined): NoteEvent {
  if (!wanted) return note;
  const voice = wanted.voice ?? note.voice;
  return {
    ...note,
    pitch: wanted.pitch ?? note.pitch,
    voice,
    durationTicks: wanted.length ? lengthTicks(events, note, wanted.length) : note.durationTicks,
    tags: effectSet(staccatoSet(note.tags, wanted.staccato), wanted.effect),
  };
}

function staccatoSet(tags: readonly NoteTag[], wanted: boolean | undefined): readonly NoteTag[] {
  if (wanted === undefined) return tags;
  const others = tags.filter((tag) => tag !== 'staccato');
  return wanted ? [...others, 'staccato'] : others;
}

/** The teacher's effect stands for the file's own ones. */
function effectSet(tags: readonly NoteTag[], wanted: string | undefined): readonly NoteTag[] {
  if (wanted === undefined) return tags;
  return [...tags.filter((tag) => !isEffect(tag)), ...(isEffect(wanted) ? [wanted] : [])];
}

/** The longest that a note may last: to the end of its bar or the next note of its voice. */
export function roomTicks(events: PartEvents, note: NoteEvent): number {
  const measure = events.measures[note.measureIndex]!;
  const barEnd = measure.startTicks + measure.durationTicks;
  const next = events.notes
    .filter((other) => other.voice === note.voice && other.onsetTicks > note.onsetTicks)
    .reduce((end, other) => Math.min(end, other.onsetTicks), barEnd);
  return next - note.onsetTicks;
}

function lengthTicks(events: PartEvents, note: NoteEvent, length: { num: number; den: number }): number {
  const ticks = (length.num * events.ticksPerQuarter) / length.den;
  return ticks > 0 && ticks <= roomTicks(events, note) ? ticks : note.durationTicks;
}

/** A tie that is set goes to the note of the same pitch that begins where this one ends. */
function withTies(notes: readonly NoteEvent[], corrections: Corrections): readonly NoteEvent[] {
  const starts = new Map(notes.map((note) => [note.uid, note.tieStart]));
  const stops = new Map(notes.map((note) => [note.uid, note.tieStop]));
  const byPlace = new Map(notes.map((note) => [`${note.onsetTicks}:${midiOf(note.pitch)}`, note]));
  for (const note of notes) {
    const tie = corrections.notes.get(note.uid)?.tie;
    if (tie === undefined) continue;
    const next = byPlace.get(`${note.onsetTicks + note.durationTicks}:${midiOf(note.pitch)}`);
    if (!next) continue;
    starts.set(note.uid, tie);
    stops.set(next.uid, tie);
  }
  return notes.map((note) => ({ ...note, tieStart: starts.get(note.uid)!, tieStop: stops.get(note.uid)! }));
}

/** All times in ticks fine enough for the corrected lengths. */
function inTicksFor(events: PartEvents, corrections: Corrections): PartEvents {
  const dens = [...corrections.notes.values()].map((one) => one.length?.den ?? 1);
  const ticksPerQuarter = dens.reduce(lcm, events.ticksPerQuarter);
  const k = ticksPerQuarter / events.ticksPerQuarter;
  if (k === 1) return events;
  const at = <T extends { readonly tick: number }>(marks: readonly T[]) =>
    marks.map((mark) => ({ ...mark, tick: mark.tick * k }));
  const scaled = (notes: readonly NoteEvent[]) =>
    notes.map((note) => ({
      ...note,
      onsetTicks: note.onsetTicks * k,
      durationTicks: note.durationTicks * k,
    }));
  return {
    ...events,
    ticksPerQuarter,
    notes: scaled(events.notes),
    tablature: scaled(events.tablature),
    measures: events.measures.map((measure) => ({
      ...measure,
      startTicks: measure.startTicks * k,
      durationTicks: measure.durationTicks * k,
      nominalTicks: measure.nominalTicks * k,
    })),
    keys: at(events.keys),
    metres: at(events.metres),
    tempos: at(events.tempos),
    directions: at(events.directions),
  };
}
