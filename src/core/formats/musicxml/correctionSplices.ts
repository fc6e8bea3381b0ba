/**
 * The teacher's corrections as edits of the document: for the engraver, and for an export that carries them.
 * Without corrections there are none, and the export inserts only.
 */
import type { NoteCorrection } from '../../score/corrections';
import { type Pitch, midiOf } from '../../music/pitch';
import { transposedKey } from '../../music/transpose';
import { slurSourceOf } from '../../score/slurCorrections';
import { maybeValue } from '../written/values';
import { fraction } from '../../music/fraction';
import type { NoteEvent, PartEvents } from './readEvents';
import type { ScoreDocument } from './readScore';
import type { Splice } from './splice';
import { childNamed, childrenNamed, childText, type XmlElement } from './xmlTree';

export interface CorrectedNotation {
  readonly splices: readonly Splice[];
  /** Uids of notes whose accidental is decided here; true where one is drawn. */
  readonly accidentals: ReadonlyMap<string, boolean>;
}

/**
 * @param corrections by note uid; `document` was read with them
 * @param everyAccidental for a part that has none of its own: tablature shown as notation
 */
export function correctionSplices(
  document: ScoreDocument,
  corrections: ReadonlyMap<string, NoteCorrection>,
  everyAccidental = false,
): CorrectedNotation {
  const splices: Splice[] = [];
  const { events } = document;
  const isMoved = events.transposedBy !== 0;
  const isAsked = (note: NoteEvent) =>
    everyAccidental || isMoved || corrections.get(note.uid)?.pitch !== undefined;
  if (isMoved) splices.push(...keySplices(document));
  const accidentals = accidentalsAround(events, isAsked);
  for (const note of events.notes) {
    const wanted = corrections.get(note.uid);
    const sign = accidentals.get(note.uid);
    if (sign !== undefined) splices.push(...accidentalSplices(note, sign));
    if (isMoved || wanted?.pitch) splices.push(replaceChild(note.element, 'pitch', pitchXml(note.pitch)));
    if (!wanted) continue;
    if (wanted.voice) splices.push(...voiceSplices(note.element, wanted.voice));
    if (wanted.staccato !== undefined) splices.push(...staccatoSplices(note.element, wanted.staccato));
    if (wanted.length) splices.push(...lengthSplices(document, note));
    if (wanted.slur !== undefined) splices.push(...slurSplices(document, note, wanted.slur));
    if (wanted.tie !== undefined) splices.push(...tieSplices(events, note, wanted.tie));
  }
  return { splices, accidentals: new Map([...accidentals].map(([uid, sign]) => [uid, sign !== null])) };
}

/** The signatures of a part that stands at another pitch. */
function keySplices({ part, events }: ScoreDocument): Splice[] {
  const keys = childrenNamed(part, 'measure')
    .flatMap((measure) => childrenNamed(measure, 'attributes'))
    .flatMap((attributes) => childrenNamed(attributes, 'key'));
  return keys
    .filter((key) => childNamed(key, 'fifths'))
    .map((key) => {
      const fifths = transposedKey(Number(childText(key, 'fifths')), events.transposedBy);
      return replaceChild(key, 'fifths', `<fifths>${fifths}</fifths>`);
    });
}

const insertion = (at: number, insert: string): Splice => ({ at, remove: 0, insert });

const removal = (element: XmlElement): Splice => ({
  at: element.start,
  remove: element.end - element.start,
  insert: '',
});

function replaceChild(note: XmlElement, name: string, insert: string): Splice {
  const child = childNamed(note, name)!;
  return { at: child.start, remove: child.end - child.start, insert };
}

const pitchXml = ({ step, alter, octave }: Pitch) =>
  `<pitch><step>${step}</step>${alter ? `<alter>${alter}</alter>` : ''}<octave>${octave}</octave></pitch>`;

/** In a note, these stand after its accidental. Source: MusicXML 4.0, `note`. */
const AFTER_ACCIDENTAL = new Set([
  'time-modification',
  'stem',
  'notehead',
  'notehead-text',
  'staff',
  'beam',
  'notations',
  'lyric',
  'play',
  'listen',
]);

/** Where an accidental, or in `before` another list of followers, belongs in a note. */
export function placeBefore(note: XmlElement, followers: ReadonlySet<string> = AFTER_ACCIDENTAL): number {
  const later = note.children.find((child) => followers.has(child.name));
  return later ? later.start : note.closeStart;
}

