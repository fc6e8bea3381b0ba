/** A passage for the right hand as a problem, with its accepted letters by strike. */
import { type FingeringProblem, problemOf } from '../../src/core/fingering/problem/problem';
import type { Role, Strike } from '../../src/core/fingering/problem/strike';
import type { Placed } from '../../src/core/fingering/right/lattice/planRight';
import { type RightSetting, rightSettingOf } from '../../src/core/fingering/right/rules/setting';
import { PLAIN_STYLE } from '../../src/core/fingering/right/rules/style';
import type { RightWeights } from '../../src/core/fingering/right/rules/weights';
import { DEFAULT_PLAYER } from '../../src/core/instrument/hands';
import { openMidi, STANDARD_TUNING } from '../../src/core/instrument/tuning';
import type { Pluck } from '../../src/core/score/model';
import { barXml, scoreOrThrow, type TestNote } from '../../tests/helpers/music';
import type { RightPassage } from './passages';

type Row = readonly (Pluck | null)[];

export interface RightTask {
  readonly passage: RightPassage;
  readonly problem: FingeringProblem;
  readonly setting: RightSetting;
  readonly placed: Placed;
  /** Each accepted set of letters by strike; null for a slurred note. */
  readonly accepted: readonly Row[];
}

interface ReadNote {
  readonly string: number;
  readonly letter: Pluck | null;
  readonly bass: boolean;
  readonly onset: number;
  readonly length: number;
  readonly slurred: boolean;
}

const LETTERS: Readonly<Record<string, Pluck>> = { p: 'p', i: 'i', m: 'm', a: 'a', d: 'down', u: 'up' };

function read({ id }: RightPassage, row: string): readonly ReadNote[] {
  const notes: ReadNote[] = [];
  let onset = 0;
  for (const token of row.trim().split(/\s+/)) {
    const [content, count] = token.replace(/^~/, '').split('*') as [string, string | undefined];
    const length = count === undefined ? 1 : Number(count);
    if (content !== '-') {
      for (const part of content.split('+')) {
        const match = /^(_?)([1-6])([pimadu]?)$/.exec(part);
        if (!match) throw new Error(`${id}: “${part}” is no stroke`);
        notes.push({
          string: Number(match[2]),
          letter: LETTERS[match[3]!] ?? null,
          bass: match[1] === '_',
          onset,
          length,
          slurred: token.startsWith('~'),
        });
      }
    }
    onset += length;
  }
  return notes;
}

/** Voice 2 is the bass here; what else is struck is the tune, or under it. */
const roleOf = ({ voice, role }: Strike): Role => (voice === '2' ? 'bass' : role === 'bass' ? 'inner' : role);

/** @throws Error for a token that cannot be read, or rows of different strings: a mistake in the data */
export function rightTaskOf(passage: RightPassage, base?: RightWeights): RightTask {
  const rows = passage.accepted.map((row) => read(passage, row));
  const [first] = rows;
  const shape = (row: readonly ReadNote[]) => row.map(({ string, onset }) => `${string}@${onset}`).join(' ');
  if (rows.some((row) => shape(row) !== shape(first!)))
    throw new Error(`${passage.id}: rows of other strings`);
  // Eighths of a bar are the token's sixteenths: so the tempo is halved. Frets keep pitches apart from note to note.
  const notes = first!.map(({ string, bass, onset, length }, k): TestNote => ({
    midi: openMidi(STANDARD_TUNING, string) + (bass || passage.tremolo ? 0 : 1 + (k % 3)),
    onset,
    length,
    voice: bass ? 2 : 1,
  }));
  const { hand, fretboard } = DEFAULT_PLAYER;
  const score = scoreOrThrow(barXml(notes, passage.bpm * 2));
  const bare = problemOf(score, fretboard, hand, undefined, () => passage.texture ?? null);
  const problem = { ...bare, strikes: bare.strikes.map((strike) => ({ ...strike, role: roleOf(strike) })) };
  const style = {
    ...PLAIN_STYLE,
    school: passage.school ?? PLAIN_STYLE.school,
    tremolo: passage.tremolo ?? null,
  };
  const noteOf = problem.strikes.map((strike) => {
    const onset = strike.onsetTicks / (problem.ticksPerQuarter / 2);
    return notes.findIndex((note) => note.onset === onset && note.midi === strike.midi);
  });
  if (noteOf.includes(-1) || new Set(noteOf).size !== notes.length)
    throw new Error(`${passage.id}: strikes do not fit the notes`);
  return {
    passage,
    problem,
    setting: rightSettingOf(score, problem, style, { base }),
    placed: problem.moments.map(({ struck }) =>
      struck.map((strike) => {
        const { string, slurred } = first![noteOf[strike]!]!;
        return { strike, place: { string, fret: 1, finger: 1 }, slurred };
      }),
    ),
    accepted: rows.map((row) => noteOf.map((n) => row[n]!.letter)),
  };
}
