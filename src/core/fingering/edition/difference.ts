/** Two states of an edition held against each other. */
import type { Attribute, Value } from './attributes';
import { listRegisters, type Registers } from './registers';

export interface Difference {
  readonly target: string;
  readonly attribute: Attribute;
  readonly now: Value;
  readonly then: Value;
}

/** Everything that is not the same in both, in the order in which it was first set. */
export function differencesOf(now: Registers, then: Registers): readonly Difference[] {
  const seen = new Set<string>();
  return [...listRegisters(now), ...listRegisters(then)].flatMap(({ target, attribute }): Difference[] => {
    const key = `${target} ${attribute}` as const;
    if (seen.has(key)) return [];
    seen.add(key);
    const [a, b] = [now.get(key) ?? null, then.get(key) ?? null];
    return a === b ? [] : [{ target, attribute, now: a, then: b }];
  });
}
