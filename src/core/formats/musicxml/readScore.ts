/** One part of a MusicXML document as a score. */
import { midiName, midiOf, pitchName } from '../../music/pitch';
import type { TempoMark } from '../../music/tempo';
import { CONCERT_FRETBOARD } from '../../instrument/fretboard';
import {
  lowestMidi,
  openMidi,
  STANDARD_TUNING,
  type Tuning,
  tuningFromMidi,
  tuningOrThrow,
} from '../../instrument/tuning';
import { fail, ok, type Result } from '../../result';
import { type Corrections, NO_CORRECTIONS } from '../../score/corrections';
import { readSlurs, type SlurReading } from '../../score/ligados';
import { withSlideCorrections } from '../../score/slideCorrections';
import { withSlurCorrections } from '../../score/slurCorrections';
import type { NoteSpan, Score, ScoreNote } from '../../score/model';
import type { Assumption, Notice } from '../../score/reading';
import type { ImportError } from '../importError';
import { correctEvents } from './correctEvents';
import { transposeEvents } from './transposeEvents';
import { joinTies } from './joinTies';
import { type Octave, readOctave } from './octave';
import {
  infoOf,
  maybeGuitarPart,
  maybeTablatureTwin,
  type PartEvidence,
  type PartInfo,
  readParts,
} from './parts';
import { type KnownUids, type NoteEvent, type PartEvents, readPartEvents } from './readEvents';
import { withTablature } from './tablature';
import { temposOf } from './tempos';
import { childNamed, childrenNamed, childText, descendants, parseXml, type XmlElement } from './xmlTree';

export interface ScoreDocument {
  readonly root: XmlElement;
  readonly part: XmlElement;
  readonly parts: readonly PartInfo[];
  /** Which of them was read. */
  readonly partIndex: number;
  readonly uids: KnownUids | null;
  readonly events: PartEvents;
  readonly score: Score;
}

export interface ReadOptions {
  /** Which part; without one, the one that looks like a guitar. */
  readonly partIndex?: number | null;
  /** Names of notes and bars that earlier versions gave; without them they are counted from 1. */
  readonly uids?: KnownUids | null;
  readonly corrections?: Corrections;
  /** The format that the document was made from. */
  readonly convertedFrom?: 'abc' | 'mei' | null;
}

/** Reads the text of a MusicXML document. Nothing is repaired silently: what was decided is in `assumptions`. */
export function readScore(text: string, options: ReadOptions = {}): Result<ScoreDocument, ImportError> {
  const tree = parseXml(text);
  if (!tree.ok) return tree;
  return readTree(tree.value, options);
}

/** The same from a parsed document, so that corrections need not parse it again. */
export function readTree(root: XmlElement, options: ReadOptions): Result<ScoreDocument, ImportError> {
  if (root.name === 'score-timewise') return fail({ code: 'timewise' });
  if (root.name !== 'score-partwise') return fail({ code: 'wrongRoot', root: root.name });
  const parts = readParts(root);
  const chosen = choosePart(parts, options.partIndex ?? null);
  if (!chosen.ok) return chosen;
  const own = chosen.value;
  const uids = options.uids ?? null;
  const bare = readPartEvents(own.element, uids);
  if (!bare.ok) return bare;
  if (bare.value.notes.length === 0) return fail({ code: 'noNotes' });
  const tabbed = withStrings(bare.value, maybeTablatureTwin(parts, own));
  const corrections = options.corrections ?? NO_CORRECTIONS;
  const corrected = correctEvents(tabbed.events, corrections);
  const events = transposeEvents(corrected, corrections.piece.transpose ?? 0);
  // Which octave is meant is said by the file as it came.
  const score = settle({ root, parts, part: own, written: corrected }, events, tabbed.matched, options);
  if (!score.ok) return score;
  return ok({
    root,
    part: own.element,
    parts: parts.map(infoOf),
    partIndex: own.index,
    uids,
    events,
    score: score.value,
  });
}

function choosePart(
  parts: readonly PartEvidence[],
  wanted: number | null,
): Result<PartEvidence, ImportError> {
  const percussion = parts.find((part) => part.unpitchedNotes > 0);
  if (wanted !== null) {
    const part = parts[wanted];
    return part ? ok(part) : fail({ code: 'noSuchPart', wanted: wanted + 1, count: parts.length });
  }
  const guitar = maybeGuitarPart(parts);
  if (guitar && guitar.pitchedNotes >= guitar.unpitchedNotes) return ok(guitar);
  return percussion ? fail(percussionError(percussion.element)) : fail({ code: 'noNotes' });
}

