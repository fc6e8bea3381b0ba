/** What an edition gives to its copy. */
import type { HandAction } from '../fingering/left/explain/handScript';
import {
  correctionsOf,
  dampsOf,
  expressionsOf,
  inkOf,
  markStyleOf,
  type Registers,
  remarksOf,
  showingOf,
} from '../fingering/edition/registers';
import type { Role } from '../fingering/problem/strike';
import type { FingeringPlan } from '../fingering/report/plan';
import { LARGE } from '../engraving/sizes';
import { dampMarks } from '../marks/dampMarks';
import { expressionMarks } from '../marks/expressions';
import type { Mark } from '../marks/mark';
import { inkedMarks, type PlainMarks, plainMarks } from '../marks/marksOf';
import { type Showing, shownMarks } from '../marks/shown';
import type { Density } from '../marks/style';
import { openStringNames } from '../messages/en';
import type { Fretboard } from '../instrument/fretboard';
import type { Score } from '../score/model';
import type { MarkState } from '../marks/mark';
import { type CopyOptions, WHOSE } from './paper';
import type { CopySource } from './source';

export interface Fingered {
  readonly score: Score;
  readonly plan: FingeringPlan;
  readonly roles: ReadonlyMap<string, Role>;
  readonly registers: Registers;
  readonly board: Fretboard;
  /** Empty where no walk-through is wanted. */
  readonly script: readonly HandAction[];
}

export interface Imprint {
  readonly title: string;
  readonly imprint: string;
}

export function copySource(
  { score, plan, roles, registers, board, script }: Fingered,
  { density, whose }: Pick<CopyOptions, 'density' | 'whose'>,
  { title, imprint }: Imprint,
): CopySource {
  const style = markStyleOf(registers);
  const own = showingOf(registers);
  const wanted = density === null ? own : { ...own, density, densityOfBar: new Map() };
  return {
    score,
    plan,
    marks: marksOfCopy(plainMarks(score, plan, roles, style), roles, registers, wanted).filter(({ state }) =>
      (WHOSE[whose] as readonly MarkState[]).includes(state),
    ),
    markScale: style.size === 'large' ? LARGE : 1,
    corrections: correctionsOf(registers).bars,
    remarks: remarksOf(registers),
    script,
    board,
    title,
    subtitle: subtitleOf(score),
    imprint,
  };
}

function marksOfCopy(
  plain: PlainMarks,
  roles: ReadonlyMap<string, Role>,
  registers: Registers,
  wanted: Showing,
): readonly Mark[] {
  const ink = inkOf(registers);
  const full = [
    ...inkedMarks(plain, ink),
    ...dampMarks(dampsOf(registers), roles),
    ...expressionMarks(expressionsOf(registers), roles),
  ];
  return shownMarks(plain, ink, wanted, full);
}

export const densityOfCopy = (registers: Registers, { density }: Pick<CopyOptions, 'density'>): Density =>
  density ?? markStyleOf(registers).density;

/** The tuning where it is not the usual one, and the capo. */
function subtitleOf({ tuningId, capo }: Score): string {
  const tuning = tuningId === 'standard' ? [] : [`Tuning ${openStringNames(tuningId)}`];
  return [...tuning, ...(capo > 0 ? [`Capo at fret ${capo}`] : [])].join(' · ');
}