const SIGN_NAMES: Readonly<Record<string, string>> = {
  '-2': 'flat-flat',
  '-1': 'flat',
  '0': 'natural',
  '1': 'sharp',
  '2': 'double-sharp',
};

function accidentalSplices(note: NoteEvent, sign: string | null): Splice[] {
  const old = childNamed(note.element, 'accidental');
  const xml = sign === null ? '' : `<accidental>${sign}</accidental>`;
  if (old) return [{ ...removal(old), insert: xml }];
  return xml ? [insertion(placeBefore(note.element), xml)] : [];
}

/** The accidentals on the lines of a bar that hold an asked note, by the usual rule: key, then what came before. */
function accidentalsAround(
  events: PartEvents,
  isAsked: (note: NoteEvent) => boolean,
): Map<string, string | null> {
  const signs = new Map<string, string | null>();
  const lineOf = (note: NoteEvent) => `${note.measureIndex}:${note.pitch.step}${note.pitch.octave}`;
  const lines = new Map<string, NoteEvent[]>();
  for (const note of events.notes) if (isAsked(note)) lines.set(lineOf(note), []);
  if (lines.size === 0) return signs;
  for (const note of events.notes) lines.get(lineOf(note))?.push(note);
  for (const here of lines.values()) {
    let current: number | null = null;
    for (const note of here.sort((a, b) => a.onsetTicks - b.onsetTicks)) {
      current ??= keyAlter(events, note);
      const { alter } = note.pitch;
      signs.set(note.uid, alter === current || note.tieStop ? null : (SIGN_NAMES[String(alter)] ?? null));
      current = alter;
    }
  }
  return signs;
}

const SHARPS = 'FCGDAEB';

function keyAlter(events: PartEvents, note: NoteEvent): number {
  const fifths = events.keys.findLast((key) => key.tick <= note.onsetTicks)?.fifths ?? 0;
  const order = fifths > 0 ? SHARPS : [...SHARPS].reverse().join('');
  return order.slice(0, Math.abs(fifths)).includes(note.pitch.step) ? Math.sign(fifths) : 0;
}

const AFTER_VOICE = new Set(['type', 'dot', 'accidental', ...AFTER_ACCIDENTAL]);

function voiceSplices(note: XmlElement, voice: string): Splice[] {
  const xml = `<voice>${voice.replace(/&/g, '&amp;').replace(/</g, '&lt;')}</voice>`;
  return childNamed(note, 'voice')
    ? [replaceChild(note, 'voice', xml)]
    : [insertion(placeBefore(note, AFTER_VOICE), xml)];
}

const AFTER_NOTATIONS = new Set(['lyric', 'play', 'listen']);

function notationsWith(note: XmlElement, xml: string): Splice {
  return insertion(placeBefore(note, AFTER_NOTATIONS), `<notations>${xml}</notations>`);
}

function staccatoSplices(note: XmlElement, wanted: boolean): Splice[] {
  const present = childrenNamed(note, 'notations')
    .flatMap((one) => childrenNamed(one, 'articulations'))
    .flatMap((one) => one.children)
    .filter((one) => /^staccat/.test(one.name));
  if (!wanted) return present.map(removal);
  return present.length > 0 ? [] : [notationsWith(note, '<articulations><staccato/></articulations>')];
}

/** The cursor of the bar stays where it was: what is gained or lost is walked after the note. */
function lengthSplices(document: ScoreDocument, note: NoteEvent): Splice[] {
  const { element } = note;
  const { ticksPerQuarter } = document.events;
  const old = childNamed(element, 'duration')!;
  const written = Number(old.text);
  const quarters = fraction(note.durationTicks, ticksPerQuarter);
  const perQuarter = divisionsAt(document.part, element);
  // A length that the bar's divisions cannot give is written in finer ones, for this note alone.
  const finer = fraction(perQuarter * quarters.num, quarters.den).den;
  const duration = (finer * perQuarter * quarters.num) / quarters.den;
  const splices: Splice[] = [
    { at: old.start, remove: old.end - old.start, insert: `<duration>${duration}</duration>` },
    ...inDivisions(element, finer, perQuarter),
  ];
  const value = maybeValue(quarters);
  if (value) splices.push(...valueSplices(element, value));
  const step = finer * written - duration;
  if (!childNamed(element, 'chord') && step !== 0) {
    const name = step > 0 ? 'forward' : 'backup';
    const xml = `<${name}><duration>${Math.abs(step)}</duration></${name}>`;
    splices.push(
      insertion(
        endOfChord(document.part, element),
        finer === 1 ? xml : divisionsXml(finer * perQuarter) + xml + divisionsXml(perQuarter),
      ),
    );
  }
  return splices;
}

