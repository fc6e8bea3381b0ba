/** A record as rules see it. */
import type { Moment } from '../../problem/problem';
import { type Hand, LONG_FREE } from './hand';
import type { HandState } from './handState';
import { NO_PLACE } from './place';
import { NO_RANGE, rangeId } from './range';

/** The strikes that may sound or lie at a moment, its columns: those that lie already come first. */
export const columnsOf = ({ held, taken, struck, laid }: Moment): readonly number[] => [
  ...held,
  ...taken,
  ...struck.filter((strike) => !taken.includes(strike)),
  ...laid,
];

export function recordHand(state: HandState, moment: Moment): Hand {
  const columns = columnsOf(moment);
  const placed = [...moment.struck, ...moment.laid];
  const { range, anchor, memory, stands, lying } = state;
  const placeOn = (column: number) => state.places[state.strikes.indexOf(columns[column]!)] ?? NO_PLACE;
  return {
    columns: columns.length,
    placeOn,
    placeOfStruck: (k) => placeOn(columns.indexOf(placed[k]!)),
    standUnder: (finger) => stands[finger - 1]!,
    lying,
    down: state.slotOfFinger.reduce(
      (bits, slot, finger) => (slot < 0 ? bits : bits | ((1 << finger) >> 1)),
      0,
    ),
    range: range ? rangeId(range) : NO_RANGE,
    anchor,
    waitedTicks: memory && waitedTicks(memory.freedTick, moment),
  };
}

const waitedTicks = (freedTick: number, { tick }: Moment) =>
  freedTick === LONG_FREE ? LONG_FREE : tick - freedTick;
