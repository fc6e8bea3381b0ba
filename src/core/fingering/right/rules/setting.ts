/** What surrounds the strokes of a piece: its schools by bar, where its beats are, what is strummed. */
import { type Reading, readFigures } from '../../../figures/reading';
import type { Texture } from '../../../figures/texture';
import type { RightFinger } from '../../../instrument/rightProfile';
import type { NoteTag, Score } from '../../../score/model';
import type { FingeringProblem } from '../../problem/problem';
import { effectAmong, type EffectId, isStrum } from './effects';
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
  /** The teacher's word on a note's texture. */
  readonly textureOf?: (uid: string) => Texture | null;
}

export function rightSettingOf(
  score: Score,
  problem: FingeringProblem,
  style: RightStyle,
  { schoolOfBar = () => null, base, textureOf }: SettingWishes = {},
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
  const onBeat = problem.moments.map(({ tick }, k) => isBeat(score, bars[k]!, tick));
  const effects = effectsOf(score, problem);
  const strummed = effects.map(isStrum);
  const reading = readFigures(problem, { onBeat, strummed }, textureOf);
  return {
    styles,
    onBeat,
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
  const reading = readFigures(problem, { onBeat, strummed: onBeat.map(() => false) });
  return {
    styles: problem.moments.map(() => manner),
    onBeat,
    effects: problem.moments.map(() => null),
    opens: problem.moments.map((_moment, k) => k === 0),
    tremolo: tremoloFingers(problem, reading.phases, () => style.tremolo),
    reading,
  };
}

function barsOfMoments({ measures }: Score, { moments }: FingeringProblem): readonly number[] {
  let bar = 0;
  return moments.map(({ tick }) => {
    while (bar + 1 < measures.length && measures[bar + 1]!.startTicks <= tick) bar++;
    return bar;
  });
}

/** Beats are quarters; in compound time (6/8, 9/8, 12/8) dotted quarters. */
function isBeat(score: Score, bar: number, tick: number): boolean {
  const metre = score.metres.filter((one) => one.tick <= tick).at(-1);
  const compound = metre?.beatType === 8 && metre.beats % 3 === 0 && metre.beats > 3;
  const beat = (compound ? 1.5 : 1) * score.ticksPerQuarter;
  return (tick - score.measures[bar]!.startTicks) % beat === 0;
}

const BRUSHES: ReadonlySet<NoteTag> = new Set(['brushDown', 'brushUp']);

function effectsOf(score: Score, problem: FingeringProblem): readonly (EffectId | null)[] {
  const tagsOf = new Map<string, readonly NoteTag[]>(
    score.notes.filter((note) => note.tags.length > 0).map((note) => [note.uid, note.tags]),
  );
  if (tagsOf.size === 0) return problem.moments.map(() => null);
  return problem.moments.map(({ struck }) => {
    const tags = struck.flatMap((index) =>
      problem.strikes[index]!.uids.flatMap((uid) => tagsOf.get(uid) ?? []),
    );
    // One string is not brushed: the mark is a stroke of the plectrum.
    const brushed = struck.length > 1;
    return effectAmong(new Set(brushed ? tags : tags.filter((tag) => !BRUSHES.has(tag))));
  });
}
