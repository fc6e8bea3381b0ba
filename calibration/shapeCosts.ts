/** What each fingering of a chord shape costs, term by term, for any weights. */
import { handState } from '../src/core/fingering/left/rules/handState';
import type { Placement } from '../src/core/fingering/left/rules/place';
import { chargeEntry, chargeOwn } from '../src/core/fingering/left/rules/prices';
import { recordHand } from '../src/core/fingering/left/rules/recordHand';
import type { HandSetting } from '../src/core/fingering/left/rules/rule';
import { ownRules } from '../src/core/fingering/left/rules/rules';
import type { StruckNote } from '../src/core/fingering/left/rules/step';
import { Bill } from '../src/core/fingering/left/rules/ledger';
import { LEFT_TERM_IDS, type LeftTermId } from '../src/core/fingering/left/rules/terms';
import type { LeftWeights } from '../src/core/fingering/left/rules/weights';
import { CONCERT_FRETBOARD } from '../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../src/core/instrument/hands';
import { STANDARD_TUNING } from '../src/core/instrument/tuning';
import { type ChordShape, fingeringsOf } from './shapes';

export interface PricedShape {
  readonly shape: ChordShape;
  /** By fingering: amount of each term, in the order of LEFT_TERM_IDS. */
  readonly amounts: readonly Float64Array[];
  /** Index of the data set's fingering, −1 where the rules refuse it. */
  readonly wanted: number;
  /** Whether 2, 3 or 4 bars in the data set where single fingers would do: against the handbook, no example to learn from. */
  readonly barsNeedlessly: boolean;
}

/** Amounts are read off prices at this weight, so that rounding does not matter. */
const FINE = 10_000;
const FINE_WEIGHTS = Object.fromEntries(LEFT_TERM_IDS.map((id) => [id, FINE])) as LeftWeights;
const SETTING: HandSetting = {
  fretboard: CONCERT_FRETBOARD,
  hand: ADULT_MEDIUM,
  weights: FINE_WEIGHTS,
  tuning: STANDARD_TUNING,
};
const UNMARKED = {
  manner: 'plain' as const,
  unhurried: false,
  inMove: null,
  voice: '1',
  midi: 0,
  touch: null,
  printed: { finger: null, string: null, pluck: null },
  ornamented: false,
};

export function pricedShape(shape: ChordShape): PricedShape {
  const all = fingeringsOf(shape);
  const keyOf = (places: readonly Placement[]) => places.map((place) => place.finger).join('');
  const bars = (places: readonly Placement[]) =>
    [2, 3, 4].some((finger) => places.filter((place) => place.finger === finger).length > 1);
  return {
    shape,
    barsNeedlessly: bars(shape.placements) && all.some((places) => !bars(places)),
    amounts: all.map(amountsOf),
    wanted: all.findIndex((places) => keyOf(places) === keyOf(shape.placements)),
  };
}

function amountsOf(places: readonly Placement[]): Float64Array {
  const amounts = new Float64Array(LEFT_TERM_IDS.length);
  const ledger = (term: LeftTermId, cost: number) => {
    amounts[LEFT_TERM_IDS.indexOf(term)]! += cost / FINE;
  };
  const struck = [...places.keys()];
  const hand = recordHand(handState(struck, places, null), {
    index: 0,
    tick: 0,
    timeMs: 0,
    struck,
    held: [],
    taken: [],
    laid: [],
  });
  const notes = places.map((_place, k): StruckNote => {
    const role = k === places.length - 1 ? 'melody' : k === 0 ? 'bass' : 'inner';
    return { ...UNMARKED, role };
  });
  const bill = new Bill(SETTING, ledger);
  chargeOwn(ownRules({ struck: notes, taken: [], laid: [], units: [], lying: [] }), hand, bill);
  chargeEntry(hand, bill);
  return amounts;
}

export function costsOf({ amounts }: PricedShape, weights: readonly number[]): readonly number[] {
  return amounts.map((row) => row.reduce((sum, amount, t) => sum + amount * weights[t]!, 0));
}

/** How many fingerings are cheaper than the data set's; Infinity where the rules refuse that. */
export function rankOf(shape: PricedShape, weights: readonly number[]): number {
  if (shape.wanted < 0) return Infinity;
  const costs = costsOf(shape, weights);
  return costs.filter((cost) => cost < costs[shape.wanted]! - 1e-9).length;
}
