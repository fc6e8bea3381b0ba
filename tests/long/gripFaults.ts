/** Faults of grips and anchors. Source of the list: what each of them must not do. */
import type { Fault } from './fault';

const OF_PASSAGES = ['tests/reference/exactness.test.ts'];

export const GRIP_FAULTS: readonly Fault[] = [
  {
    name: 'what a figure passes through is a tune',
    file: 'src/core/fingering/problem/brokenChords.ts',
    find: '&& !passed.has(midi)',
    put: '',
    tests: ['src/core/fingering/problem'],
  },
  {
    name: 'turns that come back are a tune',
    file: 'src/core/fingering/problem/brokenChords.ts',
    find: '!tune.every((midi) => comesBack(midi, tune))',
    put: 'new Set(tune).size > 1',
    tests: ['src/core/fingering/problem'],
  },
  {
    name: 'an open string and a stopped note have a string each, however high',
    file: 'src/core/fingering/problem/problem.ts',
    find: 'hand, LOW_FRETS)',
    put: 'hand)',
    tests: ['src/core/fingering/problem'],
  },
  {
    name: 'a chord of the lowest voice never ends',
    file: 'src/core/figures/thumb.ts',
    find: '&& !turnsUp(events, to)',
    put: '',
    tests: ['src/core/figures'],
  },
  {
    name: 'the fingers move inside a figure below a tune',
    file: 'src/core/fingering/right/rules/strokeCost.ts',
    find: 'MOVED_WITH_TUNE = 0.25',
    put: 'MOVED_WITH_TUNE = 0.2',
    tests: ['tests/reference/strokes.test.ts'],
  },
  {
    name: 'fingers far apart crowd each other',
    file: 'src/core/fingering/left/rules/shares.ts',
    find: 'CROWDED_FAR_APART = 0.5',
    put: 'CROWDED_FAR_APART = 1',
  },
  {
    name: 'a finger slides a semitone in a quick run',
    file: 'src/core/fingering/left/rules/shares.ts',
    find: 'SLID_IN_HURRY = 3',
    put: 'SLID_IN_HURRY = 1',
  },
  {
    name: 'a grip is let go for nothing',
    file: 'src/core/fingering/left/lattice/holds.ts',
    find: 'gone & (1 << bit) ? 0 : this.price(h, group.places[h]!, NO_PLACE)',
    put: 'gone & (1 << bit) || this.silent[h] ? 0 : this.price(h, group.places[h]!, NO_PLACE)',
    tests: [...OF_PASSAGES],
  },
  {
    name: 'a whole grip does not bind what is struck in it',
    file: 'src/core/fingering/left/lattice/holds.ts',
    find: 'grip !== null && holds.has(grip) ? place : NO_PLACE',
    put: 'NO_PLACE',
    tests: [...OF_PASSAGES],
  },
  {
    name: 'a broken grip goes on lying',
    file: 'src/core/fingering/left/lattice/holds.ts',
    find: 'else if (this.silent[h]) gone |= 1 << bit;',
    put: '',
    tests: [...OF_PASSAGES],
  },
  {
    name: 'several fingers reach out of the position, too',
    file: 'src/core/fingering/left/rules/anchor.ts',
    find: 'if (barred || fingers > 1)',
    put: 'if (barred)',
    tests: [...OF_PASSAGES],
  },
  {
    name: 'coming up the neck is not paid',
    file: 'src/core/fingering/left/rules/shift.ts',
    find: 'Math.max(0, heightOf(leastFretOf(to)) - heightOf(mostFretOf(before)))',
    put: '0',
    tests: ['src/core/fingering/left/rules', 'tests/reference/leftHand.test.ts'],
  },
  {
    name: 'notes of a grip that lies are paid again',
    file: 'src/core/fingering/left/rules/fresh.ts',
    find: 'return n >= 0 && isWhole(hand, n);',
    put: 'return n >= 0 && isWhole(hand, n) && n < 0;',
    tests: ['tests/reference/leftHand.test.ts', 'tests/reference/integerProgram.test.ts'],
  },
  {
    name: 'a barre lies on under an open string',
    file: 'src/core/fingering/left/rules/lyingBarre.ts',
    find: 'return finger === 0 ? covered :',
    put: 'return finger === 0 ? false :',
    tests: ['src/core/fingering/left/rules/lyingBarre.test.ts'],
  },
  {
    name: 'a barre that lies is never forgotten where the hand moves',
    file: 'src/core/fingering/left/rules/lyingBarre.ts',
    find: 'if (barre.fret < anchorLow(anchor) || barre.fret > anchorHigh(anchor)) return false;',
    put: '',
    tests: ['src/core/fingering/left/rules/lyingBarre.test.ts'],
  },
  {
    name: 'states forget which barre lies in the one before',
    file: 'src/core/fingering/left/lattice/lyingBarres.ts',
    find: 'const after = before.map((barre) => lyingAfter(barre, beside));',
    put: 'const after = before.map(() => lyingAfter(before[0]!, beside));',
    tests: [...OF_PASSAGES, 'tests/reference/integerProgram.test.ts'],
  },
  {
    name: 'taught shapes are known at one place only',
    file: 'src/core/fingering/left/rules/taughtShapes.ts',
    find: 'const lowest = Math.min(...form.map(({ fret }) => fret));',
    put: 'const lowest = 1;',
    tests: ['src/core/fingering/left/rules/taughtShapes.test.ts'],
  },
];
