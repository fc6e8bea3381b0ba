/** What surrounds the strokes of a piece: its schools by bar, where its beats are, what is strummed. */
import type { Reading } from '../../../figures/reading';
import type { RightFinger } from '../../../instrument/rightProfile';
import type { Score } from '../../../score/model';
import type { FingeringProblem } from '../../problem/problem';
import { barsOfMoments, effectsOf, surroundingsOf } from '../../problem/surroundings';
import type { EffectId } from './effects';
import { RIGHT_SCHOOLS, type RightSchool, type RightSchoolId } from './schools';
import { PLAIN_STYLE, type RightStyle } from './style';
import { type RightWeights, rightWeights } from './weights';
import { tremoloFingers } from './tremolo';

/** Everything by moment but the fingers of a tremolo, which are by strike. */
export interface RightSetting {
  readonly styles: readonly Manner[];
  readonly onBeat: readonly boolean[];
  readonly effects: readonly (EffectId | null)[];
  /** Whether a passage of its own school begins. */
  readonly opens: readonly boolean[];
  readonly tremolo: readonly (RightFinger | null)[];
  /** The textures of the piece, and whose note each is. */
  readonly reading: Reading;
}

/** A style with its school and weights at hand; equal styles share one. */
export interface Manner {
  readonly id: number;
  readonly style: RightStyle;
  readonly school: RightSchool;
  readonly weights: RightWeights;
}

export interface SettingWishes {
  /** A bar's own school, null for that of the piece. */
  readonly schoolOfBar?: (barUid: string) => RightSchoolId | null;
  /** Weights in the place of the table's. */
  readonly base?: RightWeights;
}

export function rightSettingOf(
  score: Score,
  problem: FingeringProblem,
  style: RightStyle,
  { schoolOfBar = () => null, base }: SettingWishes = {},
): RightSetting {
  const manners = new Map<RightSchoolId, Manner>();
  const mannerOf = (id: RightSchoolId): Manner => {
    let manner = manners.get(id);
    if (!manner) {
      const own = { ...style, school: id };
      manner = {
        id: manners.size,
        style: own,
        school: RIGHT_SCHOOLS[id],
        weights: rightWeights(id, problem.hand, base),
      };
      manners.set(id, manner);
    }
    return manner;
  };
  const bars = barsOfMoments(score, problem);
  const styles = bars.map((bar) => mannerOf(schoolOfBar(score.measures[bar]!.uid) ?? style.school));
  const effects = effectsOf(score, problem);
  const { reading } = problem;
  return {
    styles,
    onBeat: surroundingsOf(score, problem).onBeat,
    effects,
    opens: styles.map((manner, k) => k === 0 || manner !== styles[k - 1]),
    tremolo: tremoloFingers(problem, reading.phases, (k) => styles[k]!.style.tremolo),
    reading,
  };
}

/** The setting without any wishes, for a problem that has no score at hand. */
export function plainSetting(problem: FingeringProblem, style: RightStyle = PLAIN_STYLE): RightSetting {
  const manner: Manner = {
    id: 0,
    style,
    school: RIGHT_SCHOOLS[style.school],
    weights: rightWeights(style.school, problem.hand),
  };
  const onBeat = problem.moments.map(({ tick }) => tick % problem.ticksPerQuarter === 0);
  const { reading } = problem;
  return {
    styles: problem.moments.map(() => manner),
    onBeat,
    effects: problem.moments.map(() => null),
    opens: problem.moments.map((_moment, k) => k === 0),
    tremolo: tremoloFingers(problem, reading.phases, () => style.tremolo),
    reading,
  };
}