const divisionsXml = (divisions: number) => `<attributes><divisions>${divisions}</divisions></attributes>`;

const inDivisions = (element: XmlElement, finer: number, perQuarter: number): Splice[] =>
  finer === 1
    ? []
    : [
        insertion(element.start, divisionsXml(finer * perQuarter)),
        insertion(element.end, divisionsXml(perQuarter)),
      ];

function valueSplices(
  element: XmlElement,
  value: { readonly type: string; readonly dots: number },
): Splice[] {
  const xml = `<type>${value.type}</type>${'<dot/>'.repeat(value.dots)}`;
  const type = childNamed(element, 'type');
  const gone = [...childrenNamed(element, 'dot'), ...childrenNamed(element, 'time-modification')];
  return [
    type
      ? { at: type.start, remove: type.end - type.start, insert: xml }
      : insertion(placeBefore(element, new Set(['accidental', ...AFTER_ACCIDENTAL])), xml),
    ...gone.map(removal),
    ...childrenNamed(element, 'beam').map(removal),
  ];
}

function divisionsAt(part: XmlElement, note: XmlElement): number {
  let divisions = 1;
  for (const measure of childrenNamed(part, 'measure')) {
    for (const child of measure.children) {
      if (child === note) return divisions;
      if (child.name === 'attributes') divisions = Number(childText(child, 'divisions') ?? divisions);
    }
  }
  return divisions;
}

function endOfChord(part: XmlElement, note: XmlElement): number {
  const siblings = childrenNamed(part, 'measure').find((one) => one.children.includes(note))!.children;
  let k = siblings.indexOf(note) + 1;
  while (siblings[k]?.name === 'note' && childNamed(siblings[k]!, 'chord')) k++;
  return siblings[k - 1]!.end;
}

function tieSplices(events: PartEvents, note: NoteEvent, wanted: boolean): Splice[] {
  const next = events.notes.find(
    (other) =>
      other.onsetTicks === note.onsetTicks + note.durationTicks && midiOf(other.pitch) === midiOf(note.pitch),
  );
  if (!next) return [];
  return [...tieEnd(note.element, 'start', wanted), ...tieEnd(next.element, 'stop', wanted)];
}

/** Beyond the numbers that files use, so that a slur of the file is never met. */
const SLUR_NUMBER = 6;

function slurSplices({ score, events }: ScoreDocument, note: NoteEvent, wanted: boolean): Splice[] {
  const target = score.notes.find(({ uid }) => uid === note.uid);
  const source = target && slurSourceOf(score.notes, target);
  const from = source && events.notes.find(({ uid }) => uid === source.uid);
  if (!from) return [];
  const starts = slursOf(from.element, 'start');
  const stops = slursOf(note.element, 'stop');
  if (!wanted) return starts.length === 1 && stops.length === 1 ? [...starts, ...stops].map(removal) : [];
  if (stops.length > 0) return [];
  const end = (type: string) => `<slur type="${type}" number="${SLUR_NUMBER}"/>`;
  return [notationsWith(from.element, end('start')), notationsWith(note.element, end('stop'))];
}

const slursOf = (note: XmlElement, type: string) =>
  childrenNamed(note, 'notations')
    .flatMap((one) => childrenNamed(one, 'slur'))
    .filter((one) => one.attributes['type'] === type);

const AFTER_TIE = new Set(['instrument', 'footnote', 'level', 'voice', ...AFTER_VOICE]);

function tieEnd(note: XmlElement, type: 'start' | 'stop', wanted: boolean): Splice[] {
  const ties = childrenNamed(note, 'tie').filter((one) => one.attributes['type'] === type);
  const drawn = childrenNamed(note, 'notations')
    .flatMap((one) => childrenNamed(one, 'tied'))
    .filter((one) => one.attributes['type'] === type);
  if (!wanted) return [...ties, ...drawn].map(removal);
  return [
    ...(ties.length > 0 ? [] : [insertion(placeBefore(note, AFTER_TIE), `<tie type="${type}"/>`)]),
    ...(drawn.length > 0 ? [] : [notationsWith(note, `<tied type="${type}"/>`)]),
  ];
}
