/** Layers of one hand on one instrument: whatever comes again in a piece, or under another ink, is made once. */
import { Arena } from '../../solver/arena';
import { Bill } from '../rules/ledger';
import { FINGER_OF, STRING_OF, stringBit } from '../rules/place';
import { chargeEntry } from '../rules/prices';
import { ownRules, stepRules } from '../rules/rules';
import type { StepRules } from '../rules/rule';
import type { HandStep } from '../rules/step';
import type { CostTables } from './costTables';
import type { StepWays } from './handLayer';
import { growStates, type GrownStates } from './growStates';
import { type Arrivals, holdsAfter } from './holds';
import { predecessorClasses } from './predecessorClasses';
import { sameRows, rowsHash } from './sameRows';
import { RowHand, type StateRows } from './stateRows';
import { ownCosts, type ReadRows, StepCosts } from './tabulator';
import { HandTransitions } from './transitions';

/** A layer without its place in the piece. */
export interface SharedLayer {
  readonly rows: StateRows;
  readonly stateCost: Int32Array;
  readonly ways: StepWays | null;
  /** Indices of struck notes that are left out. */
  readonly omitted: ReadonlySet<number>;
}

export class LayerStore {
  private readonly numberOf = new Map<StateRows, number>();
  private readonly rowsByHash = new Map<number, StateRows[]>();
  private readonly byStep = new Map<string, SharedLayer>();

  /** Memory for what is kept of each layer. */
  private readonly arena = new Arena();

  constructor(readonly tables: CostTables) {}

  /** `omitted`: indices of struck notes that must be left out; more are only where nothing else helps. */
  layer(before: StateRows | null, step: HandStep, omitted: ReadonlySet<number>): SharedLayer {
    const key = `${before ? this.numberOf.get(before) : 'first'} ${[...omitted].join(',')} ${step.key}`;
    let layer = this.byStep.get(key);
    if (!layer)
      this.byStep.set(key, (layer = this.make(before, before ? step : withNothingLying(step), omitted)));
    return layer;
  }

  /** What a step costs between states that are no neighbours: nothing is held or led over it. */
  jumpCosts(before: StateRows, after: StateRows, step: HandStep, rules: StepRules): StepCosts {
    const read = { before: readRows(before, []), after: readRows(after, []), step };
    return new StepCosts(this.tables, this.arena, read, rules);
  }

  private make(before: StateRows | null, asked: HandStep, omitted: ReadonlySet<number>): SharedLayer {
    const { tables, arena } = this;
    const { left, grown, arrivals, step } = this.grow(before, asked, omitted);
    const rows = this.interned(grown.rows);
    const read = readRows(rows, placedColumns(step, left));
    const stateCost = ownCosts(tables, arena, read, ownRules(step));
    if (!before) {
      this.addEntry(read, stateCost);
      return { rows, stateCost, ways: null, omitted: left };
    }
    const costs = new StepCosts(
      tables,
      arena,
      { before: readRows(before, []), after: read, step },
      stepRules(step),
    );
    const classes = predecessorClasses(rows, arrivals, grown.arrivalsOf);
    const ways = new HandTransitions(arena, before, rows.count, classes, costs);
    return { rows, stateCost, ways, omitted: left };
  }

  private addEntry({ count, hand }: ReadRows, costs: Int32Array): void {
    for (let s = 0; s < count; s++) {
      const bill = new Bill(this.tables.setting, undefined);
      chargeEntry(hand.at(s), bill);
      costs[s]! += bill.sum;
    }
  }

  private grow(before: StateRows | null, asked: HandStep, omitted: ReadonlySet<number>): Grown {
    const choices = asked.struck.map((note) => this.tables.placesOf(note));
    const laid = asked.laid.map((note) => this.tables.placesOf(note));
    const attempt = (left: ReadonlySet<number>): Grown => {
      const step = withoutTaken(asked, left);
      const here = choices.filter((_places, k) => !left.has(k));
      const read = before && { rows: before, hand: new RowHand(before, []) };
      const holds = holdsAfter(this.tables, read, step, {
        mayBeFree: here.every((places) => places.some((place) => FINGER_OF[place] === 0)),
        count: here.length + laid.length,
        strings: stringsOf([...here, ...laid]),
      });
      const grown = growStates(this.tables, this.arena, holds, {
        taken: step.taken.map((k) => choices[k]!),
        struck: choices.filter((_places, k) => !left.has(k) && !step.taken.includes(k)),
        laid,
      });
      return { left, grown, arrivals: holds.arrivals, step };
    };
    let made = attempt(omitted);
    if (made.grown.rows.count > 0) return made;
    for (const more of subsetsBySize([...choices.keys()].filter((k) => !omitted.has(k)))) {
      made = attempt(new Set([...omitted, ...more]));
      if (made.grown.rows.count > 0) break;
    }
    return made;
  }

  /** Rows that are alike are one, so that what follows them is shared, too. */
  private interned(rows: StateRows): StateRows {
    const hash = rowsHash(rows);
    const known = this.rowsByHash.get(hash) ?? [];
    const same = known.find((other) => sameRows(other, rows));
    if (same) return same;
    this.rowsByHash.set(hash, [...known, rows]);
    this.numberOf.set(rows, this.numberOf.size);
    return rows;
  }
}

/** States with what they come from; `left`: indices of struck notes that are left out. */
interface Grown {
  readonly left: ReadonlySet<number>;
  readonly grown: GrownStates;
  readonly arrivals: Arrivals;
  /** Without the notes that are left out of what lies already. */
  readonly step: HandStep;
}

const readRows = (rows: StateRows, struckColumns: readonly number[]): ReadRows => ({
  count: rows.count,
  hand: new RowHand(rows, struckColumns),
});

/** Where no layer comes before. */
const withNothingLying = (step: HandStep): HandStep => ({
  ...step,
  held: [],
  taken: [],
  units: [],
  lying: [],
});

/** A note that is left out is not held, either. */
function withoutTaken(step: HandStep, left: ReadonlySet<number>): HandStep {
  if (!step.taken.some((k) => left.has(k))) return step;
  const held = step.held.length - step.taken.length;
  return {
    ...step,
    held: step.held.filter((_note, h) => h < held || !left.has(step.taken[h - held]!)),
    taken: step.taken.filter((k) => !left.has(k)),
    units: step.units.filter((_unit, n) => !left.has(step.taken[n]!)),
  };
}

/** By struck note, then by laid one: its column, −1 where it is left out. */
function placedColumns(
  { held, struck, taken, laid }: HandStep,
  left: ReadonlySet<number>,
): readonly number[] {
  const firstTaken = held.length - taken.length;
  let next = held.length;
  const columns = struck.map((_note, k) => {
    if (left.has(k)) return -1;
    const at = taken.indexOf(k);
    return at < 0 ? next++ : firstTaken + at;
  });
  return [...columns, ...laid.map(() => next++)];
}

/** Bits of the strings of all these places. */
function stringsOf(choices: readonly (readonly number[])[]): number {
  let bits = 0;
  for (const places of choices) for (const place of places) bits |= stringBit(STRING_OF[place]!);
  return bits;
}

/** Non-empty subsets, the smallest first. */
export function subsetsBySize(items: readonly number[]): readonly (readonly number[])[] {
  const subsets = Array.from({ length: (1 << items.length) - 1 }, (_, k) =>
    items.filter((_item, bit) => (k + 1) & (1 << bit)),
  );
  return subsets.sort((a, b) => a.length - b.length);
}
