/**
 * What lies under a system of the score, aligned with its notes: where the hand stands and moves, and what each
 * string really sounds. Plain data in layout units; drawing and tests read the same lists.
 */
import type { FormulaSpan } from '../fingering/formulas/recognise';
import type { FingeringPlan, FingerStay, PlannedBarre, PlannedShift } from '../fingering/report/plan';
import type { PlannedFigure } from '../fingering/right/explain/plannedFigures';
import type { PlannedStroke } from '../fingering/right/explain/report';
import type { Ring } from '../rings/ring';
import type { Score } from '../score/model';
import { startOf } from '../fingering/problem/strikes';
import type { EngravedPage } from './page';

export interface LaneSpan {
  readonly x1: number;
  readonly x2: number;
}

/** One note on the lane of its string. A span is null where there is nothing of the kind in this system. */
export interface RingLane {
  readonly id: string;
  readonly ring: Ring;
  /** 1 to 6. */
  readonly string: number;
  readonly finger: number;
  /** 0 for an open string. */
  readonly fret: number;
  /** As long as it sounds inside its written length. */
  readonly sounding: LaneSpan | null;
  /** Written, and does not sound. */
  readonly cut: LaneSpan | null;
  /** Sounds, and is not written. */
  readonly overhang: LaneSpan | null;
  /** Whether it begins in this system. */
  readonly begins: boolean;
}

/** A finger while it is down, whether its string sounds or not. */
export interface FingerLane {
  readonly id: string;
  readonly stay: FingerStay;
  readonly span: LaneSpan;
  /** Outside the frets that the hand covers. */
  readonly reaches: boolean;
}

/** A finger that stays on its string on the way to another fret: from where it leaves to where it arrives. */
export interface SlideLane {
  readonly id: string;
  readonly from: FingerStay;
  readonly to: FingerStay;
  readonly span: LaneSpan;
}

export interface BarreLane {
  readonly id: string;
  readonly barre: PlannedBarre;
  readonly span: LaneSpan;
}

export interface HandLane {
  readonly id: string;
  /** Where the hand stands between two shifts. */
  readonly position: number;
  readonly span: LaneSpan;
}

export interface ShiftLane {
  readonly id: string;
  readonly shift: PlannedShift;
  /** From when the hand may leave to when it must be there. */
  readonly span: LaneSpan;
}

/** The strokes of one moment: letters from the lowest string on. */
export interface StrokeLane {
  readonly id: string;
  readonly x: number;
  readonly stroke: PlannedStroke;
}

export interface FormulaLane {
  readonly id: string;
  readonly span: LaneSpan;
  readonly formula: FormulaSpan;
}

/** A figure, from its first note to its last. */
export interface FigureLane {
  readonly id: string;
  readonly span: LaneSpan;
  /** From the highest voice (0) down. */
  readonly row: number;
  readonly figure: PlannedFigure;
}

export interface SystemLanes {
  /** Where bars begin, but for the first of the system. */
  readonly bars: readonly number[];
  readonly rings: readonly RingLane[];
  readonly hand: readonly HandLane[];
  readonly fingers: readonly FingerLane[];
  readonly slides: readonly SlideLane[];
  readonly barres: readonly BarreLane[];
  readonly shifts: readonly ShiftLane[];
  readonly strokes: readonly StrokeLane[];
  readonly formulas: readonly FormulaLane[];
  readonly figures: readonly FigureLane[];
}

/** Ticks to x inside one system: noteheads are fixed points, between them time is even. */
interface TimeScale {
  readonly from: number;
  readonly to: number;
  readonly xOf: (ticks: number) => number;
}

interface Anchor {
  readonly ticks: number;
  readonly x: number;
}

