/** First pass over a part: every notehead with its place in time, before octaves and ties are settled. */
import type { Pitch } from '../../music/pitch';
import { isStep } from '../../music/pitch';
import { fail, ok, type Result } from '../../result';
import type { KeyMark, Measure, MetreMark, PrintedMarks } from '../../score/model';
import { PLUCKS } from '../../score/model';
import type { ImportError } from '../importError';
import { childNamed, childrenNamed, childText, descendants, type XmlElement } from './xmlTree';

/** One notehead as written. `element` leads back to the source text. */
export interface NoteEvent {
  readonly element: XmlElement;
  readonly uid: string;
  readonly measureIndex: number;
  readonly voice: string;
  readonly onsetTicks: number;
  readonly durationTicks: number;
  readonly pitch: Pitch;
  readonly tieStart: boolean;
  readonly tieStop: boolean;
  readonly slurStarts: readonly string[];
  readonly slurStops: readonly string[];
  readonly printed: PrintedMarks;
}

export interface PartEvents {
  readonly ticksPerQuarter: number;
  readonly notes: readonly NoteEvent[];
  readonly measures: readonly Measure[];
  readonly keys: readonly KeyMark[];
  readonly metres: readonly MetreMark[];
  readonly tempos: readonly { readonly tick: number; readonly quartersPerMinute: number }[];
  readonly clefOctaveChange: number;
  readonly transposeSemitones: number | null;
  readonly graceNotes: number;
  readonly cueNotes: number;
  readonly tablatureNotes: number;
}

const MOST_TICKS_PER_QUARTER = 1_000_000;

/** The element of each pitched notehead and the uid that it gets, in document order. */
export function uidsOf(part: XmlElement): ReadonlyMap<XmlElement, string> {
  const uids = new Map<XmlElement, string>();
  let count = 0;
  for (const measure of childrenNamed(part, 'measure')) {
    for (const note of childrenNamed(measure, 'note')) {
      if (childNamed(note, 'pitch')) uids.set(note, `n${++count}`);
    }
  }
  return uids;
}

/** Reads a `<part>`; the first thing that cannot be understood ends it. */
export function readPartEvents(part: XmlElement): Result<PartEvents, ImportError> {
  const resolution = commonDivisions(part);
  if (!resolution.ok) return resolution;
  try {
    return ok(new PartReader(part, resolution.value).read());
  } catch (error) {
    if (error instanceof Refusal) return fail(error.reason);
    throw error;
  }
}

/** Carries a refusal out of the nested loops; never leaves this file. */
class Refusal extends Error {
  constructor(readonly reason: ImportError) {
    super(reason.code);
  }
}

class PartReader {
  private divisions = 1;
  private readonly uids: ReadonlyMap<XmlElement, string>;
  private readonly notes: NoteEvent[] = [];
  private readonly measures: Measure[] = [];
  private readonly keys: KeyMark[] = [];
  private readonly metres: MetreMark[] = [];
  private readonly tempos: { tick: number; quartersPerMinute: number }[] = [];
  private readonly tablatureStaves = new Set<string>();
  private clefOctaveChange = 0;
  private transposeSemitones: number | null = null;
  private graceNotes = 0;
  private cueNotes = 0;
  private tablatureNotes = 0;

  constructor(
    private readonly part: XmlElement,
    private readonly ticksPerQuarter: number,
  ) {
    this.uids = uidsOf(part);
  }

  read(): PartEvents {
    let startTicks = 0;
    for (const [index, measure] of childrenNamed(this.part, 'measure').entries()) {
      startTicks += this.readMeasure(measure, index, startTicks);
    }
    return {
      ticksPerQuarter: this.ticksPerQuarter,
      notes: this.notes,
      measures: this.measures,
      keys: this.keys,
      metres: this.metres,
      tempos: this.tempos,
      clefOctaveChange: this.clefOctaveChange,
      transposeSemitones: this.transposeSemitones,
      graceNotes: this.graceNotes,
      cueNotes: this.cueNotes,
      tablatureNotes: this.tablatureNotes,
    };
  }