function percussionError(part: XmlElement): ImportError {
  for (const measure of childrenNamed(part, 'measure')) {
    const note = childrenNamed(measure, 'note').find((one) => childNamed(one, 'unpitched'));
    if (!note) continue;
    const voice = childText(note, 'voice') ?? '1';
    return { code: 'percussion', measure: measure.attributes['number'] ?? '?', voice, line: note.line };
  }
  return { code: 'noNotes' };
}

/** Strings and frets of the part's own tablature staff, or of a part that is the same music as tablature. */
function withStrings(
  events: PartEvents,
  twin: PartEvidence | null,
): { readonly events: PartEvents; readonly matched: number } {
  const other = twin ? readPartEvents(twin.element) : null;
  const fromTwin = other?.ok ? other.value : null;
  const tablature = events.tablature.length > 0 ? events.tablature : (fromTwin?.notes ?? []);
  if (tablature.length === 0) return { events, matched: 0 };
  const scale = events.tablature.length > 0 ? 1 : events.ticksPerQuarter / fromTwin!.ticksPerQuarter;
  const { notes, matched } = withTablature(events.notes, tablature, scale);
  const stringTuning = events.stringTuning ?? fromTwin?.stringTuning ?? null;
  return { events: { ...events, notes, stringTuning, capo: events.capo || (fromTwin?.capo ?? 0) }, matched };
}

/** A part in its document. */
interface Chosen {
  readonly root: XmlElement;
  readonly parts: readonly PartEvidence[];
  readonly part: PartEvidence;
  /** The part before it is transposed. */
  readonly written: PartEvents;
}

function settle(
  { root, parts, part, written }: Chosen,
  events: PartEvents,
  tabMatched: number,
  options: ReadOptions,
): Result<Score, ImportError> {
  const { piece, notes: noteCorrections } = options.corrections ?? NO_CORRECTIONS;
  const given = events.stringTuning ? tuningFromMidi(events.stringTuning) : null;
  const octave = octaveOf(written, given, piece.octave);
  const tuning = piece.tuning ? tuningOrThrow(piece.tuning) : (given ?? tuningFor(events, octave.shift));
  const outside = outsideOf(events, octave.shift, tuning);
  const refused = outside.find(({ uid }) => noteCorrections.get(uid)?.pitch);
  // A correction that leaves the guitar is none; a file with some such notes is read, one with nothing else is not.
  if (refused ?? (outside.length === events.notes.length && outside[0]))
    return fail(outsideError(events, (refused ?? outside[0])!, octave.shift, tuning));

  const marked = (key: 'mustRing' | 'leftOut') =>
    new Set([...noteCorrections].filter(([, one]) => one[key]).map(([uid]) => uid));
  const notes = joinTies(events.notes, octave.shift, {
    mustRing: marked('mustRing'),
    leftOut: marked('leftOut'),
  });
  const slurs = pairSpans(events.notes, 'slurStarts', 'slurStops');
  const slurReading = readSlurs(notes, slurs, tuning, piece.slurs);
  const tempos = temposOf(events, piece.tempo);
  const capo = piece.capo ?? events.capo;
  return ok({
    title: titleOf(root),
    partName: part.name,
    transposedBy: events.transposedBy,
    ticksPerQuarter: events.ticksPerQuarter,
    tuningId: tuning.id,
    capo,
    measures: events.measures,
    notes,
    slurs,
    ligados: withSlurCorrections(notes, slurReading.ligados, noteCorrections),
    slides: withSlideCorrections(
      notes,
      pairSpans(events.notes, 'slideStarts', 'slideStops'),
      noteCorrections,
    ),
    keys: events.keys,
    metres: events.metres,
    tempos,
    directions: events.directions,
    assumptions: [
      ...partAssumption(parts, part),
      { code: 'octave', reading: octave.reading },
      ...(tuning.id !== STANDARD_TUNING.id ? [{ code: 'tuning', tuningId: tuning.id } as const] : []),
      ...(capo > 0 ? [{ code: 'capo', fret: capo } as const] : []),
      ...tempoAssumptions(events, tempos),
      ...counted(events, notes, slurReading, tabMatched),
      ...(options.convertedFrom ? [{ code: 'converted', from: options.convertedFrom } as const] : []),
    ],
    notices: [
      ...outsideNotice(events, outside),
      ...events.notices,
      ...slurNotice(events, notes, slurReading, piece.slurs),
    ],
  });
}