/** Null for a system without notes. */
export function timeScaleOf(page: EngravedPage, score: Score, system: number): TimeScale | null {
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  const anchors = new Map<number, number>();
  let last: (typeof score.notes)[number] | undefined;
  for (const box of page.notes) {
    if (box.system !== system) continue;
    const note = noteOf.get(box.uid);
    if (!note) continue;
    const ticks = startOf(score, note);
    anchors.set(ticks, Math.min(anchors.get(ticks) ?? Infinity, box.x + box.width / 2));
    if (!last || note.measureIndex >= last.measureIndex) last = note;
  }
  if (!last) return null;
  const measure = score.measures[last.measureIndex]!;
  const to = measure.startTicks + measure.durationTicks;
  const fixed: Anchor[] = [...anchors].map(([ticks, x]) => ({ ticks, x })).sort((a, b) => a.ticks - b.ticks);
  fixed.push({ ticks: Math.max(to, fixed.at(-1)!.ticks + 1), x: page.systems[system]!.right });
  const first = fixed[0]!;
  return {
    from: first.ticks,
    to,
    xOf: (ticks) => {
      const after = fixed.findIndex((anchor) => anchor.ticks > ticks);
      if (after === 0) return first.x;
      if (after < 0) return fixed.at(-1)!.x;
      const [a, b] = [fixed[after - 1]!, fixed[after]!];
      return a.x + ((b.x - a.x) * (ticks - a.ticks)) / (b.ticks - a.ticks);
    },
  };
}

/** What lanes are made from. */
export type LanePlan = Pick<
  FingeringPlan,
  'rings' | 'shifts' | 'positions' | 'fingers' | 'barres' | 'notes' | 'strokes' | 'formulas' | 'figures'
>;

const NOTHING: SystemLanes = {
  bars: [],
  rings: [],
  hand: [],
  fingers: [],
  slides: [],
  barres: [],
  shifts: [],
  strokes: [],
  formulas: [],
  figures: [],
};

export function systemLanes(page: EngravedPage, score: Score, plan: LanePlan, system: number): SystemLanes {
  const scale = timeScaleOf(page, score, system);
  if (!scale) return NOTHING;
  const placeOf = new Map(
    plan.notes.map(({ strike, finger, fret }) => [strike, { finger: finger ?? 0, fret: fret ?? 0 }]),
  );
  return {
    bars: score.measures
      .filter(({ startTicks }) => startTicks > scale.from && startTicks < scale.to)
      .map(({ startTicks }) => barLineAt(page, system, scale.xOf(startTicks))),
    rings: plan.rings.flatMap((ring) =>
      ringLane(scale, ring, placeOf.get(ring.strike) ?? { finger: 0, fret: 0 }),
    ),
    hand: handLanes(scale, plan),
    fingers: fingerLanes(scale, plan),
    slides: slideLanes(scale, plan),
    barres: barreLanes(scale, score, plan),
    shifts: plan.shifts.flatMap((shift) => {
      const span = spanOf(scale, shift.leavesTicks, shift.arrivesTicks);
      return span ? [{ id: `${shift.toUid}-${shift.jump ?? 'shift'}`, shift, span }] : [];
    }),
    strokes: plan.strokes
      .filter(({ ticks }) => ticks >= scale.from && ticks < scale.to)
      .map((stroke) => ({ id: `${stroke.momentIndex}-stroke`, x: scale.xOf(stroke.ticks), stroke })),
    formulas: formulaLanes(scale, plan),
    figures: figureLanes(scale, plan),
  };
}

/** The hand covers one fret for each finger. */
export const HAND = 4;

function fingerLanes(scale: TimeScale, { fingers, positions }: LanePlan): readonly FingerLane[] {
  return fingers.flatMap((stay) => {
    const span = spanOf(scale, stay.fromTicks, stay.toTicks);
    if (!span) return [];
    const position =
      positions.findLast(({ fromTicks }) => fromTicks <= stay.fromTicks)?.position ?? stay.fret;
    const reaches = stay.fret < position || stay.fret >= position + HAND;
    return [{ id: `${stay.fromTicks}-${stay.finger}-${stay.string}`, stay, span, reaches }];
  });
}

function slideLanes(scale: TimeScale, { fingers, shifts }: LanePlan): readonly SlideLane[] {
  const sliding = shifts.filter(
    ({ carrier, jump }) => jump === null && (carrier === 'guide' || carrier === 'shape'),
  );
  return sliding.flatMap(({ leavesTicks, arrivesTicks }) => {
    const span = spanOf(scale, leavesTicks, arrivesTicks);
    if (!span) return [];
    return fingers
      .filter((to) => to.fromTicks === arrivesTicks)
      .flatMap((to): SlideLane[] => {
        const from = fingers.findLast(
          ({ string, toTicks }) => string === to.string && toTicks <= arrivesTicks && toTicks >= leavesTicks,
        );
        if (!from || from.finger !== to.finger || from.fret === to.fret) return [];
        return [{ id: `${to.fromTicks}-${to.finger}-${to.string}-slide`, from, to, span }];
      });
  });
}

