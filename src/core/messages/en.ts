/** Every sentence that the core's codes become. One catalogue; linted in `en.test.ts`. */
import type { Finding } from '../fingering/report/plan';
import type { RingEnd } from '../rings/ring';
import { LEFT_TERMS, type LeftTermId } from '../fingering/left/rules/terms';
import { wordsOf } from '../fingering/rules/costTerm';
import type { ImportError } from '../formats/importError';
import type { Limited } from '../formats/limits';
import { SLUR_FAULTS } from './strokes';
import { LARGEST_MEGABYTES } from '../formats/musicxml/bytes';
import type { Assumption, Notice, OctaveReading } from '../score/reading';
import { midiName } from '../music/pitch';
import { maybeTuning } from '../instrument/tuning';

type Texts<T extends { readonly code: string }> = {
  readonly [C in T['code']]: (value: Extract<T, { readonly code: C }>) => string;
};

const LIMITED_WORDS: Readonly<Record<Limited, string>> = {
  elements: 'elements',
  depth: 'levels of elements inside each other',
  bars: 'bars',
  notes: 'notes',
  letters: 'characters of ABC',
};

/** Says what is wrong, where, and what to do. */
export const IMPORT_ERRORS: Texts<ImportError> = {
  empty: () => 'The file is empty; export it again from the notation program.',
  tooLarge: (e) =>
    `The file holds ${e.megabytes} MB and Oculon takes up to ${LARGEST_MEGABYTES} MB; export the score alone, without sound or pictures.`,
  tooMuch: (e) =>
    `The file holds more than ${e.most.toLocaleString('en')} ${LIMITED_WORDS[e.of]}, which no score for one guitar needs; export the piece alone, or a movement at a time.`,
  tookTooLong: () =>
    'Reading the file took too long and was given up; export the piece alone, or a movement at a time.',
  encoding: () =>
    'The text of the file is in no encoding that Oculon knows (UTF-8, UTF-16, Latin-1); export it again as MusicXML in UTF-8.',
  notXml: (e) =>
    `The file is not well-formed XML: line ${e.line}, ${e.detail}; it may be cut off or not be a score, export it again.`,
  entities: (e) =>
    `Line ${e.line} of the file defines entities, which a score does not need and Oculon does not open; export it again without them.`,
  wrongRoot: (e) =>
    `The file is XML but no MusicXML score: it begins with <${e.root}> where <score-partwise> is needed; export the piece as MusicXML.`,
  timewise: () =>
    'The score is stored measure by measure (score-timewise); export it part by part (score-partwise).',
  notZip: () => 'The file looks like a compressed score but cannot be unpacked; export it again.',
  zipWithoutScore: () =>
    'The compressed file names no score in META-INF/container.xml; export it again as .mxl.',
  unknownKind: (e) =>
    `“${e.name}” is no kind of file that Oculon reads; use .musicxml, .xml, .mxl, .mei, .abc or an edition of Oculon (.json).`,
  zipPath: (e) =>
    `The compressed file keeps its score at “${e.path}”, which leads out of the archive; export it again as .mxl.`,
  noSuchPart: (e) => `There is no part ${e.wanted}: the score has ${e.count}; choose one of them.`,
  abc: (e) => `Line ${e.line} of the ABC text cannot be read: ${e.detail}; correct it and import again.`,
  mei: (e) => `The MEI file cannot be read: ${e.detail}; export it again, or export the piece as MusicXML.`,
  edition: (e) =>
    `The edition cannot be read: ${e.place}, ${e.detail}; export it again from the desk where it was made.`,
  anotherPiece: (e) =>
    `Only ${Math.round(e.share * 100)} % of the notes on the desk are in this file, so it seems to be another piece; choose the newer file of this one, or import it on the shelf.`,
  changedMeanwhile: () =>
    'The piece got another version while this file was read; nothing was changed, choose the file again.',
  unknownPiece: () => 'This piece is not on your shelf; choose one that is.',
  noNotes: () => 'There is no pitched note in the score; choose a file with music in it.',
  percussion: (e) =>
    `Bar ${e.measure}, voice ${e.voice} (line ${e.line}) has a note without pitch, as percussion has; export the guitar part alone.`,
  divisions: (e) =>
    `Bar ${e.measure} (line ${e.line}) divides the quarter into “${e.value}”, which is no usable whole number; export the file again.`,
  duration: (e) =>
    `Bar ${e.measure}, voice ${e.voice} (line ${e.line}) has a note or rest with the duration “${e.value}”; correct the bar in the notation program and export again.`,
  pitch: (e) =>
    `Bar ${e.measure}, voice ${e.voice} (line ${e.line}) has a note whose pitch “${e.value}” cannot be read; correct it and export again.`,
  backup: (e) =>
    `Bar ${e.measure} (line ${e.line}) goes back to before the bar line; correct the bar and export again.`,
  outside: (e) =>
    `Bar ${e.measure}, voice ${e.voice} (line ${e.line}): ${e.note} lies outside the guitar, which reaches from ${e.lowest} to ${e.highest}; check clef and octave and export again.`,
};

