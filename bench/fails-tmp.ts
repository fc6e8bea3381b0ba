import { CHORD_SHAPES } from '../calibration/shapes';
import { pricedShape, costsOf } from '../calibration/shapeCosts';
import { fingeringsOf } from '../calibration/shapes';
import { LEFT_TERM_IDS, LEFT_TERMS } from '../src/core/fingering/left/terms';
const row = LEFT_TERM_IDS.map((id) => LEFT_TERMS[id].weight);
const count = new Map<string, { n: number; ex: string }>();
const diff = new Map<string, number[]>();
let first = 0, three = 0;
for (const shape of CHORD_SHAPES) {
  const p = pricedShape(shape);
  if (p.wanted < 0) continue;
  const costs = costsOf(p, row);
  const order = costs.map((c, k) => [c, k] as const).sort((a, b) => a[0] - b[0]);
  const rank = order.findIndex((o) => o[1] === p.wanted);
  if (rank === 0) { first++; three++; continue; }
  if (rank < 3) three++;
  const got = fingeringsOf(shape)[order[0]![1]]!;
  const min = Math.min(...shape.placements.filter((x) => x.fret > 0).map((x) => x.fret));
  const sig = [6, 5, 4, 3, 2, 1].map((s) => { const x = shape.placements.find((q) => q.string === s); return !x ? 'x' : x.fret === 0 ? '0' : String(x.fret - min + 1); }).join('');
  const w = shape.placements.map((x) => x.finger).join(''), g = got.map((x) => x.finger).join('');
  const key = `${sig} want ${w} got ${g}`;
  const e = count.get(key) ?? { n: 0, ex: '' }; e.n++;
  const d = LEFT_TERM_IDS.map((id, t) => [id, (p.amounts[p.wanted]![t]! - p.amounts[order[0]![1]]![t]!) * row[t]!] as const).filter((x) => Math.abs(x[1]) > 0.5);
  e.ex = `rank ${rank} ` + d.map((x) => `${x[0]} ${x[1].toFixed(0)}`).join(', ');
  count.set(key, e);
}
console.log(first / CHORD_SHAPES.length, three / CHORD_SHAPES.length);
for (const [k, v] of [...count].sort((a, b) => b[1].n - a[1].n).slice(0, 60)) console.log(v.n, k, '|', v.ex);
