import { describe, expect, it } from 'vitest';
import { placeId } from './place';
import { maybeStandAt, NO_STAND, alsoOn, standOn } from './stand';
import { isTaught } from './taughtShapes';

/** As "string/fret" of fingers 1 to 4; several strings under one finger with "+". */
const shape = (...fingers: (string | null)[]) =>
  [0, 1, 2, 3].map((k) =>
    maybeStandAt(
      (fingers[k] ?? '')
        .split('+')
        .filter((one) => one)
        .map((one) => {
          const [string, fret] = one.split('/').map(Number);
          return placeId({ string: string!, fret: fret!, finger: k + 1 });
        })
        .reduce((stand, place) => (stand === NO_STAND ? standOn(place) : alsoOn(stand, place)), NO_STAND),
    ),
  );

describe('shapes of chords as they are taught (handbook 13)', () => {
  it.each([
    ['D major 1 3 2', shape('3/2', '1/2', '2/3')],
    ['A major 1 2 3', shape('4/2', '3/2', '2/2')],
    ['A major 2 1 3', shape('3/2', '4/2', '2/2')],
    ['A major 2 3 4', shape(null, '4/2', '3/2', '2/2')],
    ['A minor 2 3 1', shape('2/1', '4/2', '3/2')],
    ['E major 2 3 1', shape('3/1', '5/2', '4/2')],
    ['C major 3 2 1', shape('2/1', '4/2', '5/3')],
    ['G major 2 1 3', shape('5/2', '6/3', '1/3')],
    ['G major 3 2 4', shape(null, '5/2', '6/3', '1/3')],
    ['a part of D major', shape(null, '1/2', '2/3')],
    ['a diminished triad 2 1 3', shape('2/3', '3/4', '1/4')],
    ['the same at the tenth fret', shape('2/9', '3/10', '1/10')],
    ['a minor triad 2 1 3 on inner strings', shape('3/6', '4/7', '2/7')],
    ['a sixth on one fret', shape(null, '3/7', '1/7')],
    ['C major two frets up', shape('2/3', '4/4', '5/5')],
  ])('%s is one', (_name, fingers) => expect(isTaught(fingers)).toBe(true));

  it.each([
    ['nothing', shape()],
    ['a part of a triad that is moved as a whole', shape('2/1', null, null, '4/4')],
    ['a finger alone', shape('2/1')],
    ['A minor with 2 and 3 changed', shape('2/1', '3/2', '4/2')],
    ['fingers that crowd on one fret', shape('2/5', '1/5')],
    ['a barre', shape('1/5+2/5', '3/6')],
    ['D major with a string between', shape('4/2', '1/2', '2/3')],
  ])('%s is none', (_name, fingers) => expect(isTaught(fingers)).toBe(false));
});
