/** The hand of the integer program: a path over the places where it can stay. */
import { priceOf } from '../../src/core/fingering/left/rules/ledger';
import { SQUEEZED_IN_FIGURE } from '../../src/core/fingering/left/rules/shares';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import type { FingeringProblem, Moment } from '../../src/core/fingering/problem/problem';
import { isPlaced, wholeNow } from './gripRows';
import { anyOf, type Column, sum, under } from './integerProgram';
import type { LinearProgram } from './linearProgram';

const base = ({ fret, finger }: Placement) => fret - (finger - 1);
const NOWHERE = 'n';

/** Where the hand stands: least and greatest place of finger 1, where it stays, and since when it has been free. */
interface Stand {
  readonly name: string;
  readonly low: number;
  readonly high: number;
  /** Of a finger alone; null for several, which lie between `low` and `high`, 0: nowhere yet. */
  readonly anchor: number | null;
  /** Moment in which it was last held; −1: it never was. */
  readonly heldAt: number;
}

/** A stand by its name, and the frets between which the hand stays in it. */
export interface Staying {
  readonly name: string;
  readonly from: number;
  readonly to: number;
}

/**
 * The hand as a path over the places where it can stand; a free hand stays where it was, and gains time. Under a barre
 * it stands where finger 1 lies, however the others are placed.
 */
export function handWays(
  model: LinearProgram,
  problem: FingeringProblem,
  columns: readonly (readonly Column[])[],
  barres: boolean,
): readonly (readonly Staying[])[] {
  let before: readonly Stand[] = [];
  const staying: Staying[][] = [];
  problem.moments.forEach((moment, k) => {
    const stopped = columns[k]!.filter(({ place }) => place.finger > 0);
    const stands = standsAt(k, stopped, before);
    const names = stands.map(({ name }) => name);
    for (const name of names) model.binaries.add(name);
    model.exactlyOne(names);
    for (const stand of stands) {
      if (stand.heldAt !== k) for (const column of stopped) model.notBoth(stand.name, column.name);
      else heldStand(model, stand, stopped, barres);
    }
    const placed = stopped.filter(({ strike }) => isPlaced(moment, strike));
    for (const stand of stands) if (stand.heldAt === k) reaching(model, problem, moment, stand, placed);
    if (k > 0) standWays(model, problem, moment, { before, stands, stopped });
    else
      for (const stand of stands) {
        model.cost(wayCost(problem, NOWHERE_YET, stand), stand.name);
        idleIndex(model, problem, { from: NOWHERE_YET, to: stand, name: stand.name }, stopped);
      }
    before = stands;
    staying.push(stands.map((stand) => ({ name: stand.name, from: nearest(stand), to: farthest(stand) })));
  });
  return staying;
}

/** Held anew between two of the bases of what is stopped, or free where it was. */
function standsAt(k: number, stopped: readonly Column[], before: readonly Stand[]): readonly Stand[] {
  const bases = [...new Set(stopped.map(({ place }) => base(place)))];
  const held = bases.flatMap((low) =>
    bases
      .filter((high) => high >= low)
      .flatMap((high) =>
        staysFor(low, high).map((anchor): Stand => ({
          name: `s_${k}_${code(low)}_${code(high)}_a${anchor}`,
          low,
          high,
          anchor,
          heldAt: k,
        })),
      ),
  );
  const freed = (k === 0 ? [NOWHERE_YET] : before).map((stand): Stand => ({
    ...stand,
    name: `s_${k}_${code(stand.low)}_${code(stand.high)}_a${stand.anchor}_${stand.heldAt < 0 ? NOWHERE : stand.heldAt}`,
  }));
  return [...held, ...freed];
}

const NOWHERE_YET: Stand = { low: 0, high: 0, anchor: 0, heldAt: -1, name: '' };

/** Where a hand can stay: between its bases, or for a finger alone a fret beside it, too, never over the nut. */
function staysFor(low: number, high: number): readonly (number | null)[] {
  if (low < high) return [null];
  const [first, last] = [Math.max(1, low - 1), Math.max(1, high + 1)];
  return [null, ...Array.from({ length: last - first + 1 }, (_, k) => first + k)];
}

const nearest = ({ low, anchor }: Stand) => anchor ?? Math.max(1, low);
const farthest = ({ high, anchor }: Stand) => anchor ?? Math.max(1, high);

/** What fingers pay that lie beside the position as something is placed. */
function reaching(
  model: LinearProgram,
  problem: FingeringProblem,
  moment: Moment,
  { name, low, high, anchor }: Stand,
  placed: readonly Column[],
) {
  const { weights, strikes } = problem;
  const inFigure = moment.struck.every((strike) => strikes[strike]!.manner === 'figure');
  const share = inFigure ? SQUEEZED_IN_FIGURE : 1;
  for (const column of placed) {
    const off = anchor === null ? 0 : low - anchor;
    const { finger } = column.place;
    const opens = finger === 1 ? off < 0 : finger === 4 && off > 0;
    const behindAtNut = anchor === 1 && off === -1;
    const squeezed = share * (anchor === null ? Math.max(0, 1 - high) : behindAtNut ? 1 / 4 : Math.abs(off));
    const cost = opens ? priceOf(weights, 'opening', Math.abs(off)) : priceOf(weights, 'squeeze', squeezed);
    if (cost === 0) continue;
    // Once, however many notes are placed.
    const paid = `e_${name}_${cost}`;
    const whole = moment.taken.includes(column.strike)
      ? [[1, wholeNow(problem, moment, column.strike)] as const]
      : [];
    model.row([[1, paid], [-1, name], [-1, column.name], ...whole], '>=', -1);
    model.costOnce(cost, paid);
  }
}

