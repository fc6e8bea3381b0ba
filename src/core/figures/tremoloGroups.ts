/** The repeated notes of a tremolo, group by group: which stroke of its group each is. */
import type { NotatedPiece } from '../fingering/problem/problem';
import type { Figure } from './figure';
import type { NoteHand } from './thumb';

/** A stroke of a tremolo: its place in the group, counted from 0, and how many the group has. */
export interface Phase {
  readonly at: number;
  readonly of: number;
}

/** By strike; null outside of a tremolo, and for what the thumb plays in one. One note between two thumbs is a group, too. */
export function phasesOf(
  { strikes, moments }: NotatedPiece,
  figures: readonly Figure[],
  hands: readonly NoteHand[],
): readonly (Phase | null)[] {
  const phases: (Phase | null)[] = strikes.map(() => null);
  const momentOf = new Map(moments.flatMap(({ struck, index }) => struck.map((strike) => [strike, index])));
  for (const figure of figures) {
    if (figure.texture === 'pedal') singles(figure, strikes, hands, phases);
    if (figure.texture !== 'tremolo') continue;
    let group: number[] = [];
    const close = () => {
      if (group.length > 1) group.forEach((strike, at) => (phases[strike] = { at, of: group.length }));
      group = [];
    };
    for (const strike of figure.strikes) {
      const last = group.at(-1);
      const goesOn =
        last !== undefined &&
        strikes[last]!.midi === strikes[strike]!.midi &&
        momentOf.get(strike) === momentOf.get(last)! + 1 &&
        // With a bass struck beneath it a repeated note begins a group, as after one.
        moments[momentOf.get(strike)!]!.struck.length === 1;
      if (!goesOn) close();
      group.push(strike);
    }
    close();
  }
  return phases;
}

/** One pitch struck once after each note of another voice: the shortest tremolo, p i. */
function singles(
  figure: Figure,
  strikes: NotatedPiece['strikes'],
  hands: readonly NoteHand[],
  phases: (Phase | null)[],
): void {
  const own = figure.strikes.filter((strike) => hands[strike] !== 'thumb');
  const pitches = new Set(own.map((strike) => strikes[strike]!.midi));
  if (pitches.size === 1) for (const strike of own) phases[strike] = { at: 0, of: 1 };
}
