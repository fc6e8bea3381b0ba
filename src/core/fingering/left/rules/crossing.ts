/** A voice against the strings: a higher pitch on a lower-pitched string. Source: handbook 13, "Voices and strings". */
import type { Fresh } from './fresh';
import type { Hand } from './hand';
import { NO_PLACE, STRING_OF } from './place';
import type { OwnRule } from './rule';
import type { PlacedNotes } from './step';

/** A note that can cross others: no drone, which has its string, whatever moves above or below it. */
interface Voiced {
  readonly midi: number;
  readonly voice: string;
  /** Of those that are placed: number of the note; −1 for what lies. */
  readonly k: number;
  readonly placeIn: (hand: Hand) => number;
}

/** Pairs that lay there already are not counted again. */
export function crossingRule({ struck, laid, lying }: PlacedNotes, fresh: Fresh): OwnRule {
  const notes: readonly Voiced[] = [
    ...lying.map((note, h) => ({ ...note, k: -1, placeIn: (hand: Hand) => hand.placeOn(h) })),
    ...[...struck, ...laid].map((note, k) => ({
      ...note,
      k,
      placeIn: (hand: Hand) => hand.placeOfStruck(k),
    })),
  ].filter(({ manner }) => manner !== 'drone');
  const pairs = notes.flatMap((a, n) =>
    notes
      .slice(0, n)
      .filter((b) => a.voice === b.voice && a.midi !== b.midi && (a.k >= 0 || b.k >= 0))
      .map((b) => (a.midi > b.midi ? { high: a, low: b } : { high: b, low: a })),
  );
  return {
    id: 'crossing',
    code: (hand) => (pairs.length === 0 ? 0 : crossingsAmong(pairs, hand, fresh.of(hand))),
    charge: (code, bill) => bill.charge('crossedVoices', code),
  };
}

function crossingsAmong(
  pairs: readonly { readonly high: Voiced; readonly low: Voiced }[],
  hand: Hand,
  placed: readonly number[],
): number {
  let count = 0;
  for (const { high, low } of pairs) {
    const [above, below] = [high.placeIn(hand), low.placeIn(hand)];
    if (above === NO_PLACE || below === NO_PLACE || STRING_OF[above]! <= STRING_OF[below]!) continue;
    if (placed.includes(high.k) || placed.includes(low.k)) count++;
  }
  return count;
}
