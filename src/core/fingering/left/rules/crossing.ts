/** A voice against the strings: a higher pitch on a lower-pitched string. Source: handbook 13, "Voices and strings". */
import type { Fresh } from './fresh';
import { NO_PLACE, STRING_OF } from './place';
import type { OwnRule } from './rule';
import type { PlacedNotes } from './step';

interface Lying {
  readonly midi: number;
  readonly voice: string;
  readonly string: number;
  readonly fresh: boolean;
}

/** Pairs that lay there already are not counted again. */
export const crossingRule = ({ struck, laid, lying }: PlacedNotes, fresh: Fresh): OwnRule => ({
  id: 'crossing',
  code: (hand) => {
    const placed = fresh.of(hand);
    const all = [
      ...lying.map((note, h) => lyingAt(hand.placeOn(h), note, false)),
      ...[...struck, ...laid].map((note, k) => lyingAt(hand.placeOfStruck(k), note, placed.includes(k))),
    ].filter((one) => one !== null);
    return crossingsAmong(all);
  },
  charge: (code, bill) => bill.charge('crossedVoices', code),
});

/** A drone has its string, whatever moves above or below it. */
function lyingAt(
  place: number,
  { midi, voice, manner }: PlacedNotes['lying'][number],
  fresh: boolean,
): Lying | null {
  if (place === NO_PLACE || manner === 'drone') return null;
  return { midi, voice, string: STRING_OF[place]!, fresh };
}

function crossingsAmong(all: readonly Lying[]): number {
  let count = 0;
  for (const [n, a] of all.entries())
    for (const b of all.slice(0, n))
      if (a.voice === b.voice && (a.fresh || b.fresh) && (a.midi - b.midi) * (a.string - b.string) > 0)
        count++;
  return count;
}
