/** The index finger of the integer program: what it lays, and what laying it costs. */
import { priceOf } from '../../src/core/fingering/left/rules/ledger';
import { BARRE_SIZE } from '../../src/core/fingering/left/rules/terms';
import { BARRE_PREPARED_SHARE } from '../../src/core/fingering/left/rules/shares';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import { stopsSomething } from './gripRows';
import type { Staying } from './handPath';
import { type Column, sum, under } from './integerProgram';
import type { LinearProgram } from './linearProgram';

/** Strings on a fret, from the highest-pitched to the lowest-pitched. */
interface Span {
  readonly fret: number;
  readonly first: number;
  readonly last: number;
}

/** Finger 1 as a path over what it does: nothing, a tip on a fret, a barre; and which barre lies on all the while. */
interface IndexGrip extends Span {
  readonly name: string;
  readonly lies: Span | null;
}

export function indexFinger(
  model: LinearProgram,
  problem: FingeringProblem,
  columns: readonly (readonly Column[])[],
  staying: readonly (readonly Staying[])[],
) {
  let before: readonly IndexGrip[] = [];
  const laid: Span[] = [];
  columns.forEach((at, k) => {
    const index = under(at, 1);
    const own = spansAt(index, problem.hand.barreStringsAtMost);
    const grips = gripsAt(k, own, laid);
    for (const { name } of grips) model.binaries.add(name);
    model.exactlyOne(grips.map(({ name }) => name));
    for (const grip of grips) underGrip(model, grip, index);
    for (const grip of grips) if (grip.lies) lyingOn(model, grip.name, grip.lies, at, staying[k]!);
    const bars = grips.filter(isBar);
    model.binaries.add(`B_${k}`);
    model.flow(
      `B_${k}`,
      bars.map(({ name }) => name),
    );
    // A shape is paid as something is stopped in it.
    const something = stopsSomething(problem.moments[k]!);
    for (const bar of bars)
      model.together(priceOf(problem.weights, 'barreHold', BARRE_SIZE[bar.last - bar.first + 1]!), [
        bar.name,
        something,
      ]);
    if (k === 0) for (const bar of bars) model.cost(layingCost(problem, null, bar), bar.name);
    else onwards(model, problem, k, before, grips);
    for (const bar of bars) if (isKept(bar) && !laid.some((one) => sameSpan(one, bar))) laid.push(bar);
    before = grips;
  });
}

/** Over three strings or more it lies on. */
const isKept = ({ first, last }: Span) => last - first >= 2;
const isBar = ({ first, last }: Span) => last > first;
const sameSpan = (a: Span, b: Span) => a.fret === b.fret && a.first === b.first && a.last === b.last;
const covers = (a: Span, b: Span) => a.fret === b.fret && a.first <= b.first && a.last >= b.last;
const NOTHING: Span = { fret: -1, first: 0, last: 0 };

/** It begins and ends where notes may lie under it. */
function spansAt(index: readonly Column[], stringsAtMost: number): readonly Span[] {
  const spans: Span[] = [NOTHING];
  for (const fret of new Set(index.map(({ place }) => place.fret))) {
    const strings = [
      ...new Set(index.filter(({ place }) => place.fret === fret).map(({ place }) => place.string)),
    ];
    for (const first of strings)
      for (const last of strings)
        if (last >= first && last < first + stringsAtMost) spans.push({ fret, first, last });
  }
  return spans;
}

/** Each by itself, and with every barre that may have been laid before and covers it. */
function gripsAt(k: number, own: readonly Span[], laid: readonly Span[]): readonly IndexGrip[] {
  const nameOf = ({ fret, first, last }: Span) => (fret < 0 ? 'none' : `${fret}_${first}_${last}`);
  return own.flatMap((span) => [
    { ...span, lies: null, name: `g_${k}_${nameOf(span)}` },
    ...laid
      .filter((barre) => (span.fret < 0 || covers(barre, span)) && !sameSpan(barre, span))
      .map((lies) => ({ ...span, lies, name: `g_${k}_${nameOf(span)}_l_${nameOf(lies)}` })),
  ]);
}

/** The hand stays at its fret, nothing is stopped nutwards of it, and nothing but finger 1 lies under it. */
function lyingOn(
  model: LinearProgram,
  name: string,
  { fret, first, last }: Span,
  columns: readonly Column[],
  staying: readonly Staying[],
) {
  for (const stand of staying) if (fret < stand.from || fret > stand.to) model.notBoth(name, stand.name);
  for (const column of columns) {
    const { place } = column;
    const under = place.string >= first && place.string <= last;
    const open = place.finger === 0 && under;
    const beside = place.finger > 1 && (place.fret < fret || (under && place.fret === fret));
    if (open || beside) model.notBoth(name, column.name);
  }
}

/** What lies under a grip, and nothing else of finger 1. */
function underGrip(model: LinearProgram, grip: IndexGrip, index: readonly Column[]) {
  const onFret = index.filter(({ place }) => place.fret === grip.fret);
  if (grip.fret >= 0)
    for (const string of [grip.first, grip.last])
      model.row([[-1, grip.name], ...sum(onFret.filter(({ place }) => place.string === string))], '>=', 0);
  for (const { name, place } of index)
    if (place.fret !== grip.fret || place.string < grip.first || place.string > grip.last)
      model.notBoth(grip.name, name);
}

/** The barre that lies in a grip. */
const barreIn = (grip: IndexGrip): Span | null => grip.lies ?? (isBar(grip) ? grip : null);

function onwards(
  model: LinearProgram,
  problem: FingeringProblem,
  k: number,
  before: readonly IndexGrip[],
  grips: readonly IndexGrip[],
) {
  const goesOn = (from: IndexGrip, { lies }: IndexGrip) => {
    const barre = barreIn(from);
    return lies === null || (barre !== null && sameSpan(barre, lies));
  };
  const ways = before.flatMap((from) =>
    grips
      .filter((to) => goesOn(from, to))
      .map((to) => ({ from, to, name: `b_${k}_${from.name}_${to.name}` })),
  );
  const namesOf = (some: readonly IndexGrip[]) => some.map(({ name }) => name);
  model.path(ways, namesOf(before), namesOf(grips));
  for (const { from, to, name } of ways)
    if (isBar(to)) model.cost(layingCost(problem, barreIn(from) ?? from, to), name);
}

function layingCost(problem: FingeringProblem, from: Span | null, to: Span): number {
  const full = priceOf(problem.weights, 'barre', to.fret) * BARRE_SIZE[to.last - to.first + 1]!;
  const lies = from !== null && from.fret === to.fret;
  const barred = lies && from.last > from.first;
  if (barred && from.first <= to.first && from.last >= to.last) return 0;
  const share = barred ? BARRE_PREPARED_SHARE.smallerBarre : lies ? BARRE_PREPARED_SHARE.finger : 1;
  return Math.round(full * share);
}
