import type { DrillKind } from '../../drill';
import { HEALTH } from '../../vocabulary';
import { type Block, blocksOf } from '../blocks';
import { barsWords, settingOf } from '../common';
import type { Passage } from '../passage';

/** Source: handbook 9, "blocks (arpeggio played as chords)". */
export const blocksDrillOf = (passage: Passage): DrillKind => ({
  id: 'piece-blocks',
  title: `Blocks of ${passage.title}, ${barsWords(passage)}`,
  trains: 'the grips of the passage as wholes, before the notes are spread over time',
  watch: [
    'every string of the block sounds: listen from the bass up',
    'the next block is seen before this one is let go',
  ],
  steps: 'block by block: as many notes as lie under the hand at once',
  passes: [
    ['lay it without playing', 4],
    ['lay and play', 4],
    ['play it broken again, as the piece has it', 2],
  ],
  caution: HEALTH.press,
  ladder: [60, 66, 72, 80],
  parameters: [
    {
      id: 'each',
      label: 'Each block',
      values: [
        ['1', 'once'],
        ['2', 'twice'],
      ],
    },
  ],
  make: ({ each }) => ({
    ...settingOf(passage),
    metre: { beats: 4, beatType: 4 },
    voices: [
      blocksOf(passage).flatMap(({ notes }: Block) =>
        Array.from({ length: Number(each) }, () => ({
          notes: notes.map((note) => ({ ...note, letter: null })),
          eighths: 4,
        })),
      ),
    ],
  }),
});