  /** Returns the length of the measure in ticks. */
  private readMeasure(measure: XmlElement, index: number, startTicks: number): number {
    const number = measure.attributes['number'] ?? String(index + 1);
    let cursor = 0;
    let reached = 0;
    let chordOnset = 0;
    for (const element of measure.children) {
      switch (element.name) {
        case 'attributes':
          this.readAttributes(element, number, startTicks + cursor);
          break;
        case 'direction':
        case 'sound':
          this.readTempo(element, startTicks + cursor);
          break;
        case 'backup':
          cursor -= this.durationOf(element, number);
          if (cursor < 0) throw new Refusal({ code: 'backup', measure: number, line: element.line });
          break;
        case 'forward':
          cursor += this.durationOf(element, number);
          break;
        case 'note': {
          if (childNamed(element, 'grace')) {
            this.graceNotes++;
            break;
          }
          const durationTicks = this.durationOf(element, number);
          const inChord = childNamed(element, 'chord') !== null;
          const onset = inChord ? chordOnset : cursor;
          this.readNote(element, index, number, startTicks + onset, durationTicks);
          if (!inChord) {
            chordOnset = cursor;
            cursor += durationTicks;
          }
          break;
        }
      }
      reached = Math.max(reached, cursor);
    }
    const durationTicks = reached || this.nominalMeasureTicks();
    this.measures.push({ index, number, startTicks, durationTicks, ...repeatsOf(measure) });
    return durationTicks;
  }

  private nominalMeasureTicks(): number {
    const metre = this.metres.at(-1) ?? { beats: 4, beatType: 4 };
    return (this.ticksPerQuarter * 4 * metre.beats) / metre.beatType;
  }

  private readAttributes(element: XmlElement, measure: string, tick: number) {
    const divisions = childText(element, 'divisions');
    if (divisions !== null) this.divisions = readDivisions(divisions, measure, element.line);
    const fifths = Number(childText(childNamed(element, 'key') ?? element, 'fifths') ?? NaN);
    if (Number.isInteger(fifths) && childNamed(element, 'key')) {
      const mode = childText(childNamed(element, 'key')!, 'mode');
      this.keys.push({ tick, fifths, mode: mode === 'major' || mode === 'minor' ? mode : null });
    }
    const time = childNamed(element, 'time');
    const beats = Number(time ? childText(time, 'beats') : NaN);
    const beatType = Number(time ? childText(time, 'beat-type') : NaN);
    if (beats > 0 && beatType > 0) this.metres.push({ tick, beats, beatType });
    for (const clef of childrenNamed(element, 'clef')) this.readClef(clef);
    const transpose = childNamed(element, 'transpose');
    if (transpose) {
      const octaves = Number(childText(transpose, 'octave-change') ?? 0);
      this.transposeSemitones = Number(childText(transpose, 'chromatic') ?? 0) + 12 * octaves;
    }
  }

  private readClef(clef: XmlElement) {
    if (childText(clef, 'sign') === 'TAB') this.tablatureStaves.add(clef.attributes['number'] ?? '1');
    else this.clefOctaveChange = Number(childText(clef, 'clef-octave-change') ?? 0);
  }

  private readTempo(element: XmlElement, tick: number) {
    const sound = element.name === 'sound' ? element : childNamed(element, 'sound');
    const perMinute = Number(sound?.attributes['tempo'] ?? NaN) || metronomeOf(element);
    if (perMinute > 0 && perMinute < 1000) this.tempos.push({ tick, quartersPerMinute: perMinute });
  }

  private durationOf(element: XmlElement, measure: string): number {
    const text = childText(element, 'duration') ?? '';
    const duration = Number(text);
    const least = element.name === 'note' ? Number.MIN_VALUE : 0;
    if (text === '' || !(duration >= least) || !Number.isFinite(duration)) {
      throw new Refusal({ code: 'duration', measure, line: element.line, value: text });
    }
    return Math.round((duration * this.ticksPerQuarter) / this.divisions);
  }