function barreLanes(scale: TimeScale, score: Score, { barres }: LanePlan): readonly BarreLane[] {
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  return barres.flatMap((barre) => {
    const [first, last] = [noteOf.get(barre.fromUid)!, noteOf.get(barre.toUid)!];
    const span = spanOf(scale, first.onsetTicks, last.onsetTicks + last.durationTicks);
    return span ? [{ id: `${barre.fromUid}-barre`, barre, span }] : [];
  });
}

/** The part of a length of time that lies in the system; null where none does. */
function spanOf({ from, to, xOf }: TimeScale, startTicks: number, endTicks: number): LaneSpan | null {
  const [start, end] = [Math.max(from, startTicks), Math.min(to, endTicks)];
  return start < end ? { x1: xOf(start), x2: xOf(end) } : null;
}

function formulaLanes(
  scale: TimeScale,
  { strokes, formulas }: Pick<FingeringPlan, 'strokes' | 'formulas'>,
): readonly FormulaLane[] {
  const tickOf = new Map(strokes.map(({ momentIndex, ticks }) => [momentIndex, ticks]));
  return formulas.flatMap((formula) => {
    const [from, to] = [tickOf.get(formula.fromMoment)!, tickOf.get(formula.toMoment)!];
    const span = spanOf(scale, from, to + 1);
    return span ? [{ id: `${formula.fromMoment}-formula`, formula, span }] : [];
  });
}

function figureLanes(scale: TimeScale, { figures }: Pick<FingeringPlan, 'figures'>): readonly FigureLane[] {
  // Figures come from the lowest voice up.
  const voices = [...new Set(figures.map(({ voice }) => voice))].reverse();
  return figures.flatMap((figure) => {
    const span = spanOf(scale, figure.fromTicks, figure.toTicks + 1);
    if (!span) return [];
    return [
      { id: `${figure.voice}-${figure.fromMoment}-figure`, span, row: voices.indexOf(figure.voice), figure },
    ];
  });
}

/** The line stands before the first note of its bar. */
const barLineAt = (page: EngravedPage, system: number, x: number) =>
  Math.max(page.systems[system]!.left, x - 1.6 * page.staffSpace);

function ringLane(
  scale: TimeScale,
  ring: Ring,
  { finger, fret }: Pick<RingLane, 'finger' | 'fret'>,
): readonly RingLane[] {
  const { onsetTicks, writtenEndTicks, soundsUntilTicks } = ring;
  const lane = {
    id: `${ring.uid}-ring`,
    ring,
    string: ring.string,
    finger,
    fret,
    sounding: spanOf(scale, onsetTicks, Math.min(writtenEndTicks, soundsUntilTicks)),
    cut: spanOf(scale, soundsUntilTicks, writtenEndTicks),
    overhang: spanOf(scale, writtenEndTicks, soundsUntilTicks),
    begins: onsetTicks >= scale.from && onsetTicks < scale.to,
  };
  return lane.sounding || lane.cut || lane.overhang ? [lane] : [];
}

/** Where the hand stands: until it may leave for a shift, or stands elsewhere. */
function handLanes(
  scale: TimeScale,
  { positions, shifts }: Pick<FingeringPlan, 'positions' | 'shifts'>,
): readonly HandLane[] {
  return positions.flatMap(({ position, fromTicks }, k) => {
    const next = positions[k + 1]?.fromTicks ?? Infinity;
    const leaves =
      shifts.find((shift) => shift.jump === null && shift.arrivesTicks === next)?.leavesTicks ?? next;
    const span = spanOf(scale, fromTicks, Math.max(fromTicks + 1, leaves));
    return span ? [{ id: `hand-${fromTicks}`, position, span }] : [];
  });
}
