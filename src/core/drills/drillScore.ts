/** A drill as a score with its fingering decided: what passes through planner, page, print and export like a piece. */
import { PIECE } from '../fingering/edition/attributes';
import type { RegisterKey, Registers } from '../fingering/edition/registers';
import { readScore, type ScoreDocument } from '../formats/musicxml/readScore';
import { toMusicXml } from '../formats/written/toMusicXml';
import { maybeValue } from '../formats/written/values';
import type { WrittenBar, WrittenEvent } from '../formats/written/writtenMusic';
import { openMidi, STANDARD_TUNING } from '../instrument/tuning';
import { fraction } from '../music/fraction';
import {
  type Chosen,
  chosenOf,
  type DrillEvent,
  type DrillKind,
  type DrillMusic,
  type DrillNote,
} from './drill';
import { spelled } from './spell';

export interface DrillScore {
  readonly kind: DrillKind;
  readonly chosen: Chosen;
  readonly title: string;
  readonly music: DrillMusic;
  readonly text: string;
  readonly document: ScoreDocument;
  /** The fingering as ink: a drill prescribes it. */
  readonly registers: Registers;
}

/** @throws Error when the document that was written cannot be read: a bug */
export function drillScore(kind: DrillKind, wanted: Chosen): DrillScore {
  const chosen = chosenOf(kind, wanted);
  const music: DrillMusic = { ...kind.make(chosen), quartersPerMinute: kind.ladder[0]! };
  const title = titleOf(kind, chosen);
  const text = toMusicXml({
    title,
    parts: [{ name: 'Guitar', clefOctave: -1, clef: { sign: 'G', line: 2 }, bars: barsOf(music) }],
  });
  const document = readScore(text);
  if (!document.ok) throw new Error(`a drill cannot be read: ${document.error.code}`);
  return {
    kind,
    chosen,
    title,
    music,
    text,
    document: document.value,
    registers: inkOfDrill(music, document.value),
  };
}

/** "Scales: harmonic minor, D": what was chosen other than usual. */
function titleOf({ title, parameters }: DrillKind, chosen: Chosen): string {
  const words = parameters.flatMap(({ id, values }) => {
    const k = values.findIndex(([value]) => value === chosen[id]);
    return k > 0 ? [values[k]![1]] : [];
  });
  return words.length === 0 ? title : `${title}: ${words.join(', ')}`;
}

/** Source: MusicXML 4.0, `harmonic`. */
const HARMONIC = '<technical><harmonic><natural/></harmonic></technical>';

const barEighths = ({ metre }: DrillMusic) => (metre.beats * 8) / metre.beatType;

function barsOf(music: DrillMusic): readonly WrittenBar[] {
  const voices = music.voices.map((voice) => filled(voice, barEighths(music)));
  const count = Math.max(...voices.map((bars) => bars.length));
  return Array.from({ length: count }, (_, k): WrittenBar => ({
    number: String(k + 1),
    fifths: k === 0 ? music.fifths : null,
    mode: null,
    metre: k === 0 ? music.metre : null,
    quartersPerMinute: k === 0 ? music.quartersPerMinute : null,
    voices: voices.map((bars) =>
      writtenBar(bars[k] ?? rests(barEighths(music)), music.fifths, voices.length),
    ),
    repeatStart: false,
    repeatEnd: false,
    endingStart: null,
    endingStop: null,
    sectionEnd: k === count - 1,
    implicit: false,
  }));
}

/** Bars of events; one that would cross a line waits for the next bar, and the last is filled up. */
export function filled(events: readonly DrillEvent[], room: number): readonly (readonly DrillEvent[])[] {
  const bars: DrillEvent[][] = [[]];
  let used = 0;
  for (const event of events) {
    if (used + event.eighths > room) {
      bars.at(-1)!.push(...rests(room - used));
      bars.push([]);
      used = 0;
    }
    bars.at(-1)!.push(...(event.notes.length === 0 ? rests(event.eighths) : [event]));
    used += event.eighths;
  }
  bars.at(-1)!.push(...rests(room - used));
  return bars;
}

/** The longest plain rests that fit. */
function rests(eighths: number): readonly DrillEvent[] {
  const longest = [8, 4, 2, 1].find((length) => length <= eighths);
  return longest === undefined ? [] : [{ notes: [], eighths: longest }, ...rests(eighths - longest)];
}

function writtenBar(events: readonly DrillEvent[], fifths: number, voices: number): readonly WrittenEvent[] {
  return events.map((event, k) => {
    const quarters = fraction(event.eighths, 2);
    const value = maybeValue(quarters);
    return {
      pitches: event.notes.map((note) => spelled(midiOf(note), fifths)),
      space: event.notes.length === 0 && voices > 1,
      quarters,
      type: value?.type ?? null,
      dots: value?.dots ?? 0,
      tuplet: null,
      grace: null,
      ties: event.notes.map(() => ({ start: false, stop: false })),
      slurStarts: events[k + 1]?.slurred ? [1] : [],
      slurStops: event.slurred ? [1] : [],
      notations: event.notes.some(({ soundsAbove }) => soundsAbove !== undefined) ? [HARMONIC] : [],
      words: [],
      chordName: null,
      lyric: null,
    };
  });
}

/** As it sounds: given, or found where it is played. */
export const midiOf = ({ string, fret, soundsAbove, midi }: Omit<DrillNote, 'finger' | 'letter'>): number =>
  midi ?? openMidi(STANDARD_TUNING, string ?? 1) + (soundsAbove ?? fret ?? 0);

/** By note of the document, which begins where its event does and sounds as it does. */
function inkOfDrill(music: DrillMusic, { score }: ScoreDocument): Registers {
  const eighth = score.ticksPerQuarter / 2;
  const noteAt = new Map<string, DrillNote>();
  const room = barEighths(music);
  for (const voice of music.voices) {
    let at = 0;
    for (const event of filled(voice, room).flat()) {
      for (const note of event.notes) noteAt.set(`${at * eighth} ${midiOf(note)}`, note);
      at += event.eighths;
    }
  }
  const registers = new Map<RegisterKey, string | number>();
  if (music.rightSchool) registers.set(`${PIECE} rightSchool`, music.rightSchool);
  for (const { uid, onsetTicks, soundingMidi } of score.notes) {
    const note = noteAt.get(`${onsetTicks} ${soundingMidi}`);
    if (!note) continue;
    if (note.finger !== null) registers.set(`${uid} finger`, note.finger);
    if (note.string !== null) registers.set(`${uid} string`, note.string);
    if (note.letter) registers.set(`${uid} pluck`, note.letter);
  }
  return registers;
}
