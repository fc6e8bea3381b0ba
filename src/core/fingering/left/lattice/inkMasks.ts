/** What ink leaves of the states of a layer. */
import { type Ink, type InkMarks, NO_INK } from '../../problem/ink';
import type { FingeringProblem, Moment } from '../../problem/problem';
import type { Mask } from '../../solver/lattice';
import { type Placement, PLACEMENTS } from '../rules/place';
import type { HandLayer } from './handLayer';
import { placeAt } from './stateRows';

/** Ink by strike; notes of a unison share it. */
export function inkByStrike(problem: FingeringProblem, ink: Ink): readonly InkMarks[] {
  return problem.strikes.map((strike) => {
    if (!strike.uids.some((uid) => ink.has(uid))) return NO_INK;
    const marks = strike.uids.map((uid) => ink.get(uid) ?? NO_INK);
    const first = <K extends keyof InkMarks>(key: K) => marks.find((one) => one[key] !== null)?.[key] ?? null;
    return { finger: first('finger'), string: first('string'), pluck: first('pluck') };
  });
}

const agrees = (place: Placement, marks: InkMarks) =>
  (marks.finger === null || marks.finger === place.finger) &&
  (marks.string === null || marks.string === place.string);

const isInked = (marks: InkMarks) => marks.finger !== null || marks.string !== null;

/** Read off the rows: a layer may have thousands of states. */
export function maskOf(layer: HandLayer, moment: Moment, marks: readonly InkMarks[]): Mask {
  const inked = moment.struck.filter((strike) => isInked(marks[strike]!));
  if (inked.length === 0) return null;
  const { rows, strikes } = layer;
  const mask = new Uint8Array(rows.count).fill(1);
  for (const strike of inked) {
    const column = strikes.indexOf(strike);
    if (column < 0) continue;
    for (let s = 0; s < rows.count; s++) {
      if (mask[s] && !agrees(PLACEMENTS[placeAt(rows, s, column)]!, marks[strike]!)) mask[s] = 0;
    }
  }
  return mask;
}

export const inkMasks = (
  layers: readonly HandLayer[],
  moments: readonly Moment[],
  marks: readonly InkMarks[],
): readonly Mask[] => layers.map((layer, k) => maskOf(layer, moments[k]!, marks));
