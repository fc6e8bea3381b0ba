/** A single-part MusicXML document as a score. */
import { midiName, midiOf, pitchName } from '../../music/pitch';
import type { TempoMark } from '../../music/tempo';
import { CONCERT_FRETBOARD } from '../../instrument/fretboard';
import { lowestMidi, openMidi, STANDARD_TUNING, tuningOrThrow, type Tuning } from '../../instrument/tuning';
import { fail, ok, type Result } from '../../result';
import type { Assumption, MetreMark, OctaveReading, Score, ScoreNote, Slur } from '../../score/model';
import type { ImportError } from '../importError';
import { type NoteEvent, type PartEvents, readPartEvents } from './readEvents';
import { childNamed, childrenNamed, childText, descendants, parseXml, type XmlElement } from './xmlTree';

export interface ScoreDocument {
  readonly root: XmlElement;
  readonly part: XmlElement;
  readonly score: Score;
}

/** Reads the text of a MusicXML document. Nothing is repaired silently: what was decided is in `assumptions`. */
export function readScore(text: string): Result<ScoreDocument, ImportError> {
  const tree = parseXml(text);
  if (!tree.ok) return tree;
  const root = tree.value;
  if (root.name === 'score-timewise') return fail({ code: 'timewise' });
  if (root.name !== 'score-partwise') return fail({ code: 'wrongRoot', root: root.name });
  const parts = childrenNamed(root, 'part');
  if (parts.length > 1) return fail({ code: 'severalParts', count: parts.length });
  const part = parts[0];
  if (!part) return fail({ code: 'noNotes' });
  const events = readPartEvents(part);
  if (!events.ok) return events;
  if (events.value.notes.length === 0) return fail({ code: 'noNotes' });
  const score = settle(root, events.value);
  return score.ok ? ok({ root, part, score: score.value }) : score;
}

function settle(root: XmlElement, events: PartEvents): Result<Score, ImportError> {
  const octave = readOctave(events);
  const shift = octave.shift;
  const lowest = Math.min(...events.notes.map((note) => midiOf(note.pitch))) + shift;
  const tuning = tuningFor(lowest);
  const outside = firstOutside(events, shift, tuning);
  if (outside) return fail(outside);

  const tempos = temposOf(events);
  const assumptions: Assumption[] = [{ code: 'octave', reading: octave.reading }];
  if (tuning.id !== STANDARD_TUNING.id) assumptions.push({ code: 'tuning', tuningId: tuning.id });
  for (const tempo of tempos.filter((mark) => mark.assumed)) {
    assumptions.push({ code: 'tempo', quartersPerMinute: tempo.quartersPerMinute });
  }
  if (events.graceNotes) assumptions.push({ code: 'graceNotes', count: events.graceNotes });
  if (events.cueNotes) assumptions.push({ code: 'cueNotes', count: events.cueNotes });
  if (events.tablatureNotes) assumptions.push({ code: 'tablature', count: events.tablatureNotes });

  return ok({
    title: titleOf(root),
    ticksPerQuarter: events.ticksPerQuarter,
    tuningId: tuning.id,
    measures: events.measures,
    notes: mergeTies(events.notes, shift),
    slurs: pairSlurs(events.notes),
    keys: events.keys,
    metres: events.metres,
    tempos,
    assumptions,
  });
}

/** Semitones from the file's pitch to the sounding one. Source: handbook, "Notation conventions". */
function readOctave(events: PartEvents): { reading: OctaveReading; shift: number } {
  const clef = events.clefOctaveChange !== 0;
  const transposed = events.transposeSemitones;
  const lowest = Math.min(...events.notes.map((note) => midiOf(note.pitch)));
  const openE = lowestMidi(STANDARD_TUNING);
  if (clef && transposed) {
    const fits = lowest + transposed >= openE - 2;
    return fits ? { reading: 'both-applied', shift: transposed } : { reading: 'both-clef', shift: 0 };
  }
  if (clef) return { reading: 'clef', shift: 0 };
  if (transposed) return { reading: 'transposition', shift: transposed };
  return lowest >= openE + 12 - 2 ? { reading: 'written', shift: -12 } : { reading: 'sounding', shift: 0 };
}

/** A note down to two semitones below the open sixth string means that the sixth is tuned to D. */
function tuningFor(lowestSounding: number): Tuning {
  return lowestSounding < lowestMidi(STANDARD_TUNING) ? tuningOrThrow('sixth-to-d') : STANDARD_TUNING;
}

