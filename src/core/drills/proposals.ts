/**
 * The two or three drills that a piece asks for, each with the count that asks and the bars where it is. Source: handbook
 * 9: a drill trains the same movement as the hard place. A movement that the piece has not is never proposed.
 */
import type { FingeringPlan } from '../fingering/report/plan';
import type { Score } from '../score/model';
import type { Chosen } from './drill';

export interface DrillProposal {
  readonly kind: string;
  readonly chosen: Chosen;
  /** "4 barres", "tremolo p a m i in 57 notes". */
  readonly because: string;
  /** Printed numbers of the bars that ask for it, in order. */
  readonly bars: readonly string[];
}

/** What asks for a drill: notes of the piece, and how much each of them weighs. */
interface Need {
  readonly kind: string;
  readonly chosen: Chosen;
  readonly uids: readonly string[];
  readonly because: (count: number) => string;
  readonly weight: number;
  /** Fewer are no habit that is worth a drill. */
  readonly least: number;
}

const MOST = 3;

/** Rarer and heavier movements weigh more: a barre as much as a dozen notes of a figure. From memory. */
const WEIGHTS = {
  barre: 8,
  tightShift: 6,
  shift: 3,
  slur: 4,
  tremolo: 1,
  broken: 0.5,
  afterbeats: 0.4,
  line: 0.6,
  parallels: 2,
  harmonic: 5,
} as const;

export function drillsFor(score: Score, plan: FingeringPlan): readonly DrillProposal[] {
  const barOf = new Map(score.notes.map((note) => [note.uid, note.measureIndex]));
  const needs = [
    barres(plan),
    shifts(plan),
    slurs(score, plan),
    tremolo(plan),
    brokenChords(plan),
    afterbeats(plan),
    lines(plan),
    parallels(plan),
    harmonics(score),
  ].filter((need): need is Need => need !== null && need.uids.length >= need.least);
  return needs
    .sort((a, b) => b.weight * b.uids.length - a.weight * a.uids.length)
    .slice(0, MOST)
    .map(({ kind, chosen, uids, because }) => ({
      kind,
      chosen,
      because: because(uids.length),
      bars: [...new Set(uids.map((uid) => barOf.get(uid)!))]
        .sort((a, b) => a - b)
        .map((bar) => score.measures[bar]!.number),
    }));
}

const barres = ({ barres }: FingeringPlan): Need => ({
  kind: 'barres',
  chosen: { positions: barres.some(({ fret }) => fret <= 2) ? '5,4,3,2,1' : '5,4,3' },
  uids: barres.map(({ fromUid }) => fromUid),
  because: (count) => `${count} ${count === 1 ? 'barre' : 'barres'}`,
  weight: WEIGHTS.barre,
  least: 1,
});

/** Where a shift has too little time it is the arm that has to be trained. */
function shifts({ shifts }: FingeringPlan): Need {
  const tight = shifts.filter(({ risk }) => risk !== 'free');
  return {
    kind: 'one-finger-per-fret',
    chosen: { positions: '1,5,9' },
    uids: shifts.map(({ toUid }) => toUid),
    because: (count) => `${count} shifts${tight.length > 0 ? `, ${tight.length} with little time` : ''}`,
    weight: tight.length > 0 ? WEIGHTS.tightShift : WEIGHTS.shift,
    least: 3,
  };
}

function slurs({ ligados }: Score, { notes }: FingeringPlan): Need | null {
  const fingerOf = new Map(notes.map(({ uid, finger }) => [uid, finger]));
  const pairs = ligados.map(({ fromUid, toUid }) =>
    [fingerOf.get(fromUid) ?? 0, fingerOf.get(toUid) ?? 0].sort().join(''),
  );
  const often = mostOften(pairs.filter((pair) => SLUR_PAIRS.includes(pair)));
  return {
    kind: 'slur-pairs',
    chosen: often === null ? {} : { pair: often },
    uids: ligados.map(({ toUid }) => toUid),
    because: (count) => `${count} slurs`,
    weight: WEIGHTS.slur,
    least: 2,
  };
}

/** Pairs that there is a drill of. */
const SLUR_PAIRS: readonly string[] = ['12', '13', '23', '24', '34', '14', '01', '02'];
const TREMOLOS: readonly string[] = ['pami', 'pima', 'pmi', 'pim', 'pi', 'pm'];

function tremolo({ figures }: FingeringPlan): Need | null {
  const own = figures.filter(({ texture }) => texture === 'tremolo');
  const order = mostOften(own.map(({ formula }) => formula.join('')).filter((one) => TREMOLOS.includes(one)));
  return {
    kind: 'tremolo',
    chosen: order === null ? {} : { order },
    uids: own.flatMap(({ uids }) => uids),
    because: (count) => `tremolo in ${count} notes`,
    weight: WEIGHTS.tremolo,
    least: 12,
  };
}

function brokenChords({ figures }: FingeringPlan): Need {
  const own = figures.filter(({ texture }) => texture === 'brokenChord');
  return {
    kind: 'right-hand-orders',
    chosen: { column: 'afterThumb' },
    uids: own.flatMap(({ uids }) => uids),
    because: (count) => `broken chords in ${count} notes`,
    weight: WEIGHTS.broken,
    least: 12,
  };
}

/** Chords that are taken as shapes, one after the other. */
function afterbeats({ figures }: FingeringPlan): Need {
  const own = figures.filter(({ texture }) => texture === 'afterbeats' || texture === 'chords');
  return {
    kind: 'chord-patterns',
    chosen: {},
    uids: own.flatMap(({ uids }) => uids),
    because: (count) => `chords in ${count} notes`,
    weight: WEIGHTS.afterbeats,
    least: 12,
  };
}

function lines({ figures }: FingeringPlan): Need {
  const own = figures.filter(({ texture }) => texture === 'line');
  return {
    kind: 'scales',
    chosen: {},
    uids: own.flatMap(({ uids }) => uids),
    because: (count) => `runs of ${count} notes`,
    weight: WEIGHTS.line,
    least: 12,
  };
}

function parallels({ figures }: FingeringPlan): Need {
  const own = figures.filter(({ texture }) => texture === 'parallels');
  return {
    kind: 'intervals',
    chosen: {},
    uids: own.flatMap(({ uids }) => uids),
    because: (count) => `two voices that go together in ${count} notes`,
    weight: WEIGHTS.parallels,
    least: 6,
  };
}

const harmonics = ({ notes }: Score): Need => ({
  kind: 'natural-harmonics',
  chosen: { nodes: '12,7,5' },
  uids: notes.filter(({ harmonic }) => harmonic === 'natural').map(({ uid }) => uid),
  because: (count) => `${count} ${count === 1 ? 'harmonic' : 'harmonics'}`,
  weight: WEIGHTS.harmonic,
  least: 1,
});

function mostOften(values: readonly string[]): string | null {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}
