/** What goes against a letter, in a teacher's terms: from the difference of two best plans of the right hand. */
import type { Texture } from '../../../figures/texture';
import type { Pluck } from '../../../score/model';
import type { FingeringProblem } from '../../problem/problem';
import type { Played } from '../rules/memory';
import type { RightSetting } from '../rules/setting';
import { displacementStrings, placeOfSet } from '../rules/strokeCost';
import { RIGHT_TERMS, type RightTermId } from '../rules/terms';
import { modeNumber } from '../rules/modes';
import { placedAt, strokeGroup } from '../rules/strokes';
import { isSameAfter, rightStep, type RightStep } from './walk';
import { sameAt } from '../../left/explain/explain';
import type { HandState } from '../../left/rules/handState';

/**
 * crosses: against the hand, from a string to another. again: the same finger twice. moves: the set of fingers, by so
 * many strings. figure: what the letter is part of. strokeTerm: any other. `here`: at the note that is asked about.
 */
export type StrokeReason = { readonly ticks: number; readonly here: boolean } & (
  | {
      readonly code: 'crosses';
      readonly letter: Pluck;
      readonly from: number;
      readonly to: number;
      readonly ms: number;
    }
  | { readonly code: 'again'; readonly letter: Pluck; readonly ms: number }
  | { readonly code: 'moves'; readonly strings: number; readonly ms: number }
  | {
      readonly code: 'figure';
      readonly texture: Texture;
      /** The letters that go round; empty where none do. */
      readonly formula: readonly string[];
      /** The bar before is played alike. */
      readonly asBefore: boolean;
    }
  | { readonly code: 'strokeTerm'; readonly term: RightTermId; readonly difference: number }
);

const MOST_REASONS = 2;
const LEAST_DIFFERENCE = 3;

export interface StrokesWalked {
  readonly states: readonly HandState[];
  readonly steps: readonly RightStep[];
  /** By moment: what it adds, term by term. */
  readonly ledgers: readonly ReadonlyMap<RightTermId, number>[];
}

/** @param known another walk: what is the same in both is taken from it */
export function walkedWithLedgers(
  problem: FingeringProblem,
  setting: RightSetting,
  { states, played }: { readonly states: readonly HandState[]; readonly played: readonly Played[] },
  known: StrokesWalked | null = null,
): StrokesWalked {
  const steps: RightStep[] = [];
  const ledgers: ReadonlyMap<RightTermId, number>[] = [];
  problem.moments.forEach((moment, k) => {
    const last = steps.at(-1) ?? null;
    const before = known?.steps[k];
    const isSame =
      before &&
      sameAt(states, known.states, k) &&
      isPlayed(before, played[k]!) &&
      (last === (known.steps[k - 1] ?? null) || isSameAfter(before, last, problem, k));
    if (isSame) {
      steps.push(before);
      ledgers.push(known.ledgers[k]!);
      return;
    }
    const ledger = new Map<RightTermId, number>();
    const placed = placedAt(problem, moment, states[k - 1] ?? null, states[k]!);
    const group = strokeGroup(problem, setting, k, placed);
    steps.push(
      rightStep(
        problem,
        k,
        last,
        { group, placed, played: played[k]! },
        (term, cost) => void ledger.set(term, (ledger.get(term) ?? 0) + cost),
      ),
    );
    ledgers.push(ledger);
  });
  return { states, steps, ledgers };
}

const isPlayed = ({ sharing }: RightStep, { letters, mode }: Played): boolean =>
  modeNumber(sharing.mode) === modeNumber(mode) && sharing.letters.join() === letters.join();

interface Difference {
  amount: number;
  worst: number;
  worstBy: number;
  term: RightTermId;
}

/** What makes `other` dearer than `best`, the largest differences first; `k`: the moment that is asked about. */
export function strokeReasons(
  problem: FingeringProblem,
  best: StrokesWalked,
  other: StrokesWalked,
  k: number,
): readonly StrokeReason[] {
  const differences = new Map<string, Difference>();
  other.ledgers.forEach((totals, j) => {
    if (totals === best.ledgers[j]) return;
    for (const term of new Set([...totals.keys(), ...best.ledgers[j]!.keys()])) {
      const more = (totals.get(term) ?? 0) - (best.ledgers[j]!.get(term) ?? 0);
      if (more === 0) continue;
      const group = RIGHT_TERMS[term].group ?? term;
      const known = differences.get(group) ?? { amount: 0, worst: j, worstBy: -Infinity, term };
      known.amount += more;
      // Of places that are equally bad the one that is asked about is meant.
      if (more > known.worstBy || (more === known.worstBy && j === k))
        Object.assign(known, { worst: j, worstBy: more, term });
      differences.set(group, known);
    }
  });
  return [...differences.values()]
    .filter(({ amount }) => amount >= LEAST_DIFFERENCE)
    .sort((x, y) => y.amount - x.amount)
    .slice(0, MOST_REASONS)
    .map(({ term, worst, amount }) => ({
      ticks: problem.moments[worst]!.tick,
      here: worst === k,
      ...eventAt(other.steps[worst]!, term, amount),
    }));
}

function eventAt(step: RightStep, term: RightTermId, amount: number): StrokeEvent {
  const generic = { code: 'strokeTerm', term, difference: amount } as const;
  switch (RIGHT_TERMS[term].group) {
    case 'moves':
      return crossingOf(step) ?? generic;
    case 'again':
      return repeatOf(step) ?? generic;
    default:
      return generic;
  }
}

type Distributive<T> = T extends unknown ? Omit<T, 'ticks' | 'here'> : never;
type StrokeEvent = Distributive<StrokeReason>;

/** The move of the fingers' set into a group; a single finger after a single one crosses. Null where it stays. */
export function crossingOf({ earlier, sharing, group, timeMs }: RightStep): StrokeEvent | null {
  const last = earlier.fingers?.sharing.fingers;
  const now = sharing.fingers;
  if (!last || !now) return null;
  const strings = displacementStrings(placeOfSet(last), placeOfSet(now));
  if (strings === 0) return null;
  const ms = timeMs - earlier.fingers!.timeMs;
  if (last.string === 0 || now.string === 0 || last.string === now.string)
    return { code: 'moves', strings: Math.round(10 * strings) / 10, ms };
  const letter = sharing.letters[group.strokes.findIndex(({ string }) => string === now.string)]!;
  return { code: 'crosses', letter, from: last.string, to: now.string, ms };
}

/** A finger, or p, that plays twice in a row: nothing else has been played between. */
export function repeatOf({ earlier, sharing, timeMs }: RightStep): StrokeEvent | null {
  const { fingers, thumb } = earlier;
  const now = sharing.fingers;
  const sinceFingers = !thumb || (fingers && fingers.timeMs >= thumb.timeMs);
  if (now && fingers && sinceFingers && fingers.sharing.fingers!.bits & now.bits) {
    const again = fingers.sharing.fingers!.bits & now.bits;
    const letter = sharing.letters.find((one) => again & (1 << ['i', 'm', 'a', 'c'].indexOf(one)));
    return { code: 'again', letter: letter ?? 'i', ms: timeMs - fingers.timeMs };
  }
  const sinceThumb = !fingers || (thumb && thumb.timeMs >= fingers.timeMs);
  return thumb && sharing.thumb && sinceThumb
    ? { code: 'again', letter: 'p', ms: timeMs - thumb.timeMs }
    : null;
}
