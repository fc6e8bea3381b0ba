import type { DrillEvent, DrillKind } from '../../drill';
import { ACCENTS, RHYTHM } from '../../treatments';
import { HEALTH } from '../../vocabulary';
import { barsWords, settingOf } from '../common';
import { drillNote } from '../cut';
import { momentsOf, type Passage } from '../passage';

/** Source: handbook 9, "rhythms (dotted, accents moved)". */
export const rhythmsOf = (passage: Passage): DrillKind => ({
  id: 'piece-rhythms',
  title: `Rhythms on ${passage.title}, ${barsWords(passage)}`,
  trains: 'every stroke of the passage as the quick one once, with its own fingers',
  watch: [
    'the long note is a rest for both hands; the short one is thrown to the next',
    'played the other way round, the other half of the changes becomes quick',
  ],
  steps: 'stroke by stroke, each as long as the next but for the rhythm chosen',
  passes: [
    ['long, short', 4],
    ['short, long', 4],
    ['even again', 2],
  ],
  caution: HEALTH.speed,
  ladder: [60, 72, 84, 96, 108],
  parameters: [{ ...RHYTHM, values: [...RHYTHM.values.slice(1), RHYTHM.values[0]!] }, ACCENTS],
  make: () => ({
    ...settingOf(passage),
    metre: { beats: 4, beatType: 4 },
    voices: [
      momentsOf(passage).map(({ notes }): DrillEvent => ({
        notes: notes.map((note) => drillNote(note)),
        eighths: 1,
        ...(notes.every(({ slurred }) => slurred) && { slurred: true }),
      })),
    ],
  }),
});
