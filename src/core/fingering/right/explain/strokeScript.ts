/**
 * What the right hand does, step by step: which fingers are planted when, what they strike, when they open again.
 * Fingers that go up the strings one after the other are planted at once, on the stroke before the first of them; going
 * down, each as the one before it plays; none on a string that has to ring. Two teachings of reopening: on the thumb's
 * stroke only the next finger goes back, or all of them together. Source: handbook, "Script of the hand".
 */
import type { Pluck } from '../../../score/model';
import type { FingeringProblem } from '../../problem/problem';
import type { Ring } from '../../../rings/ring';
import { fingerOrder } from '../rules/effects';
import { RANK } from '../rules/memory';
import type { RightStep } from './walk';

export interface StrokeAction {
  readonly momentIndex: number;
  readonly ticks: number;
  readonly kind: 'plant' | 'stroke' | 'strum' | 'reopen';
  readonly letters: readonly Pluck[];
  /** By letter; empty for fingers that open, all of them from the lowest-pitched for a strum. */
  readonly strings: readonly number[];
}

interface Played {
  readonly momentIndex: number;
  readonly letters: readonly Pluck[];
  readonly strings: readonly number[];
  /** All strings at once with the fingers in `letters` one after the other; afterwards the hand is away from them. */
  readonly strum: boolean;
}

const FINGERS = new Set<Pluck>(['i', 'm', 'a', 'c']);

export function strokeScript(
  problem: FingeringProblem,
  steps: readonly RightStep[],
  rings: readonly Ring[],
): readonly StrokeAction[] {
  const played = steps.flatMap(({ group, sharing }, momentIndex): Played[] => {
    if (group.strokes.length === 0 || sharing.pick) return [];
    const strum = sharing.away;
    const letters = strum ? fingerOrder(group.effect, sharing.letters) : sharing.letters;
    return [{ momentIndex, letters, strings: group.strokes.map(({ string }) => string), strum }];
  });
  const planted = new Set<number>();
  const open = new Set<Pluck>();
  const actions: StrokeAction[] = [];
  played.forEach((now, n) => {
    const { momentIndex } = now;
    const ticks = problem.moments[momentIndex]!.tick;
    const add = (kind: StrokeAction['kind'], letters: readonly Pluck[], strings: readonly number[]) => {
      if (letters.length > 0) actions.push({ momentIndex, ticks, kind, letters, strings });
    };
    add(now.strum ? 'strum' : 'stroke', now.letters, now.strings);
    if (now.strum) open.clear();
    else now.letters.forEach((letter) => FINGERS.has(letter) && open.add(letter));
    const { reopening } = steps[momentIndex]!.group.manner.style;
    const next = played[n + 1];
    if (!now.strum && now.letters.includes('p') && now.letters.length === 1) {
      const back =
        reopening === 'together' ? [...open] : [...open].filter((letter) => next?.letters.includes(letter));
      add('reopen', back, []);
      back.forEach((letter) => open.delete(letter));
    }
    const fingers = plantedAfter(problem, played, n, rings, planted);
    fingers.forEach(({ at, letter }) => {
      planted.add(at);
      open.delete(letter);
    });
    add(
      'plant',
      fingers.map(({ letter }) => letter),
      fingers.map(({ string }) => string),
    );
  });
  return actions;
}

/** The fingers that go to their strings as stroke n is played: the next one, and what goes on up the strings from it. */
function plantedAfter(
  problem: FingeringProblem,
  played: readonly Played[],
  n: number,
  rings: readonly Ring[],
  planted: ReadonlySet<number>,
): readonly { readonly at: number; readonly letter: Pluck; readonly string: number }[] {
  const fingers: { at: number; letter: Pluck; string: number }[] = [];
  const { tick } = problem.moments[played[n]!.momentIndex]!;
  for (let at = n + 1; at < played.length; at++) {
    const { letters, strings, strum } = played[at]!;
    const before = fingers.at(-1);
    const letter = letters[0]!;
    const string = strings[0]!;
    if (strum || letters.length > 1 || !FINGERS.has(letter)) break;
    // Up: to a higher-pitched string by a higher finger.
    if (before && (string >= before.string || RANK[letter] <= RANK[before.letter])) break;
    if (mustRing(problem, rings, string, tick) || played[n]!.strings.includes(string)) break;
    if (!planted.has(at)) fingers.push({ at, letter, string });
  }
  return fingers;
}

const mustRing = (problem: FingeringProblem, rings: readonly Ring[], string: number, tick: number) =>
  rings.some(
    (ring) =>
      ring.string === string &&
      ring.onsetTicks <= tick &&
      ring.soundsUntilTicks > tick &&
      Math.max(ring.writtenEndTicks, problem.strikes[ring.strike]!.endTicks) > tick,
  );
