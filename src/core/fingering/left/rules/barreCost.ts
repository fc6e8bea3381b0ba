/** Laying barres: what is left to do when one, or a finger on its fret, lies there already. */
import type { FingeringProblem } from '../../problem/problem';
import { isArched } from './constraints';
import { type Barre, type HandState, placeUnder, type SmallBarre, stringsUnder } from './handState';
import { Bill, type Ledger, priceOf } from './ledger';
import { BARRE_PREPARED_SHARE, BARRE_SIZE } from './terms';

/** `from` is null at the start of the piece. */
export function barreCost(
  problem: Pick<FingeringProblem, 'weights'>,
  from: HandState | null,
  to: HandState,
  ledger?: Ledger,
): number {
  if (!to.barre && to.smallBarres.length === 0) return 0;
  const bill = new Bill(problem.weights, ledger);
  if (to.barre) chargeBarre(problem, from, to, to.barre, bill);
  for (const barre of to.smallBarres) {
    if (!from || !liesAlready(from, barre)) bill.charge('smallBarre', stringsUnder(barre) - 1);
  }
  return bill.sum;
}

function chargeBarre(
  problem: Pick<FingeringProblem, 'weights'>,
  from: HandState | null,
  to: HandState,
  barre: Barre,
  bill: Bill,
) {
  const full = priceOf(problem.weights, 'barre', barre.fret) * BARRE_SIZE[stringsUnder(barre)]!;
  const lying = from?.barre?.fret === barre.fret ? from.barre : null;
  if (lying && covers(lying, barre)) return;
  const prepared = from !== null && placeUnder(from, 1)?.fret === barre.fret;
  const share = lying ? BARRE_PREPARED_SHARE.smallerBarre : prepared ? BARRE_PREPARED_SHARE.finger : 1;
  bill.add('barre', Math.round(full * share));
  if (isArched(barre, to.placements)) bill.charge('archedBarre', 1);
}

const covers = (lying: Barre, barre: Barre) =>
  lying.firstString <= barre.firstString && lying.lastString >= barre.lastString;

const liesAlready = (from: HandState, barre: SmallBarre) =>
  from.smallBarres.some(
    (one) => one.finger === barre.finger && one.fret === barre.fret && covers(one, barre),
  );

/** What a state costs as the first one: a barre must be laid there, too. */
export const entryCost = (
  problem: Pick<FingeringProblem, 'weights'>,
  state: HandState,
  ledger?: Ledger,
): number => barreCost(problem, null, state, ledger);
