/** What the drills of a passage share: its key, its metre, its name, a room that a stretch fits in. */
import { roman } from '../../music/roman';
import type { DrillEvent, DrillMusic } from '../drill';
import type { Passage, PassageShift } from './passage';

/** The passage's own music settings. */
export const settingOf = ({
  fifths,
  metre,
  tuning,
  capo,
}: Passage): Pick<DrillMusic, 'fifths' | 'metre' | 'tuning' | 'settings'> => ({
  fifths,
  tuning,
  settings: { tuning: tuning.id, ...(capo > 0 && { capo }) },
  metre: { beats: metre.beats, beatType: metre.beatType },
});

const MOST_QUARTERS = 12;

/** A metre of quarters with room for so many eighths and a rest after them. */
export const metreFor = (eighths: number): DrillMusic['metre'] => ({
  beats: Math.min(MOST_QUARTERS, Math.max(2, Math.ceil(eighths / 2 + 1))),
  beatType: 4,
});

/** Voices one after the other in time: each stretch fills whole bars, with words over its beginning. */
export function inTurn(
  stretches: readonly { readonly voices: readonly (readonly DrillEvent[])[]; readonly words: string }[],
): readonly (readonly DrillEvent[])[] {
  const count = Math.max(1, ...stretches.map(({ voices }) => voices.length));
  return Array.from({ length: count }, (_, k) =>
    stretches.flatMap(({ voices, words }) => {
      const [first, ...rest] = voices[k] ?? [{ notes: [], eighths: 1 } as DrillEvent];
      // Every voice begins a bar of its own; the words stand over the first.
      return [{ ...first!, begins: { words: k === 0 ? words : '' } }, ...rest];
    }),
  );
}

export const shiftWords = (
  { fromPosition, toPosition, distanceMm, windowMs }: PassageShift,
  bar: string,
): string =>
  `bar ${bar}: ${roman(fromPosition)} to ${roman(toPosition)}, ${Math.round(distanceMm)} mm in ${Math.round(windowMs)} ms`;

/** "bar 4", "bars 4 to 7". */
export function barsWords({ bars }: Passage): string {
  const [first, last] = [bars[0]!.number, bars.at(-1)!.number];
  return first === last ? `bar ${first}` : `bars ${first} to ${last}`;
}
