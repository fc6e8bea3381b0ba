/** Which notes are placed at a moment, and which are struck where they lie: what lies is not paid again. */
import type { Hand } from './hand';
import { NO_PLACE } from './place';
import type { PlacedNotes } from './step';

export interface Fresh {
  /** Whether the k-th struck note lies already: it is struck again, or was laid with its grip, and the grip is whole. */
  readonly lies: (hand: Hand, k: number) => boolean;
  /** Numbers of the notes that are placed: struck ones, then laid ones. */
  readonly of: (hand: Hand) => readonly number[];
}

export function freshAmong({ struck, taken, laid, units }: PlacedNotes): Fresh {
  const isWhole = (hand: Hand, n: number) =>
    units[n]!.lying.every((h) => hand.placeOn(h) !== NO_PLACE) &&
    units[n]!.struck.every((k) => hand.placeOfStruck(k) !== NO_PLACE);
  const lies = (hand: Hand, k: number) => {
    const n = taken.indexOf(k);
    return n >= 0 && isWhole(hand, n);
  };
  const silent = laid.map((_note, k) => struck.length + k);
  const placed = [...struck.keys()].filter((k) => !taken.includes(k));
  const without = [...placed, ...silent];
  // Asked for every state of a layer: nothing is made anew where nothing lay before.
  if (taken.length === 0) return { lies: () => false, of: () => without };
  return {
    lies,
    of: (hand) => {
      const loose = taken.filter((k) => !lies(hand, k));
      return loose.length === 0 ? without : [...loose, ...without];
    },
  };
}
