import type { Pluck } from '../../../score/model';
import type { DrillEvent, DrillKind, DrillNote } from '../../drill';
import { HEALTH, single } from '../../vocabulary';
import { type Block, blocksOf } from '../blocks';
import { barsWords, settingOf } from '../common';
import type { Passage } from '../passage';

/** Orders, with the metre that a round or two of them fills. Source: handbook 6, "Formulas". */
const FORMULAS: readonly (readonly [id: string, words: string, beats: number, beatType: number])[] = [
  ['pami', 'tremolo p a m i on the highest string', 4, 4],
  ['pima', 'p i m a', 4, 4],
  ['pimami', 'p i m a m i', 6, 8],
  ['piaimi', 'p i a i m i', 6, 8],
  ['pmim', 'p m i m', 4, 4],
];

/** Source: handbook 9, "One piece is many studies: as block chords, as tremolo, with another formula". */
export const formulaOf = (passage: Passage): DrillKind => ({
  id: 'piece-formula',
  title: `Another order on ${passage.title}, ${barsWords(passage)}`,
  trains: 'the left hand of the passage under an order that goes on whatever the harmony does',
  watch: [
    'the order does not wait for the left hand: the bass finger goes down first',
    'the highest note of each group is the tune and is heard as one',
  ],
  steps: 'block by block of the passage, the order once or twice on each',
  passes: [
    ['the order on one block', 4],
    ['with the change of grip', 4],
    ['through', 2],
  ],
  caution: HEALTH.speed,
  ladder: [60, 72, 84, 96, 108],
  parameters: [
    { id: 'order', label: 'Order', values: FORMULAS.map(([id, words]) => [id, words] as const) },
    {
      id: 'times',
      label: 'On each block',
      values: [
        ['1', 'once'],
        ['2', 'twice'],
      ],
    },
  ],
  make: ({ order, times }) => {
    const [, , beats, beatType] = FORMULAS.find(([id]) => id === order)!;
    const events = blocksOf(passage).flatMap((block) =>
      Array.from({ length: Number(times) }, () => roundOf(block, order!)).flat(),
    );
    return { ...settingOf(passage), metre: { beats, beatType }, voices: [events] };
  },
});

/** The thumb has the lowest string, a the highest; a tremolo has all fingers there. */
function roundOf({ notes }: Block, order: string): readonly DrillEvent[] {
  const [bass, ...above] = notes;
  const trebles = above.length > 0 ? above : [bass!];
  return [...order].map((letter) =>
    single({
      ...(letter === 'p' ? bass! : trebleFor(trebles, order === 'pami' ? 'a' : letter)),
      letter: letter as Pluck,
    }),
  );
}

const FROM_TOP: Readonly<Record<string, number>> = { a: 1, m: 2, i: 3 };

const trebleFor = (trebles: readonly DrillNote[], letter: string): DrillNote =>
  trebles.at(-Math.min(FROM_TOP[letter]!, trebles.length))!;
