/** Whether a drill is made for a hand: how high it goes, how much it bars, how far it stretches. */
import type { DrillEvent, DrillNote } from './drill';
import type { DrillScore } from './drillScore';
import { fingertipMm } from '../instrument/fretboard';
import { pairOf } from '../instrument/handProfile';
import type { Player } from '../instrument/hands';
import { openMidi, STANDARD_TUNING } from '../instrument/tuning';

/** Null where the hand it is chosen for can play all of it; else a sentence that says what it cannot. */
export function maybeTooMuch({ music, player }: Pick<DrillScore, 'music' | 'player'>): string | null {
  const events = music.voices.flat();
  return tooHigh(events, player) ?? tooMuchBarred(events, player) ?? tooWide(events, player);
}

/** Where a place is left open: the fret of the first string, which is the lowest that there is for a high note. */
const fretOf = ({ fret, midi, string }: DrillNote): number =>
  string === null && midi !== undefined ? midi - openMidi(STANDARD_TUNING, 1) : (fret ?? 0);

const stoppedIn = ({ notes }: DrillEvent): readonly DrillNote[] =>
  notes.filter(({ fret, harmonic }) => fret !== null && fret > 0 && harmonic !== 'natural');

function tooHigh(events: readonly DrillEvent[], { hand }: Player): string | null {
  const highest = Math.max(
    0,
    ...events.flatMap(({ notes }) =>
      notes.filter(({ harmonic }) => harmonic !== 'natural').map((note) => fretOf(note)),
    ),
  );
  return highest > hand.highestFret
    ? `It goes up to fret ${highest}, and this hand plays up to ${hand.highestFret}: choose a lower position, or fewer octaves.`
    : null;
}

/** Neighbouring strings that one finger stops at once. */
function tooMuchBarred(events: readonly DrillEvent[], { hand }: Player): string | null {
  const widest = Math.max(
    0,
    ...events.map((event) => {
      const first = stoppedIn(event).filter(({ finger }) => finger === 1);
      const strings = first.map(({ string }) => string!);
      return strings.length < 2 ? 0 : Math.max(...strings) - Math.min(...strings) + 1;
    }),
  );
  return widest > hand.barreStringsAtMost
    ? `It bars ${widest} strings, and this hand ${hand.barreStringsAtMost > 1 ? `${hand.barreStringsAtMost} at most` : 'none'}: choose fewer strings.`
    : null;
}

function tooWide(events: readonly DrillEvent[], { hand, fretboard }: Player): string | null {
  for (const event of events) {
    const stopped = [...stoppedIn(event)].sort((a, b) => a.finger! - b.finger!);
    for (const [k, low] of stopped.entries()) {
      for (const high of stopped.slice(k + 1)) {
        if (low.finger === high.finger || low.finger === null || high.finger === null) continue;
        const mm =
          fingertipMm(high.fret!, fretboard.scaleLengthMm) - fingertipMm(low.fret!, fretboard.scaleLengthMm);
        const { atMostMm } = hand.reach[pairOf(low.finger, high.finger)];
        if (mm > atMostMm)
          return `${low.finger} and ${high.finger} would be ${Math.round(mm)} mm apart, and this hand reaches ${Math.round(atMostMm)}: choose a higher position.`;
      }
    }
  }
  return null;
}
