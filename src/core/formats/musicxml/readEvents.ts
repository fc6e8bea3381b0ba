/** First pass over a part: every notehead with its place in time, before octaves and ties are settled. */
import type { Pitch } from '../../music/pitch';
import type { Result } from '../../result';
import type { Direction, Grace, KeyMark, Measure, MetreMark } from '../../score/model';
import type { Notice } from '../../score/reading';
import type { ImportError } from '../importError';
import { readBarMarks } from './barMarks';
import { readDirection, readHarmony, ringingOf, tempoOf } from './directions';
import { hasDiamondHead, type NoteMarks, readNoteMarks } from './noteMarks';
import { commonDivisions, hasNotationStaff, midiOfTuning, readDivisions, readPitch } from './partValues';
import { LIMITS, LONGEST_QUARTERS } from '../limits';
import { orRefusal, Refusal, tooMuch } from './refusal';
import { maybeTempoWord } from './tempoWords';
import { childNamed, childrenNamed, childText, type XmlElement } from './xmlTree';

/** One notehead as written. `element` leads back to the source text. */
export interface NoteEvent extends NoteMarks {
  readonly element: XmlElement;
  readonly uid: string;
  readonly measureIndex: number;
  readonly voice: string;
  readonly staff: string;
  readonly onsetTicks: number;
  readonly durationTicks: number;
  readonly pitch: Pitch;
  readonly grace: Grace | null;
}

/** A tempo with the words that stand for it where the file gives no number. */
export interface PartTempo {
  readonly tick: number;
  readonly quartersPerMinute: number;
  readonly word: string | null;
}

export interface PartEvents {
  readonly ticksPerQuarter: number;
  readonly notes: readonly NoteEvent[];
  /** Noteheads on staves of tablature: the same music again, with strings and frets. */
  readonly tablature: readonly NoteEvent[];
  readonly measures: readonly Measure[];
  readonly keys: readonly KeyMark[];
  readonly metres: readonly MetreMark[];
  readonly tempos: readonly PartTempo[];
  readonly directions: readonly Direction[];
  readonly clefOctaveChange: number;
  readonly transposeSemitones: number | null;
  /** Sounding MIDI numbers of the open strings, string 1 first, where the file gives six. */
  readonly stringTuning: readonly number[] | null;
  readonly capo: number;
  /** Semitones by which pitches and keys here lie above those in the file. */
  readonly transposedBy: number;
  readonly cueNotes: number;
  readonly unpitchedNotes: number;
  /** Notes for playback alone, which nobody sees. */
  readonly hiddenNotes: number;
  readonly notices: readonly Notice[];
}

/** Names that notes and bars had in earlier versions of the score, in document order. */
export interface KnownUids {
  readonly notes: readonly string[];
  readonly bars: readonly string[];
}

/** The element of each pitched notehead and the uid that it gets, in document order. */
export function uidsOf(part: XmlElement, known: KnownUids | null = null): ReadonlyMap<XmlElement, string> {
  const uids = new Map<XmlElement, string>();
  let count = 0;
  for (const measure of childrenNamed(part, 'measure')) {
    for (const note of measure.children) {
      if (note.name !== 'note' || !childNamed(note, 'pitch')) continue;
      uids.set(note, known ? (known.notes[count] ?? `n0${count}`) : `n${count + 1}`);
      count++;
    }
  }
  return uids;
}

/** Reads a `<part>`; the first thing that cannot be understood ends it. */
export function readPartEvents(
  part: XmlElement,
  known: KnownUids | null = null,
): Result<PartEvents, ImportError> {
  const resolution = orRefusal(() => commonDivisions(part));
  if (!resolution.ok) return resolution;
  return orRefusal(() => new PartReader(part, resolution.value, known).read());
}

/** Where the reading of a bar stands, in ticks from the bar's start. */
interface Cursor {
  at: number;
  reached: number;
  /** Voice that reached furthest, and the line of its last note. */
  voice: string;
  line: number;
  chordOnset: number;
}

/** Four octaves either way. */
const FARTHEST_TRANSPOSITION = 48;

