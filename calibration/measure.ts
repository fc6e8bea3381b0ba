/** How near a plan comes to what common practice accepts. */
import { LEFT_SCHOOLS } from '../src/core/fingering/left/rules/schools';
import type { LeftTermId } from '../src/core/fingering/left/rules/terms';
import { maybePlayer } from '../src/core/instrument/hands';
import type { Placement } from '../src/core/fingering/left/rules/place';
import { LeftPlanner } from '../src/core/fingering/left/lattice/planLeft';
import type { LeftSchoolId } from '../src/core/fingering/left/rules/schools';
import { type LeftWeights, weightsFrom } from '../src/core/fingering/left/rules/weights';
import { type Passage, type Task, taskOf } from './passage';

interface Score {
  /** Fretted notes of the music, and how many lie on an accepted string, and there under an accepted finger. */
  readonly fretted: number;
  readonly strings: number;
  readonly fingers: number;
  readonly whole: boolean;
}

const same = (a: Placement | null, b: Placement) =>
  a !== null && a.string === b.string && a.fret === b.fret && a.finger === b.finger;

/** Placements that agree with an accepted fingering, note by note; where none does, its first choice. */
function nearestAccepted({ accepted }: Task, placed: readonly (Placement | null)[]): readonly Placement[] {
  const misses = (variant: Task['accepted'][number]) =>
    variant.filter((choice, k) => !choice.some((one) => same(placed[k]!, one))).length;
  const nearest = accepted.reduce((a, b) => (misses(b) < misses(a) ? b : a));
  return nearest.map((choice, k) => choice.find((one) => same(placed[k]!, one)) ?? choice[0]!);
}

export function scoreOf(task: Task, placed: readonly (Placement | null)[]): Score {
  const wanted = nearestAccepted(task, placed);
  const fretted = wanted.flatMap((place, k) => (place.fret > 0 ? [k] : []));
  const onString = fretted.filter((k) => placed[k]?.string === wanted[k]!.string);
  const byFinger = onString.filter((k) => placed[k]!.finger === wanted[k]!.finger);
  return {
    fretted: fretted.length,
    strings: onString.length,
    fingers: byFinger.length,
    whole: wanted.every((place, k) => same(placed[k]!, place)),
  };
}

interface Totals {
  readonly passages: number;
  readonly whole: number;
  readonly fretted: number;
  readonly strings: number;
  readonly fingers: number;
}

export type WeightsOf = (school: LeftSchoolId, passage: Passage) => LeftWeights;

export const measured = (passages: readonly Passage[], weightsOf?: WeightsOf): Totals =>
  sumOfScores(
    passages.map((passage) => {
      const task = taskOf(passage, weightsOf && ((school) => weightsOf(school, passage)));
      return scoreOf(task, new LeftPlanner(task.problem).plan(new Map()).placements);
    }),
  );

function sumOfScores(scores: readonly Score[]): Totals {
  const sum = (of: (score: Score) => number) => scores.reduce((total, score) => total + of(score), 0);
  return {
    passages: scores.length,
    whole: scores.filter((score) => score.whole).length,
    fretted: sum((score) => score.fretted),
    strings: sum((score) => score.strings),
    fingers: sum((score) => score.fingers),
  };
}

export const weightsOfBase =
  (base: Readonly<Record<LeftTermId, number>>): WeightsOf =>
  (school, passage) =>
    weightsFrom(base, LEFT_SCHOOLS[school].factors, maybePlayer(passage.hand ?? 'adult-medium')!.hand);
