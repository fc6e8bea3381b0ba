import type { Pluck } from '../../score/model';
import { CHORD_ROW, CHORD_SHAPES, type ChordShape, maybeChordRow, placeOn } from '../chordShapes';
import type { DrillEvent, DrillKind } from '../drill';
import { ACCENTS, PICK } from '../treatments';
import { HEALTH, single } from '../vocabulary';

const ROUNDS = 2;

/** Letters of one round, by the metre that it fills. Source: handbook 6 and 9, common practice. */
const PATTERNS: Readonly<
  Record<string, { readonly letters: readonly Pluck[]; readonly metre: readonly [number, number] }>
> = {
  pima: { letters: ['p', 'i', 'm', 'a'], metre: [4, 4] },
  pimami: { letters: ['p', 'i', 'm', 'a', 'm', 'i'], metre: [3, 4] },
  pimami6: { letters: ['p', 'i', 'm', 'a', 'm', 'i'], metre: [6, 8] },
  piaimi: { letters: ['p', 'i', 'a', 'i', 'm', 'i'], metre: [6, 8] },
  pamiami: { letters: ['p', 'a', 'm', 'i', 'a', 'm', 'i', 'm'], metre: [4, 4] },
};
const FINGER_STRING: Readonly<Record<string, number>> = { i: 3, m: 2, a: 1 };

export const CHORD_PATTERNS: DrillKind = {
  id: 'chord-patterns',
  title: 'Chords under a pattern',
  trains: 'one order kept over a row of chords, and the change of grip that does not stop it',
  watch: [
    'the new grip goes down as a shape, not finger by finger; the finger that comes first decides',
    'p goes to the string of the chord’s lowest note without a look',
    'the last stroke before the change is as long as the others',
  ],
  steps: 'chord by chord as named, the pattern twice on each',
  passes: [
    ['the changes alone, without the right hand', 4],
    ['the pattern on open strings', 4],
    ['both, slower than is comfortable', 2],
  ],
  caution: HEALTH.speed,
  ladder: [60, 69, 80, 92, 104],
  parameters: [
    CHORD_ROW,
    {
      id: 'pattern',
      label: 'Pattern',
      values: [
        ['pima', 'p i m a in 4/4'],
        ['pimami', 'p i m a m i in 3/4'],
        ['pimami6', 'p i m a m i in 6/8'],
        ['piaimi', 'p i a i m i in 6/8'],
        ['pamiami', 'p a m i a m i m in 4/4'],
      ],
    },
    ACCENTS,
    PICK,
  ],
  make: ({ chords, pattern }) => {
    const { letters, metre } = PATTERNS[pattern!]!;
    const [beats, beatType] = metre;
    const rounds = (beats * 8) / beatType / letters.length;
    const events = maybeChordRow(chords!)!.flatMap((name) =>
      Array.from({ length: Math.max(1, ROUNDS * rounds) }, () =>
        letters.map((letter) => stroke(CHORD_SHAPES[name]!, letter)),
      ).flat(),
    );
    return { voices: [events], fifths: 0, metre: { beats, beatType } };
  },
};

function stroke(shape: ChordShape, letter: Pluck): DrillEvent {
  const string = letter === 'p' ? shape.bass : FINGER_STRING[letter]!;
  return single({ ...placeOn(shape, string), letter });
}