/** It reaches from its least to its greatest base, and no further. */
function heldStand(
  model: LinearProgram,
  { name, low, high, anchor, heldAt: k }: Stand,
  stopped: readonly Column[],
  barres: boolean,
) {
  for (const end of [low, high])
    model.row([[-1, name], ...sum(stopped.filter(({ place }) => base(place) === end))], '>=', 0);
  const barred = barres ? [[-1, `B_${k}`] as const] : [];
  for (const column of stopped)
    if (base(column.place) < low || base(column.place) > high)
      model.row([[1, name], [1, column.name], ...(column.place.finger > 1 ? barred : [])], '<=', 1);
  if (barres && (low < high || anchor !== null)) model.notBoth(name, `B_${k}`);
  // With another finger down the hand goes along; a finger alone stays somewhere.
  if (anchor !== null) alone(model, name, stopped);
  else if (low === high && stopped.length > 0) several(model, name, stopped, barres ? `B_${k}` : null);
}

/** No two fingers are down. */
function alone(model: LinearProgram, name: string, stopped: readonly Column[]) {
  for (const [i, a] of stopped.entries())
    for (const b of stopped.slice(0, i))
      if (a.place.finger !== b.place.finger) model.row([[1, name], ...sum([a, b])], '<=', 2);
}

/** Two fingers at least are down, or a barre lies. */
function several(model: LinearProgram, name: string, stopped: readonly Column[], barre: string | null) {
  const fingers = [1, 2, 3, 4].map((finger) => ({ finger, down: `d_${name}_${finger}` }));
  for (const { finger, down } of fingers) {
    model.binaries.add(down);
    model.row([[1, down], ...sum(under(stopped, finger), -1)], '<=', 0);
  }
  const barred = barre ? [[2, barre] as const] : [];
  model.row([[-2, name], ...fingers.map(({ down }) => [1, down] as const), ...barred], '>=', 0);
}

function standWays(
  model: LinearProgram,
  problem: FingeringProblem,
  moment: Moment,
  {
    before,
    stands,
    stopped,
  }: {
    readonly before: readonly Stand[];
    readonly stands: readonly Stand[];
    readonly stopped: readonly Column[];
  },
) {
  const k = moment.index;
  const stays = (from: Stand, to: Stand) =>
    to.heldAt === from.heldAt && to.low === from.low && to.high === from.high && to.anchor === from.anchor;
  const ways = before.flatMap((from) =>
    stands
      .filter((to) => to.heldAt === k || stays(from, to))
      .map((to) => ({ from, to, name: `w_${from.name}_${to.name}` })),
  );
  const namesOf = (some: readonly Stand[]) => some.map(({ name }) => name);
  model.path(ways, namesOf(before), namesOf(stands));
  for (const way of ways) {
    if (way.to.heldAt !== k) continue;
    model.cost(wayCost(problem, way.from, way.to), way.name);
    idleIndex(model, problem, way, stopped);
  }
}

/** What is spared by coming with the first finger idle is paid back: it is as if the hand had come a fret higher. */
function idleIndex(
  model: LinearProgram,
  problem: FingeringProblem,
  { from, to, name }: { readonly from: Stand; readonly to: Stand; readonly name: string },
  stopped: readonly Column[],
) {
  const more = comes(from, to) ? wayCost(problem, from, to, 1) - wayCost(problem, from, to) : 0;
  if (more === 0) return;
  const unless = under(stopped, 1).map((column) => column.name);
  const isSquare = nearest(to) === farthest(to);
  if (isSquare && nearest(to) === 1) {
    const reaching = under(stopped, 4).filter(({ place }) => place.fret >= 4);
    model.together(more, [name, anyOf(model, `f_${name}`, reaching)], unless);
  } else if (nearest(to) > 1 && isSquare && to.anchor === null) model.together(more, [name], unless);
  else if (nearest(to) > 1 && !isSquare) {
    const others = [2, 3, 4].map((finger) => anyOf(model, `f_${name}_${finger}`, under(stopped, finger)));
    model.together(more, [name, ...others], unless);
  }
}

/** Whether the hand changes its position: its ends do not touch, or its middle moves by more than a fret. */
function comes(from: Stand, to: Stand): boolean {
  if (from.heldAt < 0) return true;
  const middle = (stand: Stand) => (nearest(stand) + farthest(stand)) / 2;
  const apart = nearest(to) > farthest(from) || nearest(from) > farthest(to);
  return apart || Math.abs(middle(to) - middle(from)) > 1;
}

const code = (fret: number) => (fret < 0 ? `m${-fret}` : `${fret}`);

/** The frets that the hand comes up: between its ends, each 0.45 of its width towards the middle; the first counts 1.8. */
function wayCost({ weights }: FingeringProblem, from: Stand, to: Stand, higher = 0): number {
  if (to.anchor === 0) return 0;
  const inwards = (stand: Stand) => 0.9 * ((farthest(stand) - nearest(stand)) / 2);
  const start = from.heldAt < 0 ? 1 : farthest(from) - inwards(from);
  const height = (fret: number) => fret - 1 + 0.8 * Math.min(1, fret - 1);
  const up = height(nearest(to) + inwards(to) + higher) - height(start);
  return priceOf(weights, 'position', Math.max(0, up));
}
