/** The index finger of the integer program: what it lays, and what laying it costs. */
import { priceOf } from '../../src/core/fingering/left/rules/ledger';
import { BARRE_SIZE } from '../../src/core/fingering/left/rules/terms';
import { BARRE_PREPARED_SHARE } from '../../src/core/fingering/left/rules/shares';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import { placesSomething } from './gripRows';
import { type Column, sum, under } from './integerProgram';
import type { LinearProgram } from './linearProgram';

/** Finger 1 as a path over what it does: nothing, a tip on a fret, a barre. */
interface IndexGrip {
  readonly name: string;
  readonly fret: number;
  readonly first: number;
  readonly last: number;
}

export function indexFinger(
  model: LinearProgram,
  problem: FingeringProblem,
  columns: readonly (readonly Column[])[],
) {
  let before: readonly IndexGrip[] = [];
  columns.forEach((at, k) => {
    const index = under(at, 1);
    const grips = gripsAt(k, index, problem.hand.barreStringsAtMost);
    for (const { name } of grips) model.binaries.add(name);
    model.exactlyOne(grips.map(({ name }) => name));
    for (const grip of grips) underGrip(model, grip, index);
    const bars = grips.filter((grip) => grip.last > grip.first);
    model.binaries.add(`B_${k}`);
    model.flow(
      `B_${k}`,
      bars.map(({ name }) => name),
    );
    // A shape is paid as something is placed in it.
    const something = placesSomething(problem.moments[k]!);
    for (const bar of bars)
      model.together(
        priceOf(problem.weights, 'barreHold', BARRE_SIZE[bar.last - bar.first + 1]!),
        something ? [bar.name, something] : [bar.name],
      );
    if (k === 0) for (const bar of bars) model.cost(layingCost(problem, null, bar), bar.name);
    else onwards(model, problem, k, before, grips);
    before = grips;
  });
}

function gripsAt(k: number, index: readonly Column[], stringsAtMost: number): readonly IndexGrip[] {
  const grips: IndexGrip[] = [{ name: `g_${k}_none`, fret: -1, first: 0, last: 0 }];
  for (const fret of new Set(index.map(({ place }) => place.fret)))
    for (let first = 1; first <= 6; first++)
      for (let last = first; last <= Math.min(6, first + stringsAtMost - 1); last++)
        grips.push({ name: `g_${k}_${fret}_${first}_${last}`, fret, first, last });
  return grips;
}

/** What lies under a grip, and nothing else of finger 1; it begins and ends where notes lie under it. */
function underGrip(model: LinearProgram, grip: IndexGrip, index: readonly Column[]) {
  const onFret = index.filter(({ place }) => place.fret === grip.fret);
  if (grip.fret >= 0)
    for (const string of [grip.first, grip.last])
      model.row([[-1, grip.name], ...sum(onFret.filter(({ place }) => place.string === string))], '>=', 0);
  for (const { name, place } of index)
    if (place.fret !== grip.fret || place.string < grip.first || place.string > grip.last)
      model.notBoth(grip.name, name);
}

function onwards(
  model: LinearProgram,
  problem: FingeringProblem,
  k: number,
  before: readonly IndexGrip[],
  grips: readonly IndexGrip[],
) {
  const ways = before.flatMap((from) =>
    grips.map((to) => ({ from, to, name: `b_${k}_${from.name}_${to.name}` })),
  );
  const namesOf = (some: readonly IndexGrip[]) => some.map(({ name }) => name);
  model.path(ways, namesOf(before), namesOf(grips));
  for (const { from, to, name } of ways)
    if (to.last > to.first) model.cost(layingCost(problem, from, to), name);
}

function layingCost(problem: FingeringProblem, from: IndexGrip | null, to: IndexGrip): number {
  const full = priceOf(problem.weights, 'barre', to.fret) * BARRE_SIZE[to.last - to.first + 1]!;
  const lies = from !== null && from.fret === to.fret;
  const barred = lies && from.last > from.first;
  if (barred && from.first <= to.first && from.last >= to.last) return 0;
  const share = barred ? BARRE_PREPARED_SHARE.smallerBarre : lies ? BARRE_PREPARED_SHARE.finger : 1;
  return Math.round(full * share);
}
