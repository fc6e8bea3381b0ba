/**
 * After a strum, a roll or a brush the hand comes down again: the fingers of the next notes land together, and one that
 * is spare may be put on a string as a reference, where that silences nothing. Source: handbook 6 and 13.
 */
import type { Pluck } from '../../../score/model';
import type { FingeringProblem } from '../../problem/problem';
import type { Ring } from '../../../rings/ring';
import type { EffectId } from '../rules/effects';
import { RANK } from '../rules/memory';
import { findingMs } from '../rules/strokes';
import { HOME_PLACE } from '../rules/terms';
import type { RightStep } from './walk';

export interface LandedFinger {
  readonly letter: Pluck;
  readonly string: number;
}

export interface StrumLanding {
  readonly effect: EffectId;
  /** The strum, and the first stroke after it. */
  readonly momentIndex: number;
  readonly landsMoment: number;
  readonly ticks: number;
  readonly uid: string;
  /** They land together, lowest-pitched string first. */
  readonly fingers: readonly LandedFinger[];
  /** A finger with nothing to do, on a string that nothing has to sound on. */
  readonly reference: LandedFinger | null;
  /** From the last string of the strum to the first stroke after it, and what finding the strings takes. */
  readonly thereMs: number;
  readonly neededMs: number;
}

/** The next strokes that land with the first: so many, no further apart than so many ms. From memory. */
const MOST_STROKES = 4;
const TOGETHER_MS = 700;
export function strumLandings(
  problem: FingeringProblem,
  steps: readonly RightStep[],
  rings: readonly Ring[],
): readonly StrumLanding[] {
  const { moments, strikes } = problem;
  return steps.flatMap((step, k): StrumLanding[] => {
    const { effect } = step.group;
    if (effect === null || step.group.strokes.length < 2) return [];
    const next = steps.findIndex((one, j) => j > k && one.group.strokes.length > 0);
    if (next < 0 || steps[next]!.group.effect !== null || steps[next]!.sharing.pick) return [];
    const fingers = landingTogether(problem, steps, next);
    const { tick, timeMs } = moments[next]!;
    return [
      {
        effect,
        momentIndex: k,
        landsMoment: next,
        ticks: tick,
        uid: strikes[steps[next]!.group.strokes[0]!.strike]!.uids[0]!,
        fingers,
        reference: referenceBeside(problem, fingers, rings, tick),
        thereMs: Math.round(timeMs - moments[k]!.timeMs - step.sharing.tail),
        neededMs: Math.round(findingMs(effect)),
      },
    ];
  });
}

/** The fingers of the next strokes, as long as each has a string of its own. */
function landingTogether(
  { moments }: FingeringProblem,
  steps: readonly RightStep[],
  from: number,
): readonly LandedFinger[] {
  const landed = new Map<Pluck, number>();
  let strokes = 0;
  for (let k = from; k < steps.length && strokes < MOST_STROKES; k++) {
    const { group, sharing } = steps[k]!;
    if (group.strokes.length === 0) continue;
    if (group.effect !== null || moments[k]!.timeMs - moments[from]!.timeMs > TOGETHER_MS) break;
    const clash = group.strokes.some(({ string }, n) => {
      const own = landed.get(sharing.letters[n]!);
      return own !== undefined ? own !== string : [...landed.values()].includes(string);
    });
    if (clash) break;
    group.strokes.forEach(({ string }, n) => landed.set(sharing.letters[n]!, string));
    strokes++;
  }
  return [...landed].map(([letter, string]) => ({ letter, string })).sort((a, b) => b.string - a.string);
}

const FINGERS: readonly Pluck[] = ['p', 'i', 'm', 'a'];

/** p rests on a bass string, a finger on its own; only where that is in the order of the others. */
function referenceBeside(
  problem: FingeringProblem,
  fingers: readonly LandedFinger[],
  rings: readonly Ring[],
  tick: number,
): LandedFinger | null {
  const spare = FINGERS.filter((letter) => !fingers.some((one) => one.letter === letter));
  for (const letter of spare) {
    const homes = letter === 'p' ? [6, 5, 4] : [HOME_PLACE - RANK[letter]];
    const string = homes.find(
      (home) => fitsBeside(fingers, letter, home) && !mustSound(problem, rings, home, tick),
    );
    if (string !== undefined) return { letter, string };
  }
  return null;
}

const fitsBeside = (fingers: readonly LandedFinger[], letter: Pluck, string: number): boolean =>
  fingers.every((one) => one.string !== string && RANK[one.letter] < RANK[letter] === one.string > string);

/** Written to sound on over the landing, or about to be played. */
const mustSound = (
  { strikes }: FingeringProblem,
  rings: readonly Ring[],
  string: number,
  tick: number,
): boolean =>
  rings.some(
    (ring) =>
      ring.string === string &&
      ring.onsetTicks <= tick &&
      Math.max(ring.writtenEndTicks, strikes[ring.strike]!.endTicks) > tick &&
      ring.soundsUntilTicks > tick,
  );
