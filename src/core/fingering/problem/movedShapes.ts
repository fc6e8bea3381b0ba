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
  movedFigures(strikes, measures, isOpen).forEach((figure, grip, figures) => {
    for (const { index } of figure.staying) set(index, { inMove: 'stays' });
    for (const { index } of figure.moving) set(index, { inMove: 'moves' });
    if (!fits([...new Set(figure.moving.map(({ midi }) => midi))])) return;
    const next = figures[grip + 1];
    const lies = {
      from: takenAt(figure, isOpen),
      to: next?.from ? takenAt(next, isOpen) : figure.endTicks,
      grip,
    };
    for (const [index, change] of lying(figure, lies)) set(index, change);
  });
  return all;
}

/** With the first of its notes that is stopped: open strings before it leave the hand time to come. */
function takenAt(
  { moving, staying, alone, startTicks }: MovedFigure,
  isOpen: (midi: number) => boolean,
): number {
  const first = moving[0]!.onsetTicks;
  const before = [...staying, ...alone].filter(({ onsetTicks }) => onsetTicks < first);
  return before.every(({ midi }) => isOpen(midi)) ? first : startTicks;
}

function lying(
  { moving, from }: MovedFigure,
  lies: { readonly from: number; readonly to: number; readonly grip: number },
) {
  return moving.map(({ index, midi, onsetTicks, endTicks }, n): readonly [number, Partial<Strike>] => {
    const again = moving.slice(n + 1).find((other) => other.midi === midi);
    const before = moving.slice(0, n).findLast((other) => other.midi === midi);
    const change: Partial<Strike> = {
      grip: lies.grip,
      endTicks: Math.max(endTicks, again?.onsetTicks ?? lies.to),
      laidTicks: before ? onsetTicks : lies.from,
      continues: before?.index ?? null,
      // What lies of the round before is its last note of that pitch.
      parallelFrom: before || !from ? null : (lastOf(from, from[n]!.midi)?.index ?? null),
    };
    return [index, change];
  });
}

const lastOf = (notes: readonly Strike[], midi: number) => notes.findLast((other) => other.midi === midi);