function firstOutside(events: PartEvents, shift: number, tuning: Tuning): ImportError | null {
  const lowest = lowestMidi(tuning);
  const highest = openMidi(tuning, 1) + CONCERT_FRETBOARD.frets;
  const note = events.notes.find((one) => {
    const midi = midiOf(one.pitch) + shift;
    return midi < lowest || midi > highest;
  });
  if (!note) return null;
  return {
    code: 'outside',
    measure: events.measures[note.measureIndex]!.number,
    voice: note.voice,
    line: note.element.line,
    note: shift === 0 ? pitchName(note.pitch) : midiName(midiOf(note.pitch) + shift),
    lowest: midiName(lowest),
    highest: midiName(highest),
  };
}

/** Joins tied noteheads: a stop continues the note of that pitch that ends where it begins. */
function mergeTies(events: readonly NoteEvent[], shift: number): ScoreNote[] {
  const inTime = [...events].sort((a, b) => a.onsetTicks - b.onsetTicks);
  type Open = { -readonly [K in keyof ScoreNote]: ScoreNote[K] } & { tiedUids: string[] };
  const notes: Open[] = [];
  const waiting = new Map<string, Open>();
  for (const event of inTime) {
    const soundingMidi = midiOf(event.pitch) + shift;
    const key = `${soundingMidi}@${event.onsetTicks}`;
    const before = event.tieStop ? waiting.get(key) : undefined;
    waiting.delete(key);
    const note: Open = before ?? {
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
    };
    if (before) before.tiedUids.push(event.uid);
    else notes.push(note);
    note.durationTicks += event.durationTicks;
    if (event.tieStart) waiting.set(`${soundingMidi}@${event.onsetTicks + event.durationTicks}`, note);
  }
  return notes.sort((a, b) => a.onsetTicks - b.onsetTicks || a.soundingMidi - b.soundingMidi);
}

/** Slurs by their number, paired in document order. */
function pairSlurs(events: readonly NoteEvent[]): Slur[] {
  const open = new Map<string, string>();
  const slurs: Slur[] = [];
  for (const event of events) {
    for (const number of event.slurStops) {
      const fromUid = open.get(number);
      if (fromUid) slurs.push({ fromUid, toUid: event.uid });
      open.delete(number);
    }
    for (const number of event.slurStarts) open.set(number, event.uid);
  }
  return slurs;
}

function temposOf(events: PartEvents): TempoMark[] {
  const given = [...events.tempos].sort((a, b) => a.tick - b.tick);
  const marks = new Map<number, TempoMark>();
  if (given.length === 0) {
    marks.set(0, { tick: 0, quartersPerMinute: assumedTempo(events), assumed: true });
  }
  for (const [k, mark] of given.entries()) {
    // A first mark that stands a little late holds from the beginning.
    const tick = k === 0 ? 0 : mark.tick;
    marks.set(tick, { tick, quartersPerMinute: mark.quartersPerMinute, assumed: false });
  }
  return [...marks.values()];
}

/**
 * A moderate tempo for a file that names none: 88 quarters a minute (56 dotted quarters in compound time),
 * slower where the common short note would then come faster than 6 a second. Common practice, from memory.
 */
function assumedTempo(events: PartEvents): number {
  const metre: MetreMark = events.metres[0] ?? { tick: 0, beats: 4, beatType: 4 };
  const compound = metre.beatType === 8 && metre.beats % 3 === 0;
  const moderate = compound ? 84 : 88;
  const lengths = events.notes.map((note) => note.durationTicks).filter((ticks) => ticks > 0);
  lengths.sort((a, b) => a - b);
  const short = lengths[Math.floor(lengths.length / 4)] ?? events.ticksPerQuarter;
  const fastest = (6 * 60 * short) / events.ticksPerQuarter;
  return Math.max(40, Math.min(moderate, Math.round(fastest / 4) * 4));
}

function titleOf(root: XmlElement): string {
  const work = childNamed(root, 'work');
  const title = (work && childText(work, 'work-title')) || childText(root, 'movement-title');
  if (title) return title;
  for (const credit of childrenNamed(root, 'credit')) {
    for (const element of descendants(credit)) {
      if (element.name === 'credit-words' && element.text.trim()) return element.text.trim();
    }
  }
  return '';
}
