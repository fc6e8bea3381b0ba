import type { DrillEvent, DrillKind } from '../../drill';
import { HEALTH } from '../../vocabulary';
import { barsWords, settingOf } from '../common';
import { drillNote } from '../cut';
import { momentsOf, type Passage } from '../passage';

/** Source: handbook 9, "right hand alone on open strings". */
export const openStringsOf = (passage: Passage): DrillKind => ({
  id: 'piece-open-strings',
  title: `Right hand of ${passage.title}, ${barsWords(passage)}`,
  trains: 'strings and letters of the passage without the left hand',
  watch: [
    'the right hand knows its strings without the tune: say the letters aloud',
    'what the left hand usually covers up is heard now: equal sound from stroke to stroke',
  ],
  steps: 'stroke by stroke as in the piece, every string open',
  passes: [
    ['the letters spoken', 4],
    ['eyes shut', 4],
    ['with the left hand again', 2],
  ],
  caution: HEALTH.speed,
  ladder: [60, 72, 84, 96, 108],
  parameters: [
    {
      id: 'rhythm',
      label: 'Rhythm',
      values: [
        ['even', 'every stroke alike'],
        ['dotted', 'long, short'],
        ['reversed', 'short, long'],
      ],
    },
  ],
  make: () => ({
    ...settingOf(passage),
    metre: { beats: 4, beatType: 4 },
    fifths: 0,
    voices: [
      momentsOf(passage)
        // The second note of a slur is no stroke.
        .map(({ notes }) => notes.filter(({ slurred }) => !slurred))
        .filter((notes) => notes.length > 0)
        .map((notes): DrillEvent => ({
          notes: notes.map((note) => {
            const { string, letter } = drillNote(note);
            return { string, letter, fret: 0, finger: 0 };
          }),
          eighths: 1,
        })),
    ],
  }),
});
