/** Own costs of the states of a moment, from tables; the shape of a state with a barre as the rules price it. */
import type { Arena } from '../../solver/arena';
import { chargeStanding } from '../rules/stateCost';
import { Bill } from '../rules/ledger';
import { FINGER_OF, type HandTables, NO_PLACE } from './handTables';
import type { StateRows } from './packedLayer';
import type { StruckNote } from './step';

/** `struckAt`: by column, the note that is struck there, null for a held one. */
export function rowCosts(
  tables: HandTables,
  arena: Arena,
  rows: StateRows,
  struckAt: readonly (StruckNote | null)[],
): Int32Array {
  const struckTables = struckAt.map((note) => (note ? tables.struckTables(note) : null));
  const fingerCosts = tables.fingerCosts;
  const costs = arena.int32(rows.count);
  for (let s = 0; s < rows.count; s++) {
    const row = s * rows.columns;
    const position = tables.positionOf(rows.range[s]!);
    const barred = rows.barred.get(s);
    let sum = 0;
    if (!barred) sum = tables.spreadCost(rows.fingers, 4 * s, rows.down[s]!);
    else {
      const bill = new Bill(tables.geometry.weights, undefined);
      chargeStanding(tables.geometry, barred, bill);
      sum = bill.sum;
    }
    let fingers = 0;
    for (let c = 0; c < rows.columns; c++) {
      const place = rows.places[row + c]!;
      if (place === NO_PLACE) continue;
      for (let d = 0; !barred && FINGER_OF[place]! > 0 && d < c; d++) {
        const other = rows.places[row + d]!;
        if (other !== NO_PLACE && FINGER_OF[other]! > 0) sum += tables.pairCost(other, place);
      }
      const struck = struckTables[c];
      if (!struck) continue;
      fingers |= 1 << FINGER_OF[place]!;
      sum += tables.struckCost(struck, place, position);
    }
    costs[s] = sum + fingerCosts[fingers]!;
  }
  return costs;
}