const beats = (value: number) => `${Number(value.toFixed(2))} ${value === 1 ? 'beat' : 'beats'}`;

const OCTAVES: Readonly<Record<OctaveReading, string>> = {
  frets: 'The strings and frets in the file say which octave is meant.',
  corrected: 'The octave of the file was corrected here.',
  clef: 'The clef carries an 8, so the pitches in the file are taken as they sound.',
  transposition: 'The file transposes, so the pitches are taken as written for guitar.',
  'both-applied':
    'Clef and transposition both shift the octave; the transposition was applied because it fits the guitar.',
  'both-clef':
    'Clef and transposition both shift the octave; only the clef was taken because both would lie too low.',
  written:
    'The file says nothing about the octave; the pitches are taken as written, an octave above the sound.',
  sounding:
    'The file says nothing about the octave; the pitches are taken as sounding because they lie too low otherwise.',
};

export const ASSUMPTIONS: Texts<Assumption> = {
  octave: (a) => OCTAVES[a.reading],
  tempo: (a) => `The file gives no tempo; ♩ = ${a.quartersPerMinute} is assumed.`,
  tempoWord: (a) => `The file says “${a.word}” and no number; ♩ = ${a.quartersPerMinute} is assumed.`,
  part: (a) => `Of ${a.count} parts “${a.name}” was read.`,
  tuning: (a) => TUNING_WORDS[a.tuningId] ?? `The strings are tuned ${openStringNames(a.tuningId)}.`,
  capo: (a) => `Capo at fret ${a.fret}: frets and positions count from it.`,
  phraseSlurs: (a) => `Slurs taken as phrase marks, because no hand slurs them on one string: ${a.count}.`,
  cueNotes: (a) => `Cue notes are kept but not fingered: ${a.count}.`,
  hidden: (a) => `Hidden notes, which are for playback alone, are not fingered: ${a.count}.`,
  unpitched: (a) => `Strokes without pitch are kept but not fingered: ${a.count}.`,
  ornaments: (a) => `Ornament signs are kept; their main notes alone are fingered: ${a.count}.`,
  harmonics: (a) => `Harmonics: ${a.count}.`,
  tablature: (a) => `Notes whose string was taken from the tablature as printed: ${a.count}.`,
  converted: (a) =>
    `Read from ${a.from === 'abc' ? 'ABC' : 'MEI'} by way of MusicXML; the file itself is kept.`,
};

const TUNING_WORDS: Readonly<Record<string, string>> = {
  standard: 'The strings are tuned as usual.',
  'sixth-to-d': 'The sixth string is tuned to D.',
  'fifth-to-g-sixth-to-d': 'The fifth string is tuned to G and the sixth to D.',
  'third-to-f-sharp': 'The third string is tuned to F♯.',
};

