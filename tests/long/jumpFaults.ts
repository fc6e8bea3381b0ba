/** Faults of ways back, and of edits on a part of the states. */
import type { Fault } from './fault';

const ON_BASES = 'src/core/fingering/dual/handsPlanner.test.ts';

export const JUMP_FAULTS: readonly Fault[] = [
  {
    name: 'a way back costs nothing',
    file: 'src/core/fingering/left/lattice/handJumps.ts',
    find: 'price[n] = times * costs.price(a, b)',
    put: 'price[n] = 0 * costs.price(a, b)',
  },
  {
    name: 'the first hand tried is taken',
    file: 'src/core/fingering/solver/jumps.ts',
    find: 'if (least[c]! >= most) break;',
    put: 'if (least[c]! >= 0) break;',
  },
  {
    name: 'a way back costs the right hand nothing',
    file: 'src/core/fingering/right/lattice/strokeJumps.ts',
    find: '= times * way[e]!;',
    put: '= 0 * way[e]!;',
    tests: ['src/core/fingering/right/lattice/planRight.test.ts'],
  },
  {
    name: 'shares of a jump say more than it costs',
    file: 'src/core/fingering/solver/jumps.ts',
    find: 'if (rest < least[at]!) least[at] = rest;',
    put: 'if (least[at] === UNREACHABLE || rest > least[at]!) least[at] = rest;',
  },
  {
    name: 'a base answers after ink was taken away',
    file: 'src/core/fingering/dual/handsPlanner.ts',
    find: 'this.bases.find((one) => isBaseOf(one, ink))',
    put: 'this.bases[0]',
    tests: [ON_BASES],
  },
];
