/** The teacher's remarks over their bars: on the desk shortened, so that the page stays a page; the copy prints them whole. */
import type { Score } from '../score/model';
import type { Mark } from './mark';

/** Longer ones are cut at a word. */
const MOST_CHARACTERS = 28;

export function remarkMarks(remarks: ReadonlyMap<string, string>, score: Score): readonly Mark[] {
  return score.measures.flatMap(({ uid, index }): Mark[] => {
    const words = remarks.get(uid);
    const first = words === undefined ? undefined : firstNoteOf(score, index);
    if (words === undefined || !first) return [];
    return [
      {
        id: `remark:${uid}`,
        kind: 'remark',
        uid: first,
        toUid: first,
        text: shortened(words),
        state: 'ink',
        below: false,
        causes: [{ code: 'decided' }],
        departs: null,
      },
    ];
  });
}

/** The highest of the first notes of a bar. */
function firstNoteOf(score: Score, measureIndex: number): string | undefined {
  const notes = score.notes.filter((note) => note.measureIndex === measureIndex && !note.grace);
  return [...notes].sort((a, b) => a.onsetTicks - b.onsetTicks || b.soundingMidi - a.soundingMidi)[0]?.uid;
}

export function shortened(words: string): string {
  const line = words.replace(/\s+/g, ' ').trim();
  if (line.length <= MOST_CHARACTERS) return line;
  const head = line.slice(0, MOST_CHARACTERS);
  const space = head.lastIndexOf(' ');
  return `${(space > MOST_CHARACTERS / 2 ? head.slice(0, space) : head).trimEnd()} …`;
}
