/** Small MusicXML documents and problems for tests. Invented music. */
import { type FingeringProblem, problemOf } from '../../src/core/fingering/problem/problem';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import type { Score } from '../../src/core/score/model';

const STEPS = [
  ['C', 0],
  ['C', 1],
  ['D', 0],
  ['D', 1],
  ['E', 0],
  ['F', 0],
  ['F', 1],
  ['G', 0],
  ['G', 1],
  ['A', 0],
  ['A', 1],
  ['B', 0],
] as const;

export interface TestNote {
  readonly midi: number;
  /** In eighths, from the start of the only bar. */
  readonly onset: number;
  readonly length: number;
  readonly voice?: number;
  readonly extra?: string;
}

export const CLEF_8 = '<clef><sign>G</sign><line>2</line><clef-octave-change>-1</clef-octave-change></clef>';

/** One note element; `chord` puts it on the note before. */
export function noteXml(note: TestNote, chord = false, inner = ''): string {
  const [step, alter] = STEPS[note.midi % 12]!;
  const octave = Math.floor(note.midi / 12) - 1;
  return `<note>${chord ? '<chord/>' : ''}<pitch><step>${step}</step><alter>${alter}</alter><octave>${octave}</octave></pitch><duration>${note.length}</duration><voice>${note.voice ?? 1}</voice><type>eighth</type>${inner || (note.extra ?? '')}</note>`;
}

export function documentXml(measures: readonly string[], attributes = CLEF_8, divisions = 2): string {
  const head = `<attributes><divisions>${divisions}</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time>${attributes}</attributes>`;
  const bars = measures.map(
    (content, k) => `<measure number="${k + 1}">${k === 0 ? head : ''}${content}</measure>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>Guitar</part-name></score-part></part-list><part id="P1">${bars.join('')}</part></score-partwise>\n`;
}

/** One long bar with any notes at any places, at a tempo. Each voice of each note goes back to the start. */
export function barXml(notes: readonly TestNote[], quartersPerMinute = 90): string {
  const sound = `<sound tempo="${quartersPerMinute}"/>`;
  const placed = notes.map((note) => {
    const forward = note.onset > 0 ? `<forward><duration>${note.onset}</duration></forward>` : '';
    return `${forward}${noteXml(note)}<backup><duration>${note.onset + note.length}</duration></backup>`;
  });
  return documentXml([sound + placed.join('')]);
}

export function scoreOrThrow(xml: string): Score {
  const result = readScore(xml);
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value.score;
}

export const problemFrom = (xml: string): FingeringProblem =>
  problemOf(scoreOrThrow(xml), CONCERT_FRETBOARD, ADULT_MEDIUM);

/** Small deterministic generator (mulberry32), so that a failing seed can be run again. */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A little piece of two voices: a moving part over notes that are held. */
export function randomNotes(seed: number, moments: number): TestNote[] {
  const random = randomFrom(seed);
  const between = (least: number, most: number) => least + Math.floor(random() * (most - least + 1));
  const notes: TestNote[] = [];
  for (let k = 0; k < moments; k++) notes.push({ midi: between(57, 72), onset: k, length: 1, voice: 1 });
  let onset = 0;
  while (onset < moments) {
    const length = between(1, 3);
    notes.push({ midi: between(40, 55), onset, length, voice: 2 });
    onset += length;
  }
  return notes;
}
