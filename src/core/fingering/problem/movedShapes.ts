/** Figures that are moved along the neck, as grips: each round is taken whole and lies until the next one. */
import type { Score } from '../../score/model';
import type { Holding } from './brokenChords';
import { type MovedFigure, movedFigures } from './movedFigures';
import type { Strike } from './strike';

export function movedShapes(
  strikes: readonly Strike[],
  { measures }: Pick<Score, 'measures'>,
  { fits, isOpen }: Holding,
): Strike[] {
  const all = [...strikes];
  const set = (index: number, change: Partial<Strike>) => (all[index] = { ...all[index]!, ...change });
  movedFigures(strikes, measures, isOpen).forEach((figure, grip) => {
    for (const { index } of figure.staying) set(index, { inMove: 'stays' });
    for (const { index } of figure.moving) set(index, { inMove: 'moves' });
    if (!fits([...new Set(figure.moving.map(({ midi }) => midi))])) return;
    for (const [index, change] of lying(figure, grip)) set(index, change);
  });
  return all;
}

function lying({ moving, from, startTicks, endTicks }: MovedFigure, grip: number) {
  return moving.map(({ index, midi, onsetTicks, endTicks: own }, n): readonly [number, Partial<Strike>] => {
    const again = moving.slice(n + 1).find((other) => other.midi === midi);
    const before = moving.slice(0, n).findLast((other) => other.midi === midi);
    const end = again?.onsetTicks ?? endTicks;
    const change: Partial<Strike> = {
      grip,
      endTicks: Math.max(own, end),
      laidTicks: before ? onsetTicks : startTicks,
      continues: before?.index ?? null,
      // What lies of the round before is its last note of that pitch.
      parallelFrom: before || !from ? null : (lastOf(from, from[n]!.midi)?.index ?? null),
    };
    return [index, change];
  });
}

const lastOf = (notes: readonly Strike[], midi: number) => notes.findLast((other) => other.midi === midi);
