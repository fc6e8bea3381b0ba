/** The deliberate faults: what is put in the place of which text, and which tests have to notice it. */
export interface Fault {
  readonly name: string;
  readonly file: string;
  readonly find: string;
  readonly put: string;
  /** The tests that have to notice it. */
  readonly tests?: readonly string[];
}

const LEFT = 'src/core/fingering/left';
const PACKED = `${LEFT}/packed`;
const RIGHT = 'src/core/fingering/right';
const JOINT = 'src/core/fingering/joint';
const OF_RIGHT = [RIGHT, 'tests/reference/strokes.test.ts'];
const OF_MODES = [RIGHT, 'src/core/figures', 'tests/reference/textures.test.ts'];
const OF_JOINT = [JOINT];
const CARRIED = 'src/core/fingering/planReport.ts';
const OF_PASSAGES = ['tests/reference/exactness.test.ts'];
const OF_HANDBOOK = ['tests/reference/handbook.test.ts'];
const OF_REPORT = ['src/core/fingering/planReport.test.ts'];

export const FAULTS: readonly Fault[] = [
  {
    name: 'two notes on one string',
    file: `${LEFT}/constraints.ts`,
    find: 'if (a.string === b.string) return false;',
    put: '',
  },
  {
    name: 'fingers may cross along the neck',
    file: `${LEFT}/constraints.ts`,
    find: 'if (low.fret > high.fret) return false;',
    put: '',
  },
  { name: 'reach without end', file: `${LEFT}/constraints.ts`, find: '.atMostMm;', put: '.atMostMm * 9;' },
  {
    name: 'open strings under a barre',
    file: `${LEFT}/constraints.ts`,
    find: '|| fret >= barre.fret',
    put: '|| fret >= 0',
  },
  {
    name: 'own cost of a state forgotten',
    file: 'src/core/fingering/lattice.ts',
    find: 'here[s]! += own[k]![s]!',
    put: 'here[s]! += 0 * own[k]![s]!',
  },
  {
    name: 'messages kept beyond the change',
    file: 'src/core/fingering/lattice.ts',
    find: 'known && k > last && sameCosts',
    put: 'known && k >= 0 && true || sameCosts',
  },
  {
    name: 'a bound that is too high',
    file: `${PACKED}/packedWays.ts`,
    find: 'costs[e]! + times * step.leastWay(state, to) > best',
    put: 'costs[e]! + 2 * step.leastWay(state, to) + 5 > best',
  },
  {
    name: 'the first neighbour wins',
    file: `${PACKED}/packedWays.ts`,
    find: 'if (costs[e]! > best) break;',
    put: 'if (k > 0) break;',
  },
  {
    name: 'a taken finger takes a note over',
    file: `${PACKED}/packedWays.ts`,
    find: 'this.before.down[from]!) !== 0;',
    put: 'this.before.down[from]!) > 99;',
  },
  {
    name: 'cuts cost nothing',
    file: `${PACKED}/packedWays.ts`,
    find: 'UNREACHABLE : this.entryCuts[e]! + ',
    put: 'UNREACHABLE : ',
  },
  {
    name: 'the second entrance is never tried',
    file: `${PACKED}/packedWays.ts`,
    find: 'if (next > most || next >= UNREACHABLE) continue;',
    put: 'if (next >= 0) continue;',
  },
  {
    name: 'a freed hand is come to from anywhere',
    file: `${PACKED}/families.ts`,
    find: 'rows.down[s]! > 0 ? STOPPED',
    put: 'rows.down[s]! >= 0 ? STOPPED',
  },
  {
    name: 'all hands share one table',
    file: `${PACKED}/handTables.ts`,
    find: 'const key = JSON.stringify(geometry);',
    put: "const key = 'one';",
  },
  {
    name: 'an open string may be let go at will',
    file: `${PACKED}/stateRows.ts`,
    find: 'sources.filter(({ freedOpen }) => (freedOpen & ~used) === 0)',
    put: 'sources',
  },
  {
    name: 'a hand-over for nothing',
    file: `${PACKED}/keptHands.ts`,
    find: '(cutCosts[h] === null ? 0 : handOver)',
    put: '0',
  },
  {
    name: 'a freed hand forgets where it was',
    file: `${PACKED}/keptHands.ts`,
    find: 'known.push({ range, waitedTicks, fingers });',
    put: 'known.push({ range: 0, waitedTicks, fingers });',
  },
  {
    name: 'steps that differ share their prices',
    file: `${PACKED}/step.ts`,
    find: '${cuts.join()};',
    put: '',
  },
  {
    name: 'slurs left out of the key',
    file: `${PACKED}/step.ts`,
    find: ";${ties.join('|')}",
    put: '',
  },
  {
    name: 'a barre lets the hand stand where it likes',
    file: `${PACKED}/stateRows.ts`,
    find: 'barred?.range ?? spanOf(chosen)',
    put: 'spanOf(chosen)',
  },
  {
    name: 'a freed hand forgets its barre',
    file: `${PACKED}/keptHands.ts`,
    find: 'fingersKey(before.fingers, 4 * s) * MOST_RANGES + range',
    put: 'fingersKey(before.fingers, 4 * s)',
    tests: OF_PASSAGES,
  },
  {
    name: 'twice as far is twice as dear',
    file: `${PACKED}/shiftTable.ts`,
    find: "priceOf(weights, 'shiftDistance', mm * part)",
    put: 'Math.round(weights.shiftDistance * mm * part)',
  },
  {
    name: 'a finger may slide from fret to fret',
    file: `${LEFT}/connectionCost.ts`,
    find: "bill.charge('lineSlide', 1);",
    put: "bill.charge('lineSlide', 0);",
    tests: OF_HANDBOOK,
  },
  {
    name: 'fingers may cross in a line',
    file: `${LEFT}/connectionCost.ts`,
    find: "bill.charge('order', CROSSED_IN_LINE);",
    put: "bill.charge('order', 0);",
    tests: OF_HANDBOOK,
  },
  {
    name: 'pivot and guide confused',
    file: `${PACKED}/stepPrice.ts`,
    find: 'if (p === q) return PIVOT;',
    put: 'if (p === q) return GUIDE;',
  },
  { name: 'hops cost nothing', file: `${PACKED}/stepPrice.ts`, find: 'sum += fingers & COST_BITS;', put: '' },
  {
    name: 'squeak on every guide',
    file: `${PACKED}/stepPrice.ts`,
    find: '=== guides ? this.once.squeak',
    put: '>= 0 ? this.once.squeak',
  },
  {
    name: 'ink is advice',
    file: `${LEFT}/planLeft.ts`,
    find: 'if (inked.length === 0) return null;',
    put: 'return null;',
  },
  {
    name: 'the strike keeps its own ink when it is priced',
    file: `${LEFT}/planLeft.ts`,
    find: 'for (const uid of strike.uids) others.delete(uid);',
    put: '',
  },
  {
    name: 'spread of fingers from the wrong one',
    file: `${PACKED}/handTables.ts`,
    find: '      last = k;\n    }\n    return sum;',
    put: '      last = 0;\n    }\n    return sum;',
  },
  {
    name: 'a way back costs nothing',
    file: `${LEFT}/returns.ts`,
    find: 'one.times * returnCost(',
    put: '0 * returnCost(',
  },
  {
    name: 'the first hand tried is taken',
    file: `${LEFT}/returns.ts`,
    find: '>= limit()) break;',
    put: '>= 0) break;',
  },
  {
    name: 'the first barre costs nothing',
    file: `${PACKED}/layerStore.ts`,
    find: 'stateCost[s]! += entryCost(tables.geometry, state);',
    put: 'stateCost[s]! += 0 * entryCost(tables.geometry, state);',
  },
  {
    name: 'a released finger is never late',
    file: `${PACKED}/stepTimes.ts`,
    find: 'Math.max(least, ms)',
    put: 'Math.max(least, 4 * ms + 1000)',
  },
  {
    name: 'p may play a string twice over',
    file: `${RIGHT}/strokes.ts`,
    find: 'if (thumbs < 0) continue;',
    put: 'if (thumbs < 0 || thumbs > 1) continue;',
    tests: OF_RIGHT,
  },
  {
    name: 'a run of p is forgotten at once',
    file: `${RIGHT}/memory.ts`,
    find: "return mode.kind === 'thumb' ? bare(mode) :",
    put: 'return',
    tests: OF_RIGHT,
  },
  {
    name: 'the set does not move',
    file: `${RIGHT}/strokeCost.ts`,
    find: 'Math.max(0, Math.abs(toPlace - fromPlace) - OWN_SPREAD_STRINGS)',
    put: '0 * Math.abs(toPlace - fromPlace) * OWN_SPREAD_STRINGS',
    tests: OF_RIGHT,
  },
  {
    name: 'situations are mixed up',
    file: `${RIGHT}/situations.ts`,
    find: 'rows.finger[s]! * thumbCount + rows.thumb[s]!',
    put: 'rows.finger[s]! * thumbCount',
    tests: OF_RIGHT,
  },
  {
    name: 'a layer is taken for another one',
    file: `${RIGHT}/strokeStore.ts`,
    find: '${before.situations.id}|${groups',
    put: '${groups',
    tests: OF_RIGHT,
  },
  {
    name: 'ways of the right hand from the wrong situation',
    file: `${RIGHT}/strokeWays.ts`,
    find: 'if (before[s]! >= cost[n]!) continue;',
    put: '',
    tests: OF_RIGHT,
  },
  {
    name: 'slurred notes are plucked',
    file: `${RIGHT}/strokes.ts`,
    find: '.filter(({ slurred }) => !slurred)',
    put: '.filter(({ slurred }) => !slurred || true)',
    tests: OF_RIGHT,
  },
  {
    name: 'inked letters bind nobody',
    file: `${RIGHT}/inkedLetters.ts`,
    find: 'lettersAgree(groups[variant]!, played.letters, inked) ? 1 : 0',
    put: 'lettersAgree(groups[variant]!, played.letters, inked) ? 1 : 1',
    tests: OF_RIGHT,
  },
  {
    name: 'another mode costs nothing',
    file: `${RIGHT}/strokeCost.ts`,
    find: "typeof mode !== 'string' && mode.kind !== now.mode.kind",
    put: "typeof mode === 'string' && mode === 'any' && now.mode === null",
    tests: OF_MODES,
  },
  {
    name: 'stations are forgotten from stroke to stroke',
    file: `${RIGHT}/stations.ts`,
    find: 'return { map: withFinger(map, now.string, finger),',
    put: 'return { map: mapOf(now),',
    tests: OF_MODES,
  },
  {
    name: 'a cycle is off by one stroke',
    file: `${RIGHT}/modes.ts`,
    find: 'letters[at % letters.length] === letter',
    put: 'letters[(at + 1) % letters.length] === letter',
    tests: OF_MODES,
  },
  {
    name: 'a turn need not go on with its next finger',
    file: `${RIGHT}/strokeCost.ts`,
    find: "bill.charge('offTurn', 1, looseness(group.gapMs))",
    put: "bill.charge('offTurn', 0, looseness(group.gapMs))",
    tests: OF_MODES,
  },
  {
    name: 'ink does not lift the filter on two strings for p',
    file: `${RIGHT}/inkedLetters.ts`,
    find: 'const group = liftedGroup(asked);',
    put: 'const group = asked;',
    tests: OF_MODES,
  },
  {
    name: 'what is not known of the stations costs as if it were',
    file: `${RIGHT}/stations.ts`,
    find: 'if (hazy) return',
    put: 'if (hazy && again) return',
    tests: OF_MODES,
  },
  {
    name: 'parts of different hands have one number',
    file: `${RIGHT}/memory.ts`,
    find: 'return ((map << 10) | stroke) * 2;',
    put: 'return ((map << 7) | stroke) * 2;',
    tests: OF_RIGHT,
  },
  {
    name: 'what strokes leave is taken from strokes on other strings',
    file: `${RIGHT}/partTable.ts`,
    find: 'const key = `${strings} ${letters',
    put: 'const key = `${letters',
    tests: OF_RIGHT,
  },
  {
    name: 'an accompaniment that is written stem-down is all bass',
    file: 'src/core/figures/thumb.ts',
    find: 'if (isInner(bass, n, held, answers)) return;',
    put: '',
    tests: OF_MODES,
  },
  {
    name: 'changing the texture is free',
    file: 'src/core/figures/segment.ts',
    find: 'const come = before[highest]! - change;',
    put: 'const come = before[highest]! - 0 * change;',
    tests: OF_MODES,
  },
  {
    name: 'the two hands never meet',
    file: `${JOINT}/planBoth.ts`,
    find: 'best = here.together.cheapest(question, states, extras, best);',
    put: '',
    tests: OF_JOINT,
  },
  {
    name: 'the proof stops too early',
    file: `${JOINT}/planBoth.ts`,
    find: '() => below(best.cost) - right.cost,',
    put: '() => below(best.cost) - right.cost - 40 * PARTS,',
    tests: OF_JOINT,
  },
  {
    name: 'a bound with prices that nobody gets',
    file: `${JOINT}/bound.ts`,
    find: 'byState[r] = 0 - prices[variantOf[r]!]!;',
    put: 'byState[r] = 0 * prices[variantOf[r]!]!;',
    tests: OF_JOINT,
  },
  {
    name: 'a bargain that knows nothing of inked letters',
    file: `${JOINT}/chain.ts`,
    find: '!mask || mask[r] === 1 ? cost : UNREACHABLE',
    put: 'cost',
    tests: ['tests/reference/exactness.test.ts', '-t', 'pile up'],
  },
  {
    name: 'what is left out is missing in the bound',
    file: `${JOINT}/bargain.ts`,
    find: 'price - PARTS * LEFT_OUT_COST * layer.plays * leftOut[v]!',
    put: 'price',
    tests: ['tests/reference/exactness.test.ts', '-t', 'pile up'],
  },
  {
    name: 'strings nobody has looked at leave nothing out',
    file: `${JOINT}/core.ts`,
    find: 'leftOut.some((count) => count > 0) ? leastLeftOut() : 0',
    put: '0',
    tests: ['tests/reference/exactness.test.ts', '-t', 'pile up'],
  },
  {
    name: 'a note sounds on as under another hand',
    file: CARRIED,
    find: 'others[last!.sounds[strike]!.until + 1] === others[momentOf[strike]!]',
    put: 'others[momentOf[strike]! + 1] === others[momentOf[strike]!]',
    tests: OF_REPORT,
  },
  {
    name: 'rest strokes that do not look at their neighbours',
    file: CARRIED,
    find: 'previous[k] !== undefined && sameAround(k)',
    put: 'previous[k] !== undefined && same(k)',
    tests: OF_REPORT,
  },
  {
    name: 'steps kept after another memory',
    file: CARRIED,
    find: 'sameGroup(k) && isSameAfter(last.steps[k]!, before, problem, k)',
    put: 'sameGroup(k)',
    tests: OF_REPORT,
  },
  {
    name: 'what was near the last time is near under any ink',
    file: `${JOINT}/core.ts`,
    find: 'backward.cost[k] === known!.backward.cost[k] &&',
    put: '',
    tests: ['tests/reference/exactness.test.ts', '-t', 'one edit and another'],
  },
  {
    name: 'ways of both hands from any left hand',
    file: `${JOINT}/jointLayer.ts`,
    find: 'const way = times * price;',
    put: 'const way = 0 * times * price;',
    tests: OF_JOINT,
  },
];