  private readNote(
    element: XmlElement,
    measureIndex: number,
    measure: string,
    onsetTicks: number,
    durationTicks: number,
  ) {
    if (childNamed(element, 'rest')) return;
    if (childNamed(element, 'unpitched'))
      throw new Refusal({ code: 'percussion', measure, line: element.line });
    if (childNamed(element, 'cue')) {
      this.cueNotes++;
      return;
    }
    if (this.tablatureStaves.has(childText(element, 'staff') ?? '1')) {
      this.tablatureNotes++;
      return;
    }
    const notations = childrenNamed(element, 'notations').flatMap((one) => one.children);
    const slurs = notations.filter((mark) => mark.name === 'slur');
    const numbersOf = (type: string) =>
      slurs
        .filter((slur) => slur.attributes['type'] === type)
        .map((slur) => slur.attributes['number'] ?? '1');
    const ties = childrenNamed(element, 'tie').map((tie) => tie.attributes['type']);
    this.notes.push({
      element,
      uid: this.uids.get(element) ?? '',
      measureIndex,
      voice: childText(element, 'voice') ?? '1',
      onsetTicks,
      durationTicks,
      pitch: readPitch(element, measure),
      tieStart: ties.includes('start'),
      tieStop: ties.includes('stop'),
      slurStarts: numbersOf('start'),
      slurStops: numbersOf('stop'),
      printed: readPrinted(notations),
    });
  }
}

function readPitch(note: XmlElement, measure: string): Pitch {
  const pitch = childNamed(note, 'pitch');
  const step = (pitch && childText(pitch, 'step')) ?? '';
  const octave = Number((pitch && childText(pitch, 'octave')) ?? NaN);
  const alter = Number((pitch && childText(pitch, 'alter')) ?? 0);
  if (!isStep(step) || !Number.isInteger(octave) || !Number.isInteger(alter)) {
    const value = pitch ? `${step || '?'} ${alter} ${octave}` : '';
    throw new Refusal({ code: 'pitch', measure, line: note.line, value });
  }
  return { step, alter, octave };
}

function readPrinted(notations: readonly XmlElement[]): PrintedMarks {
  const technical = notations.filter((mark) => mark.name === 'technical');
  const text = (name: string) => technical.map((one) => childText(one, name)).find((value) => value !== null);
  const numberWithin = (name: string, most: number, least: number) => {
    const value = Number(text(name) || NaN);
    return Number.isInteger(value) && value >= least && value <= most ? value : null;
  };
  const pluck = text('pluck')?.toLowerCase();
  return {
    finger: numberWithin('fingering', 4, 0),
    string: numberWithin('string', 6, 1),
    pluck: PLUCKS.find((letter) => letter === pluck) ?? null,
  };
}

function repeatsOf(measure: XmlElement) {
  const barlines = childrenNamed(measure, 'barline');
  const directions = barlines.map((line) => childNamed(line, 'repeat')?.attributes['direction']);
  const ending = barlines
    .map((line) => childNamed(line, 'ending'))
    .find((one) => one?.attributes['type'] === 'start');
  return {
    repeatStart: directions.includes('forward'),
    repeatEnd: directions.includes('backward'),
    ending: ending?.attributes['number'] ?? null,
  };
}

const QUARTERS_PER_UNIT: Readonly<Record<string, number>> = {
  whole: 4,
  half: 2,
  quarter: 1,
  eighth: 0.5,
  '16th': 0.25,
};

function metronomeOf(direction: XmlElement): number {
  for (const element of descendants(direction)) {
    if (element.name !== 'metronome') continue;
    const unit = QUARTERS_PER_UNIT[childText(element, 'beat-unit') ?? ''] ?? NaN;
    const dotted = childNamed(element, 'beat-unit-dot') ? 1.5 : 1;
    return unit * dotted * Number.parseFloat(childText(element, 'per-minute') ?? '');
  }
  return NaN;
}

function readDivisions(text: string, measure: string, line: number): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 1 || value > MOST_TICKS_PER_QUARTER) {
    throw new Refusal({ code: 'divisions', measure, line, value: text });
  }
  return value;
}

/** Ticks per quarter in which every `<divisions>` of the part is whole. */
function commonDivisions(part: XmlElement): Result<number, ImportError> {
  let common = 1;
  for (const measure of childrenNamed(part, 'measure')) {
    for (const attributes of childrenNamed(measure, 'attributes')) {
      const text = childText(attributes, 'divisions');
      if (text === null) continue;
      const place = { measure: measure.attributes['number'] ?? '?', line: attributes.line };
      const value = Number(text);
      if (!Number.isInteger(value) || value < 1) return fail({ code: 'divisions', ...place, value: text });
      common = (common / gcd(common, value)) * value;
      if (common > MOST_TICKS_PER_QUARTER) return fail({ code: 'divisions', ...place, value: text });
    }
  }
  return ok(common);
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
