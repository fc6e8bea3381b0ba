/** The figures of a piece with what the right hand makes of them: a formula, a turn, a cycle. */
import type { Figure, FigureRule } from '../../../figures/figure';
import type { Texture } from '../../../figures/texture';
import type { Pluck } from '../../../score/model';
import type { FingeringProblem } from '../../problem/problem';
import { CYCLES, TURNS } from '../rules/turns';
import type { RightStep } from './walk';

export interface PlannedFigure {
  readonly voice: string;
  readonly texture: Texture;
  readonly rule: FigureRule;
  /** See `Figure`. */
  readonly margin: number;
  readonly fromMoment: number;
  readonly toMoment: number;
  readonly fromTicks: number;
  /** The onset of its last notes. */
  readonly toTicks: number;
  /** Its notes, by onset and pitch. */
  readonly uids: readonly string[];
  /** The letters that go round in it, of several strings at once as one word; empty where none do. */
  readonly formula: readonly string[];
}

export const plannedFigure = (
  problem: FingeringProblem,
  figure: Figure,
  steps: readonly RightStep[],
): PlannedFigure => ({
  voice: figure.voice,
  texture: figure.texture,
  rule: figure.rule,
  margin: figure.margin,
  fromMoment: figure.fromMoment,
  toMoment: figure.toMoment,
  fromTicks: problem.moments[figure.fromMoment]!.tick,
  toTicks: problem.moments[figure.toMoment]!.tick,
  uids: figure.strikes.flatMap((strike) => problem.strikes[strike]!.uids),
  formula: formulaOf(figure, steps),
});

/** The letters that go round over the moments of a figure; a slow tune has none but its turn. */
export function formulaOf(
  { fromMoment, toMoment, texture }: Pick<Figure, 'fromMoment' | 'toMoment' | 'texture'>,
  steps: readonly RightStep[],
): readonly string[] {
  const played = steps.slice(fromMoment, toMoment + 1).filter(({ group }) => group.strokes.length > 0);
  const modes = played.map(({ sharing }) => sharing.mode);
  const turn = modes.find((mode) => mode.kind === 'turn');
  const turns = modes.filter((mode) => mode === turn).length;
  if (turn?.kind === 'turn' && turns * 2 > played.length) return TURNS[turn.turn];
  const cycle = modes.find((mode) => mode.kind === 'cycle');
  if (cycle?.kind === 'cycle') return ['p', ...CYCLES[cycle.cycle].letters];
  return texture === 'slowMelody' ? [] : roundOf(played.map(({ sharing }) => sharing.letters));
}

/** A formula is said from the thumb on. */
function fromThumb(words: readonly string[]): readonly string[] {
  const at = Math.max(
    0,
    words.findIndex((word) => word.startsWith('p')),
  );
  return [...words.slice(at), ...words.slice(0, at)];
}

const LONGEST_ROUND = 12;

/** The shortest row of letters that goes round, half as often again at least, and fits nearly everywhere. */
function roundOf(letters: readonly (readonly Pluck[])[]): readonly string[] {
  const words = letters.map((each) => each.join(''));
  for (let period = 1; period <= Math.min(LONGEST_ROUND, Math.floor((2 * words.length) / 3)); period++) {
    const again = words.slice(period).filter((word, k) => word === words[k]).length;
    if (again >= 0.9 * (words.length - period)) return fromThumb(words.slice(0, period));
  }
  return [];
}
