/**
 * Whether weights alone could make accepted fingerings the cheapest. An example that no weights separate even by itself
 * lacks a state; one that its family does not let through lacks a condition; one that falls only beside all others is in
 * another texture, or contradicts them.
 */
import type { Example } from './example';
import { fitFactors, type FitRules } from './fit';

export interface Separability {
  readonly alone: readonly string[];
  readonly inFamily: readonly string[];
  readonly together: readonly string[];
}

/** Almost no pull: only the range of the factors holds them. */
const FREE_PULL = 1e-6;

/** Examples that are not separated, each in the first list that it belongs to. @param rules those of the fit */
export function notSeparable(examples: readonly Example[], rules: FitRules): Separability {
  const free = { ...rules, pull: FREE_PULL };
  const alone = examples.filter((one) => !isSeparated(one, fitFactors([one], free).factors));
  const rest = examples.filter((one) => !alone.includes(one));
  const inFamily = [...new Set(rest.map(({ family }) => family))].flatMap((family) => {
    const own = rest.filter((one) => one.family === family);
    const { factors } = fitFactors(own, free);
    return own.filter((one) => !isSeparated(one, factors));
  });
  const left = rest.filter((one) => !inFamily.includes(one));
  const { factors } = fitFactors(left, free);
  const ids = (some: readonly Example[]) => some.map(({ id }) => id);
  return {
    alone: ids(alone),
    inFamily: ids(inFamily),
    together: ids(left.filter((one) => !isSeparated(one, factors))),
  };
}

/** Whether every rival costs more, by however little. */
export const isSeparated = ({ rivals }: Example, factors: ReadonlyMap<string, number>): boolean =>
  rivals.every(({ above }) => {
    let distance = 0;
    for (const [term, cost] of above) distance += cost * (factors.get(term) ?? 1);
    return distance > 0;
  });
