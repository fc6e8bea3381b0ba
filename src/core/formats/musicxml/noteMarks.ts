/** The `<notations>` of a note as data. Source of the elements: MusicXML 4.0, `notations`. */
import type { Harmonic, NoteTag, Pluck, PrintedMarks } from '../../score/model';
import { PLUCKS } from '../../score/model';
import { childNamed, childrenNamed, childText, type XmlElement } from './xmlTree';

export interface NoteMarks {
  readonly tieStart: boolean;
  readonly tieStop: boolean;
  readonly slurStarts: readonly string[];
  readonly slurStops: readonly string[];
  readonly slideStarts: readonly string[];
  readonly slideStops: readonly string[];
  readonly printed: PrintedMarks;
  readonly printedFret: number | null;
  readonly harmonic: Harmonic | null;
  readonly tags: readonly NoteTag[];
}

/** Elements inside articulations, ornaments, technical or notations themselves, and the tag each one gives. */
const TAGS: Readonly<Record<string, NoteTag>> = {
  staccato: 'staccato',
  staccatissimo: 'staccato',
  accent: 'accent',
  'strong-accent': 'accent',
  tenuto: 'tenuto',
  fermata: 'fermata',
  'breath-mark': 'breath',
  caesura: 'breath',
  'trill-mark': 'trill',
  mordent: 'mordent',
  'inverted-mordent': 'mordent',
  turn: 'turn',
  'inverted-turn': 'turn',
  'delayed-turn': 'turn',
  shake: 'trill',
  tremolo: 'tremolo',
  bend: 'bend',
  'wavy-line': 'vibrato',
};

export function readNoteMarks(note: XmlElement): NoteMarks {
  const notations = childrenNamed(note, 'notations').flatMap((one) => one.children);
  const groups = notations.filter((one) => ['articulations', 'ornaments', 'technical'].includes(one.name));
  const marks = [...notations, ...groups.flatMap((group) => group.children)];
  const ties = [...childrenNamed(note, 'tie'), ...notations.filter((mark) => mark.name === 'tied')];
  const tieTypes = ties.map((tie) => tie.attributes['type']);
  const numbersOf = (names: readonly string[], type: string) =>
    marks
      .filter((mark) => names.includes(mark.name) && mark.attributes['type'] === type)
      .map((mark) => `${mark.name}${mark.attributes['number'] ?? '1'}`);
  return {
    tieStart: tieTypes.includes('start') || tieTypes.includes('continue'),
    tieStop: tieTypes.includes('stop') || tieTypes.includes('continue'),
    slurStarts: numbersOf(['slur'], 'start'),
    slurStops: numbersOf(['slur'], 'stop'),
    slideStarts: numbersOf(['slide', 'glissando'], 'start'),
    slideStops: numbersOf(['slide', 'glissando'], 'stop'),
    ...readTechnical(groups),
    tags: tagsOf(note, marks, tieTypes.includes('let-ring')),
  };
}

function readTechnical(groups: readonly XmlElement[]) {
  const technical = groups.filter((group) => group.name === 'technical');
  const text = (name: string) => technical.map((one) => childText(one, name)).find((value) => value !== null);
  const numberWithin = (name: string, least: number, most: number) => {
    const value = Number(text(name) || NaN);
    return Number.isInteger(value) && value >= least && value <= most ? value : null;
  };
  const open = technical.some((one) => childNamed(one, 'open-string'));
  const pluck = text('pluck')?.toLowerCase();
  const harmonic = technical.map((one) => childNamed(one, 'harmonic')).find((one) => one !== null);
  return {
    printed: {
      finger: numberWithin('fingering', 0, 4) ?? (open ? 0 : null),
      string: numberWithin('string', 1, 6),
      pluck: PLUCKS.find((letter) => letter === pluck) ?? bowedWith(technical),
    },
    printedFret: numberWithin('fret', 0, 24),
    harmonic: harmonic ? (childNamed(harmonic, 'artificial') ? 'artificial' : 'natural') : null,
  } as const;
}

/** Strokes of a plectrum are written as those of a bow. Source: MusicXML 4.0, `down-bow`, `up-bow`. */
function bowedWith(technical: readonly XmlElement[]): Pluck | null {
  const has = (name: string) => technical.some((one) => childNamed(one, name));
  return has('down-bow') ? 'down' : has('up-bow') ? 'up' : null;
}

function tagsOf(note: XmlElement, marks: readonly XmlElement[], letRing: boolean): readonly NoteTag[] {
  const tags = new Set<NoteTag>();
  for (const mark of marks) {
    const tag = TAGS[mark.name];
    if (tag) tags.add(tag);
    const down = mark.attributes['direction'] === 'down';
    if (mark.name === 'arpeggiate') tags.add(down ? 'rollDown' : 'rollUp');
    if (mark.name === 'non-arpeggiate') tags.delete('rollUp');
    // A brush over a chord is written as a bow stroke, as those of a plectrum are; a single note is never brushed.
    if (mark.name === 'down-bow') tags.add('brushDown');
    if (mark.name === 'up-bow') tags.add('brushUp');
  }
  if (letRing) tags.add('letRing');
  if (childText(note, 'notehead') === 'x') tags.add('muffled');
  return [...tags];
}

/** A diamond head without further words means a harmonic in guitar music. Source: handbook, "Notation". */
export const hasDiamondHead = (note: XmlElement): boolean => childText(note, 'notehead') === 'diamond';