/** From the sixth string to the first: "D2 A2 D3 G3 A3 D4". */
export const openStringNames = (tuningId: string): string =>
  [...(maybeTuning(tuningId)?.openMidi ?? [])].reverse().map(midiName).join(' ');

const barFill = (n: Extract<Notice, { code: 'overfull' | 'underfull' }>) =>
  `Bar ${n.measure}, voice ${n.voice} (line ${n.line}) has ${beats(n.hasQuarters)} where the metre asks for ${beats(n.wantsQuarters)}`;

export const NOTICES: Texts<Notice> = {
  overfull: (n) => `${barFill(n)}; it is taken as long as it is. Correct a length if it should not be.`,
  underfull: (n) => `${barFill(n)}; it is taken as short as it is. Correct a length if it should not be.`,
  outside: (n) =>
    n.count === 1
      ? `A note in bar ${n.measure} lies outside the guitar and is not played. Compare transpositions below, correct it or leave it out.`
      : `From bar ${n.measure} on, ${n.count} notes lie outside the guitar and are not played. Compare transpositions below, correct them or leave them out.`,
  ambiguousSlurs: (n) =>
    `From bar ${n.measure} on, ${n.count} ${n.count === 1 ? 'slur' : 'slurs'} over three to five notes could be played by the left hand or mark a phrase; they are taken as phrase marks until you say.`,
};

const SHIFT_TO = {
  next: 'The shift to',
  back: 'Where the passage is repeated, the shift back to',
  on: 'On the way to the other ending, the shift to',
} as const;

const CUT_WHY: Readonly<Record<RingEnd, string>> = {
  written: 'it ends where it is written to end',
  fingerNeeded: 'its finger is needed for another note',
  handMoves: 'the hand moves to another position',
  stringUsed: 'its string is needed for another note',
  barre: 'a barre comes to lie over it',
  landed: 'a rest stroke lands on its string',
  released: 'the hand cannot hold it with what follows',
  endOfPiece: 'the piece ends',
};

export const FINDINGS: Texts<Finding> = {
  unplayable: (f) =>
    f.uids.length === 1
      ? 'No hand can play this note together with the others here; it is left out.'
      : `No hand can play these ${f.uids.length} notes together with the others here; they are left out.`,
  outside: (f) =>
    `This note lies outside the guitar, which reaches from ${f.lowest} to ${f.highest} here; it is not played.`,
  inkContradicts: () =>
    'The ink here asks for something that no hand can do together; this note is left out of the plan.',
  pluckContradicts: () =>
    'The inked letters here cannot be played together: fingers lie in order across the strings, p lowest.',
  cut: (f) => `Let go ${beats(f.lostQuarters)} early: ${CUT_WHY[f.end]}.`,
  shiftTooFast: (f) =>
    `${SHIFT_TO[f.jump ?? 'next']} this note has ${f.windowMs} ms and needs about ${f.neededMs} ms.`,
  slurFault: (f) => SLUR_FAULTS[f.fault],
  landingTooFast: (f) =>
    `After the strum the fingers have ${f.thereMs} ms to find their strings; they need about ${f.neededMs}.`,
  printedDeparture: () => 'The plan departs from the fingering that came with the file.',
};

/** A cost term as a reason beside a choice: "more …" or "less …". */
export const REASONS: Readonly<Record<LeftTermId, string>> = wordsOf(LEFT_TERMS);

type Coded = { readonly code: string };
const textFrom = <T extends Coded>(texts: Texts<T>, value: T): string =>
  (texts as unknown as Readonly<Record<string, (value: T) => string>>)[value.code]!(value);

export const importErrorText = (error: ImportError): string => textFrom(IMPORT_ERRORS, error);
export const assumptionText = (assumption: Assumption): string => textFrom(ASSUMPTIONS, assumption);
export const noticeText = (notice: Notice): string => textFrom(NOTICES, notice);
export const findingText = (finding: Finding): string => textFrom(FINDINGS, finding);