class PartReader {
  private divisions = 1;
  private readonly uids: ReadonlyMap<XmlElement, string>;
  private readonly notes: NoteEvent[] = [];
  private readonly tablature: NoteEvent[] = [];
  private readonly measures: Measure[] = [];
  private readonly keys: KeyMark[] = [];
  private readonly metres: MetreMark[] = [];
  private readonly tempos: PartTempo[] = [];
  private readonly directions: Direction[] = [];
  private readonly notices: Notice[] = [];
  private readonly tablatureStaves = new Set<string>();
  private readonly hasNotation: boolean;
  private clefOctaveChange = 0;
  private transposeSemitones: number | null = null;
  private stringTuning: number[] | null = null;
  private capo = 0;
  private noteElements = 0;
  private cueNotes = 0;
  private unpitchedNotes = 0;
  private hiddenNotes = 0;
  private waitingGrace: NoteEvent[] = [];
  /** Where notes are let ring; the last one may still be open. */
  private readonly ringing: { from: number; to: number }[] = [];

  constructor(
    private readonly part: XmlElement,
    private readonly ticksPerQuarter: number,
    private readonly known: KnownUids | null,
  ) {
    this.uids = uidsOf(part, known);
    this.hasNotation = hasNotationStaff(part);
  }

  read(): PartEvents {
    let startTicks = 0;
    const measures = childrenNamed(this.part, 'measure');
    if (measures.length > LIMITS.bars) throw new Refusal(tooMuch('bars'));
    for (const [index, measure] of measures.entries()) {
      startTicks += this.readMeasure(measure, index, startTicks, index === measures.length - 1);
    }
    this.notes.push(...this.waitingGrace.map((event) => ({ ...event, onsetTicks: startTicks })));
    return {
      ticksPerQuarter: this.ticksPerQuarter,
      notes: this.withRinging(this.notes),
      tablature: this.tablature,
      measures: this.measures,
      keys: this.keys,
      metres: this.metres,
      tempos: this.tempos,
      directions: this.directions,
      clefOctaveChange: this.clefOctaveChange,
      transposeSemitones: this.transposeSemitones,
      stringTuning: this.stringTuning,
      capo: this.capo,
      transposedBy: 0,
      cueNotes: this.cueNotes,
      unpitchedNotes: this.unpitchedNotes,
      hiddenNotes: this.hiddenNotes,
      notices: this.notices,
    };
  }

  /** Returns the length of the measure in ticks. */
  private readMeasure(measure: XmlElement, index: number, startTicks: number, last: boolean): number {
    const number = measure.attributes['number'] ?? String(index + 1);
    const cursor: Cursor = { at: 0, reached: 0, voice: '1', line: measure.line, chordOnset: 0 };
    for (const element of measure.children) this.readElement(element, index, number, startTicks, cursor);
    const nominalTicks = this.nominalMeasureTicks();
    const durationTicks = cursor.reached || nominalTicks;
    const marks = readBarMarks(measure);
    const uid = this.known ? (this.known.bars[index] ?? `b0${index}`) : `b${index + 1}`;
    this.measures.push({ uid, index, number, startTicks, durationTicks, nominalTicks, ...marks });
    const upbeat = index === 0 || measure.attributes['implicit'] === 'yes' || this.completesABar(index);
    if (durationTicks > nominalTicks) this.noticeFill('overfull', index, number, cursor, nominalTicks);
    else if (durationTicks < nominalTicks && !upbeat && !last && !marks.repeatEnd && !marks.sectionEnd) {
      this.noticeFill('underfull', index, number, cursor, nominalTicks);
    }
    return durationTicks;
  }

  private readElement(
    element: XmlElement,
    index: number,
    number: string,
    startTicks: number,
    cursor: Cursor,
  ): void {
    const tick = startTicks + cursor.at;
    switch (element.name) {
      case 'attributes':
        return this.readAttributes(element, number, tick);
      case 'direction':
      case 'sound': {
        const quartersPerMinute = tempoOf(element);
        if (quartersPerMinute > 0) this.tempos.push({ tick, quartersPerMinute, word: null });
        if (element.name === 'direction') {
          const directions = readDirection(element);
          for (const found of directions) this.directions.push({ tick, ...found });
          if (!(quartersPerMinute > 0)) this.readTempoWords(directions, tick);
          this.readRinging(element, tick, startTicks);
        }
        return;
      }
      case 'harmony':
        for (const found of readHarmony(element)) this.directions.push({ tick, ...found });
        return;
      case 'backup':
        cursor.at -= this.durationOf(element, number);
        if (cursor.at < 0) throw new Refusal({ code: 'backup', measure: number, line: element.line });
        return;
      case 'forward':
        cursor.at += this.durationOf(element, number);
        break;
      case 'note':
        this.readNoteElement(element, index, number, startTicks, cursor);
        break;
      default:
        return;
    }
    if (cursor.at > cursor.reached) {
      cursor.reached = cursor.at;
      cursor.voice = childText(element, 'voice') ?? '1';
      cursor.line = element.line;
    }
  }

