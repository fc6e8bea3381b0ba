/** Grips in the integer program: what lies together, what of it is placed anew, what is let go with it. */
import { priceOf } from '../../src/core/fingering/left/rules/ledger';
import { MOVED_REGRIP, UNHURRIED_REGRIP } from '../../src/core/fingering/left/rules/shares';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import type { FingeringProblem, Moment } from '../../src/core/fingering/problem/problem';
import { isSilent } from '../../src/core/fingering/problem/strike';
import { type Column, of, type Step, sum } from './integerProgram';
import type { LinearProgram } from './linearProgram';

/** What is laid of a grip lies all, or none of it does, at a price. */
export function laidTogether(
  model: LinearProgram,
  problem: FingeringProblem,
  { index, laid }: Moment,
  columns: readonly Column[],
) {
  if (laid.length === 0) return;
  const [all, none] = [`L_${index}`, `U_${index}`];
  for (const name of [all, none]) model.binaries.add(name);
  model.exactlyOne([all, none]);
  for (const strike of laid) model.row([[-1, all], ...sum(of(columns, strike))], '=', 0);
  model.cost(
    laid.reduce(
      (sum, strike) =>
        sum + priceOf(problem.weights, 'regrip', shareOf(problem, strike) / Math.sqrt(laid.length)),
      0,
    ),
    none,
  );
}

/** Slow notes are taken anew at ease. */
const shareOf = ({ strikes }: Pick<FingeringProblem, 'strikes'>, strike: number) =>
  strikes[strike]!.inMove === 'moves' ? MOVED_REGRIP : strikes[strike]!.unhurried ? UNHURRIED_REGRIP : 1;

/** What is placed at a moment in any case: struck and lying nowhere before, or laid. */
const isFresh = ({ struck, taken, laid }: Moment, strike: number) =>
  (struck.includes(strike) && !taken.includes(strike)) || laid.includes(strike);

/** Those, and what is struck where it lies as long as its grip is whole. */
export const isPlaced = (moment: Moment, strike: number) =>
  isFresh(moment, strike) || moment.taken.includes(strike);

/** Column that says that the grip of a note that is struck where it lies is whole: then it is not placed anew. */
export const wholeNow = ({ strikes }: FingeringProblem, { index }: Moment, strike: number) =>
  `W_${index}_${strikes[strike]!.grip}`;

/** Column that says that something is stopped anew at a moment: then its shape is paid. */
export const stopsSomething = ({ index }: Moment): string => `F_${index}`;

export function wholeGrips(
  model: LinearProgram,
  problem: FingeringProblem,
  moment: Moment,
  columns: readonly Column[],
) {
  const { strikes } = problem;
  for (const grip of new Set(moment.taken.map((strike) => strikes[strike]!.grip))) {
    const unit = [...moment.held, ...moment.taken].filter((strike) => strikes[strike]!.grip === grip);
    const whole = wholeNow(problem, moment, unit[0]!);
    model.binaries.add(whole);
    for (const strike of unit) model.row([[1, whole], ...sum(of(columns, strike), -1)], '<=', 0);
    model.row([[-1, whole], ...unit.flatMap((strike) => sum(of(columns, strike)))], '<=', unit.length - 1);
  }
  const something = stopsSomething(moment);
  model.binaries.add(something);
  for (const { name, strike, place } of columns) {
    if (place.finger === 0 || !isPlaced(moment, strike)) continue;
    const whole = moment.taken.includes(strike) ? [[1, wholeNow(problem, moment, strike)] as const] : [];
    model.row([[1, something], [-1, name], ...whole], '>=', 0);
  }
}

/**
 * Of a grip that lies whole everything stays, and what is struck in it stays where it lies, or nothing of it; of one that
 * is broken nothing stays that is not heard.
 */
export function gripsWhole(
  model: LinearProgram,
  { strikes, weights }: FingeringProblem,
  { next, before, after }: Step,
) {
  const grips = new Set(next.held.map((strike) => strikes[strike]!.grip).filter((grip) => grip !== null));
  for (const grip of grips) {
    const [whole, kept, lost] = ['C', 'K', 'R'].map((letter) => `${letter}_${next.index}_${grip}`) as [
      string,
      string,
      string,
    ];
    for (const name of [whole, kept]) model.binaries.add(name);
    const held = next.held.filter((one) => strikes[one]!.grip === grip);
    const taken = next.taken.filter((one) => strikes[one]!.grip === grip);
    const wasAt = (strike: number) =>
      taken.includes(strike)
        ? [...of(before, strike), ...of(before, strikes[strike]!.continues ?? -1)]
        : of(before, strike);
    const unit = [...held, ...taken].map(wasAt);
    for (const was of unit) model.row([[1, whole], ...sum(was, -1)], '<=', 0);
    model.row([[-1, whole], ...unit.flatMap((was) => sum(was))], '<=', unit.length - 1);
    model.row(
      [
        [1, kept],
        [-1, whole],
      ],
      '<=',
      0,
    );
    const silent = held.filter((strike) => isSilent(strikes[strike]!, next.tick)).length;
    for (const strike of held) {
      const stays = sum(of(after, strike));
      // An open string that is heard needs no hand.
      const heard = !isSilent(strikes[strike]!, next.tick);
      const openBefore = heard ? of(before, strike).filter(({ place }) => place.finger === 0) : [];
      model.row([[-1, kept], ...stays, ...sum(openBefore)], '>=', 0);
      if (isSilent(strikes[strike]!, next.tick)) {
        model.row([[-1, kept], ...stays], '<=', 0);
        const { manner } = strikes[strike]!;
        model.cost(
          priceOf(
            weights,
            'regrip',
            ((manner === 'drone' ? 3 : 1) * shareOf({ strikes }, strike)) / Math.sqrt(silent),
          ),
          lost,
        );
      } else {
        const stopped = sum(of(after, strike).filter(({ place }) => place.finger > 0));
        model.row([[1, whole], [-1, kept], ...stopped], '<=', 1);
      }
    }
    model.row(
      [
        [1, lost],
        [-1, whole],
        [1, kept],
      ],
      '>=',
      0,
    );
    for (const strike of taken)
      for (const was of wasAt(strike)) {
        const same = of(after, strike).filter(({ place }) => samePlace(place, was.place));
        model.row([[1, was.name], [1, kept], ...sum(same, -1)], '<=', 1);
      }
  }
}

const samePlace = (a: Placement, b: Placement) =>
  a.string === b.string && a.fret === b.fret && a.finger === b.finger;
