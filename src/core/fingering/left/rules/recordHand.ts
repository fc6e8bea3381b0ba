/** A record as rules see it. */
import type { Moment } from '../../problem/problem';
import { type Hand, LONG_FREE } from './hand';
import type { HandState } from './handState';
import { NO_PLACE } from './place';
import { NO_RANGE, rangeId } from './range';

/** The strikes that may sound at a moment: its columns. */
export const columnsOf = ({ held, struck }: Moment): readonly number[] => [...held, ...struck];

export function recordHand(state: HandState, moment: Moment): Hand {
  const columns = columnsOf(moment);
  const { range, memory, stands } = state;
  const placeOn = (column: number) => state.places[state.strikes.indexOf(columns[column]!)] ?? NO_PLACE;
  const standing = range ?? memory?.range;
  return {
    columns: columns.length,
    placeOn,
    placeOfStruck: (k) => placeOn(moment.held.length + k),
    standUnder: (finger) => stands[finger - 1]!,
    down: state.slotOfFinger.reduce(
      (bits, slot, finger) => (slot < 0 ? bits : bits | ((1 << finger) >> 1)),
      0,
    ),
    range: standing ? rangeId(standing) : NO_RANGE,
    waitedTicks: memory && waitedTicks(memory.freedTick, moment),
  };
}

const waitedTicks = (freedTick: number, { tick }: Moment) =>
  freedTick === LONG_FREE ? LONG_FREE : tick - freedTick;