  private readNoteElement(
    element: XmlElement,
    index: number,
    number: string,
    startTicks: number,
    cursor: Cursor,
  ): void {
    const grace = childNamed(element, 'grace');
    const inChord = childNamed(element, 'chord') !== null;
    const durationTicks = grace ? 0 : this.durationOf(element, number);
    const onset = inChord && !grace ? cursor.chordOnset : cursor.at;
    const event = this.maybeEvent(element, index, number, startTicks + onset, durationTicks);
    if (++this.noteElements > LIMITS.notes) throw new Refusal(tooMuch('notes'));
    if (event && grace) {
      this.waitingGrace.push({
        ...event,
        grace: { beforeMain: 1, slashed: grace.attributes['slash'] === 'yes' },
      });
    } else if (event) {
      if (!inChord) this.placeGraces(event);
      (this.isTablature(event.staff) ? this.tablature : this.notes).push(event);
    }
    if (inChord || grace) return;
    cursor.chordOnset = cursor.at;
    cursor.at += durationTicks;
  }

  /** Grace notes wait for the main note of their voice; those of one chord stand together. */
  private placeGraces(main: NoteEvent) {
    const own = this.waitingGrace.filter((grace) => grace.voice === main.voice);
    this.waitingGrace = this.waitingGrace.filter((grace) => grace.voice !== main.voice);
    let beforeMain = 0;
    const placed = own.toReversed().map((event, k) => {
      const later = own[own.length - k];
      const together = later !== undefined && childNamed(later.element, 'chord') !== null;
      if (!together) beforeMain++;
      return { ...event, onsetTicks: main.onsetTicks, grace: { ...event.grace!, beforeMain } };
    });
    (this.isTablature(main.staff) ? this.tablature : this.notes).push(...placed.toReversed());
  }

  private maybeEvent(
    element: XmlElement,
    measureIndex: number,
    measure: string,
    onsetTicks: number,
    durationTicks: number,
  ): NoteEvent | null {
    if (childNamed(element, 'rest')) return null;
    if (childNamed(element, 'unpitched')) {
      this.unpitchedNotes++;
      return null;
    }
    if (childNamed(element, 'cue')) {
      this.cueNotes++;
      return null;
    }
    if (element.attributes['print-object'] === 'no') {
      this.hiddenNotes++;
      return null;
    }
    const marks = readNoteMarks(element);
    return {
      ...marks,
      harmonic: marks.harmonic ?? (hasDiamondHead(element) ? 'natural' : null),
      element,
      uid: this.uids.get(element) ?? '',
      measureIndex,
      voice: childText(element, 'voice') ?? '1',
      staff: childText(element, 'staff') ?? '1',
      onsetTicks,
      durationTicks,
      pitch: readPitch(element, measure),
      grace: null,
    };
  }

  /** Where all staves are tablature, they are the music. */
  private isTablature = (staff: string) => this.hasNotation && this.tablatureStaves.has(staff);

  private nominalMeasureTicks(): number {
    const metre = this.metres.at(-1) ?? { beats: 4, beatType: 4 };
    return (this.ticksPerQuarter * 4 * metre.beats) / metre.beatType;
  }

  /** A bar that is divided by a repeat or double line stands in two measures. */
  private completesABar(index: number): boolean {
    const before = this.measures[index - 1];
    return before !== undefined && before.durationTicks < before.nominalTicks;
  }

  /** Words count where no number stands at the same place. */
  private readTempoWords(directions: ReturnType<typeof readDirection>, tick: number) {
    if (this.tempos.some((mark) => mark.tick === tick)) return;
    const words = directions.filter((one) => one.kind === 'words').map((one) => one.text);
    const tempo = maybeTempoWord(words.join(' '));
    if (tempo) this.tempos.push({ tick, ...tempo });
  }

  private readRinging(direction: XmlElement, tick: number, barStart: number) {
    const ringing = ringingOf(direction);
    if (ringing === 'start') this.ringing.push({ from: tick, to: Infinity });
    else if (ringing === 'stop') {
      const open = this.ringing.findLast((span) => span.to === Infinity);
      if (open) open.to = tick;
    } else if (ringing === 'bar') {
      this.ringing.push({ from: tick, to: barStart + this.nominalMeasureTicks() });
    }
  }

