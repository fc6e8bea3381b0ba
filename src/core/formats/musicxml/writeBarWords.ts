/**
 * Chords, letters of the form, remarks and counting written into the imported document by insertion only. Source of the
 * elements and their order: MusicXML 4.0, `harmony`, `rehearsal`, `words`, `lyric`.
 */
import { maybeChord, pitchClassName } from '../../survey/chords';
import { uidsOf } from './readEvents';
import type { ScoreDocument } from './readScore';
import type { Splice } from './splice';
import { childrenNamed, type XmlElement } from './xmlTree';

/** What is said of a bar; null where nothing is. */
export interface BarWords {
  readonly chord: string | null;
  readonly form: string | null;
  readonly remark: string | null;
}

export interface SaidWords {
  /** By index of the bar. */
  readonly bars: ReadonlyMap<number, BarWords>;
  /** What is counted, by the note that it is written under. */
  readonly counting: ReadonlyMap<string, string>;
}

export function wordSplices(document: ScoreDocument, { bars, counting }: SaidWords): readonly Splice[] {
  const measures = childrenNamed(document.part, 'measure');
  const inBars = [...bars].flatMap(([index, words]) => {
    const measure = measures[index];
    return measure ? barSplices(measure, words) : [];
  });
  const under = [...uidsOf(document.part, document.uids)].flatMap(([note, uid]) => {
    const syllable = counting.get(uid);
    return syllable === undefined ? [] : [lyricSplice(note, syllable)];
  });
  return [...inBars, ...under];
}

/** Before everything that sounds, after what the bar says of clef, key and metre. */
function barSplices(measure: XmlElement, { chord, form, remark }: BarWords): readonly Splice[] {
  const first = measure.children.find(({ name }) => SOUNDING.includes(name));
  if (!first) return [];
  const parts = [
    form === null ? '' : direction(`<rehearsal>${escaped(form)}</rehearsal>`),
    remark === null ? '' : direction(`<words>${escaped(remark)}</words>`),
    chord === null ? '' : harmony(chord),
  ];
  const insert = parts.join('');
  return insert === '' ? [] : [{ at: first.start, remove: 0, insert }];
}

const SOUNDING: readonly string[] = ['note', 'backup', 'forward', 'direction', 'harmony'];

const direction = (content: string) =>
  `<direction placement="above"><direction-type>${content}</direction-type></direction>`;

/** Kinds of MusicXML that are called otherwise than the survey's chords. */
const KINDS: Readonly<Record<string, string>> = { 'dominant-seventh': 'dominant' };

/** A name that is no chord of the table is written as words. */
function harmony(name: string): string {
  const chord = maybeChord(name);
  if (!chord) return direction(`<words>${escaped(name)}</words>`);
  const flats = name.includes('b');
  const { root, bass, quality } = chord;
  const kind = `<kind>${KINDS[quality.id] ?? quality.id}</kind>`;
  const over = bass === root ? '' : `<bass>${pitch('bass', pitchClassName(bass, flats))}</bass>`;
  return `<harmony><root>${pitch('root', pitchClassName(root, flats))}</root>${kind}${over}</harmony>`;
}

function pitch(of: 'root' | 'bass', name: string): string {
  const alter = name.endsWith('#') ? 1 : name.length > 1 ? -1 : 0;
  const step = `<${of}-step>${name[0]!}</${of}-step>`;
  return alter === 0 ? step : `${step}<${of}-alter>${alter}</${of}-alter>`;
}

/** Lines of a song text are numbered from 1: the counting stands under all of them. */
const COUNTING_LINE = 9;

function lyricSplice(note: XmlElement, syllable: string): Splice {
  const later = note.children.find(({ name }) => name === 'play' || name === 'listen');
  return {
    at: later ? later.start : note.closeStart,
    remove: 0,
    insert: `<lyric number="${COUNTING_LINE}" placement="below"><syllabic>single</syllabic><text>${escaped(syllable)}</text></lyric>`,
  };
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
