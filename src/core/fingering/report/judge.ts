/** Judges the fingering that came with a score: whether it can be played, and what it costs against the best. */
import { isPick, type PrintedMarks, type Score } from '../../score/model';
import type { Ink } from '../problem/ink';
import type { Finding, LeftChoice } from './plan';
import type { Planner } from '../planner';
import { barKinds } from '../../survey/sameMusic';

export interface UnusualChoice {
  readonly uid: string;
  /** As printed; where the file leaves something open, as planned around it. */
  readonly chosen: Pick<LeftChoice, 'finger' | 'string' | 'fret'>;
  readonly better: Pick<LeftChoice, 'finger' | 'string' | 'fret'>;
  /** What the printed choice costs more than the best one there, in tenths of a point. */
  readonly extraCost: number;
  /** Terms that speak for the better choice. */
  readonly reasons: LeftChoice['reasons'];
  readonly words: LeftChoice['words'];
}

/** Two bars of the same music whose printed marks differ at one note. */
export interface SelfContradiction {
  /** The note in the earlier and in the later bar. */
  readonly uids: readonly [string, string];
}

export interface Judgement {
  /** Notes that carry a printed finger, string or letter. */
  readonly printed: number;
  readonly playable: boolean;
  readonly findings: readonly Finding[];
  /** Tenths of a point: with every printed mark kept, and without any of them. */
  readonly cost: number;
  readonly optimum: number;
  readonly unusual: readonly UnusualChoice[];
  readonly contradictions: readonly SelfContradiction[];
}

/** From this price on a printed choice is worth a word. From memory. */
const WORTH_A_WORD = 40;
/** Prices are worked out for so many notes at most. */
const MOST_PRICED = 400;

const CONTRADICTIONS = new Set<Finding['code']>(['unplayable', 'inkContradicts', 'pluckContradicts']);

/** The file's marks as if the teacher had inked them; strokes of a plectrum only where the planner plays with one. */
export function printedInk(score: Score, { problem, setting }: Planner): Ink {
  const withPick = new Set(
    problem.moments
      .filter(({ index }) => setting.styles[index]!.school.plectrum)
      .flatMap(({ struck }) => struck.flatMap((strike) => problem.strikes[strike]!.uids)),
  );
  return new Map(
    score.notes
      .map(({ uid, printed }) => {
        const fits = isPick(printed.pluck) === withPick.has(uid);
        return [uid, fits ? printed : { ...printed, pluck: null }] as const;
      })
      .filter(([, { finger, string, pluck }]) => finger !== null || string !== null || pluck !== null),
  );
}

export function judge(score: Score, planner: Planner): Judgement {
  const ink = printedInk(score, planner);
  const plan = planner.plan(ink);
  const findings = plan.findings.filter((finding) => finding.code !== 'printedDeparture');
  return {
    printed: ink.size,
    playable: !findings.some((finding) => CONTRADICTIONS.has(finding.code)),
    findings,
    cost: plan.cost,
    optimum: planner.plan(new Map()).cost,
    unusual: [...ink.keys()].slice(0, MOST_PRICED).flatMap((uid) => unusualAt(planner, ink, uid)),
    contradictions: contradictionsIn(score),
  };
}

function unusualAt(planner: Planner, ink: Ink, uid: string): readonly UnusualChoice[] {
  const marks = ink.get(uid)!;
  const compared = planner.comparedByLeftHand(
    ink,
    uid,
    ({ finger, string }) =>
      (marks.finger === null || finger === marks.finger) &&
      (marks.string === null || string === marks.string),
  );
  return compared && compared.extraCost >= WORTH_A_WORD ? [{ uid, ...compared }] : [];
}

/** The same bar wants the same fingering: marks that disagree, where both bars carry one. */
function contradictionsIn(score: Score): readonly SelfContradiction[] {
  const notesOf = (bar: number) => score.notes.filter((note) => note.measureIndex === bar);
  return barKinds(score).flatMap(({ like, relation }, bar) => {
    if (relation !== 'exact') return [];
    const [before, after] = [notesOf(like), notesOf(bar)];
    return before.flatMap((note, k) => {
      const other = after[k];
      return other && disagree(note.printed, other.printed) ? [{ uids: [note.uid, other.uid] as const }] : [];
    });
  });
}

const disagree = (a: PrintedMarks, b: PrintedMarks): boolean =>
  (['finger', 'string', 'pluck'] as const).some(
    (key) => a[key] !== null && b[key] !== null && a[key] !== b[key],
  );