  private withRinging(notes: readonly NoteEvent[]): readonly NoteEvent[] {
    if (this.ringing.length === 0) return notes;
    const rings = (note: NoteEvent) =>
      this.ringing.some((span) => note.onsetTicks >= span.from && note.onsetTicks < span.to);
    return notes.map((note) =>
      rings(note) && !note.tags.includes('letRing') ? { ...note, tags: [...note.tags, 'letRing'] } : note,
    );
  }

  private noticeFill(
    code: 'overfull' | 'underfull',
    measureIndex: number,
    measure: string,
    cursor: Cursor,
    nominalTicks: number,
  ) {
    this.notices.push({
      code,
      measureIndex,
      measure,
      voice: cursor.voice,
      line: cursor.line,
      hasQuarters: cursor.reached / this.ticksPerQuarter,
      wantsQuarters: nominalTicks / this.ticksPerQuarter,
    });
  }

  private readAttributes(element: XmlElement, measure: string, tick: number) {
    const divisions = childText(element, 'divisions');
    if (divisions !== null) this.divisions = readDivisions(divisions, measure, element.line);
    const key = childNamed(element, 'key');
    const fifths = Number((key && childText(key, 'fifths')) ?? NaN);
    if (key && Number.isInteger(fifths) && Math.abs(fifths) <= 7) {
      const mode = childText(key, 'mode');
      this.keys.push({ tick, fifths, mode: mode === 'major' || mode === 'minor' ? mode : null });
    }
    this.readTime(childNamed(element, 'time'), tick);
    for (const clef of childrenNamed(element, 'clef')) this.readClef(clef);
    for (const details of childrenNamed(element, 'staff-details')) this.readStaffDetails(details);
    this.readTranspose(childNamed(element, 'transpose'));
  }

  /** "3+2" is five beats. */
  private readTime(time: XmlElement | null, tick: number) {
    const beats = (time && childText(time, 'beats')) ?? '';
    const sum = beats.split('+').reduce((total, part) => total + Number(part), 0);
    const beatType = Number((time && childText(time, 'beat-type')) ?? NaN);
    if (sum > 0 && sum < 256 && beatType > 0 && beatType <= 128)
      this.metres.push({ tick, beats: sum, beatType });
  }

  private readTranspose(transpose: XmlElement | null) {
    if (!transpose) return;
    const octaves = Number(childText(transpose, 'octave-change') ?? 0);
    const semitones = Number(childText(transpose, 'chromatic') ?? 0) + 12 * octaves;
    if (Number.isInteger(semitones) && Math.abs(semitones) <= FARTHEST_TRANSPOSITION)
      this.transposeSemitones = semitones;
  }

  private readClef(clef: XmlElement) {
    if (childText(clef, 'sign') === 'TAB') this.tablatureStaves.add(clef.attributes['number'] ?? '1');
    else {
      const change = Number(childText(clef, 'clef-octave-change') ?? 0);
      this.clefOctaveChange = [-2, -1, 0, 1, 2].includes(change) ? change : 0;
    }
  }

  private readStaffDetails(details: XmlElement) {
    const capo = Number(childText(details, 'capo') ?? NaN);
    if (Number.isInteger(capo) && capo >= 0 && capo <= 12) this.capo = capo;
    const strings = childrenNamed(details, 'staff-tuning').map((one) => ({
      line: Number(one.attributes['line'] ?? NaN),
      midi: midiOfTuning(one),
    }));
    if (strings.length !== 6 || strings.some((one) => !Number.isFinite(one.midi))) return;
    // Lines count from the bottom, strings from the highest.
    this.stringTuning = strings.sort((a, b) => b.line - a.line).map((one) => one.midi);
  }

  private durationOf(element: XmlElement, measure: string): number {
    const text = childText(element, 'duration') ?? '';
    const duration = Number(text);
    const least = element.name === 'note' ? Number.MIN_VALUE : 0;
    if (text === '' || !(duration >= least) || !(duration <= LONGEST_QUARTERS * this.divisions)) {
      const voice = childText(element, 'voice') ?? '1';
      throw new Refusal({ code: 'duration', measure, voice, line: element.line, value: text });
    }
    return Math.round((duration * this.ticksPerQuarter) / this.divisions);
  }
}
