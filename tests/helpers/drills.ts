/** Drills to try things on: of each kind the usual one, and one with every parameter at its last value. */
import { type Chosen, chosenOf, type DrillKind } from '../../src/core/drills/drill';
import { DRILL_KINDS } from '../../src/core/drills/kinds/all';

export { chosenOf };

interface Row {
  readonly name: string;
  readonly kind: DrillKind;
  readonly chosen: Chosen;
}

export const DRILLS_OF_EVERY_KIND: readonly Row[] = DRILL_KINDS.flatMap((kind) => [
  { name: kind.id, kind, chosen: chosenOf(kind, {}) },
  {
    name: `${kind.id}, last values`,
    kind,
    chosen: Object.fromEntries(kind.parameters.map(({ id, values }) => [id, values.at(-1)![0]])),
  },
]);
