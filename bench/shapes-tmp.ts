import { CHORD_SHAPES, fingeringsOf } from '../calibration/shapes';
import { handState } from '../src/core/fingering/left/handState';
import { chargeStanding } from '../src/core/fingering/left/stateCost';
import { chargeStruck, handMiddle } from '../src/core/fingering/left/stateCost';
import { entryCost } from '../src/core/fingering/left/barreCost';
import { Bill } from '../src/core/fingering/left/ledger';
import { leftWeights } from '../src/core/fingering/left/weights';
import { CONCERT_FRETBOARD } from '../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../src/core/instrument/hands';
import { STANDARD_TUNING } from '../src/core/instrument/tuning';
const weights = leftWeights('balanced', ADULT_MEDIUM);
const geometry = { fretboard: CONCERT_FRETBOARD, hand: ADULT_MEDIUM, weights, tuning: STANDARD_TUNING };
let first = 0, three = 0, none = 0, sum = 0; const bad: string[] = [];
const t = performance.now();
for (const shape of CHORD_SHAPES) {
  const all = fingeringsOf(shape).map((places) => {
    const state = handState(places.map((_x, k) => k), places, null);
    const bill = new Bill(weights, undefined);
    chargeStanding(geometry, state, bill);
    const middle = handMiddle(state);
    places.forEach((p, k) => chargeStruck({ role: k === places.length - 1 ? 'melody' : 'inner', printed: { finger: null, string: null, pluck: null } as any, ornamented: false }, p, middle, bill));
    return { key: places.map((p) => p.finger).join(''), cost: bill.sum + entryCost(geometry, state) };
  }).sort((a, b) => a.cost - b.cost);
  const want = shape.placements.map((p) => p.finger).join('');
  const rank = all.findIndex((x) => x.key === want);
  sum += all.length;
  if (rank < 0) { none++; if (none < 12) console.log('unplayable', shape.name, shape.placements.map((p) => `${p.string}/${p.fret}-${p.finger}`).join(' ')); }
  else { if (rank === 0) first++; if (rank < 3) three++; if (rank > 0) bad.push(`${shape.name} ${shape.placements.map((p) => p.fret).join(',')} want ${want}(${all[rank]!.cost}) got ${all[0]!.key}(${all[0]!.cost})`); }
}
console.log(CHORD_SHAPES.length, 'first', (100 * first / CHORD_SHAPES.length).toFixed(1), 'three', (100 * three / CHORD_SHAPES.length).toFixed(1), 'unplayable', none, 'avg', sum / CHORD_SHAPES.length, 'ms', performance.now() - t);
for (let k = 0; k < bad.length; k += Math.ceil(bad.length / 40)) console.log(bad[k]);
