/** Formulas of the right hand: orders of fingers that go round and round. Source: handbook, "Formulas". */
import type { Pluck } from '../../score/model';
import { TREMOLOS } from '../right/rules/tremolo';

export type FormulaKind = 'order' | 'arpeggio' | 'thumb' | 'line' | 'tremolo';

export interface Formula {
  /** Its letters, one after the other. */
  readonly id: string;
  readonly kind: FormulaKind;
  readonly letters: readonly Pluck[];
}

const FINGERS: readonly Pluck[] = ['p', 'i', 'm', 'a'];

/** Every order of some fingers, each once. */
export function ordersOf(fingers: readonly Pluck[]): readonly (readonly Pluck[])[] {
  if (fingers.length <= 1) return [fingers];
  return fingers.flatMap((first) =>
    ordersOf(fingers.filter((one) => one !== first)).map((rest) => [first, ...rest]),
  );
}

const formula = (kind: FormulaKind, letters: readonly Pluck[]): Formula => ({
  id: letters.join(''),
  kind,
  letters,
});

/** The 24 orders of p i m a: six begin with each finger. */
export const ORDERS: readonly Formula[] = ordersOf(FINGERS).map((letters) => formula('order', letters));

const spelled = (kind: FormulaKind, ...texts: readonly string[]): readonly Formula[] =>
  texts.map((text) => formula(kind, [...text] as Pluck[]));

/** Longer ones first, so that the whole figure is named rather than a part of it. */
export const FORMULAS: readonly Formula[] = [
  ...spelled('arpeggio', 'pimami', 'pamima', 'pimaimim', 'pipmpami', 'pimam', 'pmimam'),
  ...Object.values(TREMOLOS)
    .map((letters) => formula('tremolo', letters))
    .filter(({ letters }) => letters.length > 4),
  ...ORDERS,
  ...spelled('thumb', 'pipm', 'pimi', 'pmim', 'pama', 'pipa', 'pmpa'),
  ...spelled('arpeggio', 'pim', 'pmi', 'pma', 'pam', 'pia', 'pai'),
  ...spelled('line', 'ami', 'ima', 'mia'),
  ...spelled('thumb', 'pi', 'pm', 'pa'),
  ...spelled('line', 'im', 'mi', 'ma', 'am', 'ia', 'ai'),
].filter(({ id }, k, all) => all.findIndex((other) => other.id === id) === k);

export const maybeFormula = (id: string): Formula | null => FORMULAS.find((one) => one.id === id) ?? null;