const octaveOf = (events: PartEvents, given: Tuning | null, corrected: number | undefined): Octave =>
  corrected === undefined ? readOctave(events, given) : { reading: 'corrected', shift: corrected };

function tempoAssumptions(events: PartEvents, tempos: readonly TempoMark[]): readonly Assumption[] {
  const words = events.tempos.filter((mark) => mark.word !== null);
  return tempos
    .filter((mark) => mark.assumed)
    .map(({ tick, quartersPerMinute }): Assumption => {
      // The first mark holds from the beginning, wherever its words stand.
      const word = (words.find((mark) => mark.tick === tick) ?? (tick === 0 ? words[0] : undefined))?.word;
      return word ? { code: 'tempoWord', word, quartersPerMinute } : { code: 'tempo', quartersPerMinute };
    });
}

const partAssumption = (parts: readonly PartEvidence[], part: PartEvidence): readonly Assumption[] =>
  parts.length > 1 ? [{ code: 'part', name: part.name || `${part.index + 1}`, count: parts.length }] : [];

function counted(
  events: PartEvents,
  notes: readonly ScoreNote[],
  slurs: SlurReading,
  tabMatched: number,
): readonly Assumption[] {
  const ornaments = notes.filter((note) => note.tags.some((tag) => /^(trill|mordent|turn)$/.test(tag)));
  const rows = [
    { code: 'phraseSlurs', count: slurs.phraseMarks },
    { code: 'cueNotes', count: events.cueNotes },
    { code: 'hidden', count: events.hiddenNotes },
    { code: 'unpitched', count: events.unpitchedNotes },
    { code: 'ornaments', count: ornaments.length },
    { code: 'harmonics', count: notes.filter((note) => note.harmonic).length },
    { code: 'tablature', count: tabMatched },
  ] as const;
  return rows.filter((row) => row.count > 0);
}

function slurNotice(
  events: PartEvents,
  notes: readonly ScoreNote[],
  slurs: SlurReading,
  answer: 'ligado' | 'phrase' | undefined,
): readonly Notice[] {
  const first = notes.find((note) => note.uid === slurs.ambiguous[0]);
  if (!first || answer !== undefined) return [];
  const { measureIndex } = first;
  const measure = events.measures[measureIndex]!.number;
  return [{ code: 'ambiguousSlurs', measureIndex, measure, count: slurs.ambiguous.length }];
}

/** Notes that the sixth string reaches when it is tuned to D, and not otherwise, say that it is. */
function tuningFor(events: PartEvents, shift: number): Tuning {
  const dropped = tuningOrThrow('sixth-to-d');
  const usual = outsideOf(events, shift, STANDARD_TUNING).length;
  return outsideOf(events, shift, dropped).length < usual ? dropped : STANDARD_TUNING;
}

function outsideOf(events: PartEvents, shift: number, tuning: Tuning): readonly NoteEvent[] {
  const { lowest, highest } = rangeOf(tuning);
  return events.notes.filter((one) => {
    const midi = midiOf(one.pitch) + shift;
    return !one.harmonic && (midi < lowest || midi > highest);
  });
}

const rangeOf = (tuning: Tuning) => ({
  lowest: lowestMidi(tuning),
  highest: openMidi(tuning, 1) + CONCERT_FRETBOARD.frets,
});

function outsideError(events: PartEvents, note: NoteEvent, shift: number, tuning: Tuning): ImportError {
  const { lowest, highest } = rangeOf(tuning);
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

function outsideNotice(events: PartEvents, outside: readonly NoteEvent[]): readonly Notice[] {
  const first = outside[0];
  if (!first) return [];
  const { measureIndex } = first;
  const measure = events.measures[measureIndex]!.number;
  return [{ code: 'outside', measureIndex, measure, count: outside.length }];
}

/** Slurs or slides by their number, paired in document order. */
function pairSpans(
  events: readonly NoteEvent[],
  starts: 'slurStarts' | 'slideStarts',
  stops: 'slurStops' | 'slideStops',
): NoteSpan[] {
  const open = new Map<string, string>();
  const spans: NoteSpan[] = [];
  for (const event of events) {
    for (const number of event[stops]) {
      const fromUid = open.get(number);
      if (fromUid) spans.push({ fromUid, toUid: event.uid });
      open.delete(number);
    }
    for (const number of event[starts]) open.set(number, event.uid);
  }
  return spans;
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
