import type { DrillKind } from '../../drill';
import { HEALTH } from '../../vocabulary';
import { barsWords, inTurn, metreFor, settingOf } from '../common';
import { type Cut, voicesOf } from '../cut';
import { momentsOf, type Passage } from '../passage';

const MOST = 8;

/** Source: handbook 9: "joining", last beat and first beat, and loops that stop on the change. */
export const joinsOf = (passage: Passage): DrillKind => ({
  id: 'piece-joins',
  title: `Joins of ${passage.title}, ${barsWords(passage)}`,
  trains: 'the step over each bar line, where most passages stumble',
  watch: [
    'the last beat is played towards the next bar, not to its own end',
    'where it stops, everything of the new grip already lies',
  ],
  steps:
    'bar line by bar line: the last beat and the first beat, joined or with a stop before it; each twice',
  passes: [
    ['stop, look, then go over', 4],
    ['over the line without the stop', 4],
    ['the whole passage', 2],
  ],
  caution: HEALTH.press,
  ladder: [60, 72, 84, 96],
  parameters: [
    {
      id: 'how',
      label: 'How',
      values: [
        ['joined', 'last beat and first beat joined'],
        ['stop', 'stop on the change'],
        ['bar', 'from the bar’s beginning, stop on the change'],
      ],
    },
  ],
  make: ({ how }) => {
    const cuts = cutsOf(passage, how === 'bar');
    const stretches = cuts.flatMap(({ cut, number }) =>
      [0, 1].map((round) => ({
        voices: voicesOf(passage, cut).map((voice) =>
          how === 'joined'
            ? voice
            : voice.map((event, k, all) => (k === all.length - 1 ? { ...event, says: 'stop' } : event)),
        ),
        words: round === 0 ? `into bar ${number}` : '',
      })),
    );
    return {
      ...settingOf(passage),
      metre: metreFor(Math.max(...cuts.map(({ cut }) => cut.to - cut.from))),
      quartersPerMinute: passage.quartersPerMinute,
      voices: inTurn(stretches),
    };
  },
});

interface BarCut {
  readonly cut: Cut;
  readonly number: string;
}

/** A passage of one bar goes over into itself no further than its last stroke. */
function cutsOf(passage: Passage, wholeBar: boolean): readonly BarCut[] {
  const beat = 8 / passage.metre.beatType;
  const moments = momentsOf(passage);
  const over = passage.bars.slice(1, MOST + 1).map(({ at, number }, k): BarCut => {
    const first = moments.find((moment) => moment.at >= at);
    const from = wholeBar ? passage.bars[k]!.at : at - beat;
    return { cut: { from, to: Math.max(at + beat, (first?.at ?? at) + 1) }, number };
  });
  const [only] = passage.bars;
  return over.length > 0
    ? over
    : [{ cut: { from: only!.at, to: only!.at + only!.eighths }, number: only!.number }];
}
