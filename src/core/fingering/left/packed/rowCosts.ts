/** Own costs of the states of a moment, from tables; states with a barre as the rules price them. */
import type { FingeringProblem, Moment } from '../../problem';
import { stateCost } from '../stateCost';
import { FINGER_OF, type HandTables, NO_PLACE } from './handTables';
import type { StateRows } from './packedLayer';

export function rowCosts(
  problem: FingeringProblem,
  tables: HandTables,
  moment: Moment,
  rows: StateRows,
): Int32Array {
  const columns = rows.strikes.length;
  const struckFrom = moment.held.length;
  const struckTables = rows.strikes.map(() => new Map<number, ReturnType<HandTables['struckTable']>>());
  const costs = tables.arena.int32(rows.count);
  for (let s = 0; s < rows.count; s++) {
    const barred = rows.barred.get(s);
    if (barred) {
      costs[s] = stateCost(problem, moment, barred);
      continue;
    }
    const row = s * columns;
    const middle = tables.middleIndexOf(rows.range[s]!);
    let sum = 0;
    for (let c = 0; c < columns; c++) {
      const place = rows.places[row + c]!;
      if (place === NO_PLACE) continue;
      if (FINGER_OF[place]! > 0) {
        for (let d = 0; d < c; d++) {
          const other = rows.places[row + d]!;
          if (other !== NO_PLACE && FINGER_OF[other]! > 0) sum += tables.pairCost(other, place);
        }
      }
      if (c < struckFrom) continue;
      let table = struckTables[c]!.get(place);
      if (!table) {
        table = tables.struckTable(problem.strikes[rows.strikes[c]!]!, place);
        struckTables[c]!.set(place, table);
      }
      sum += tables.struckCost(table, middle);
    }
    costs[s] = sum;
  }
  return costs;
}
