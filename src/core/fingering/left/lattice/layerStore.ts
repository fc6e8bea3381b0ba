/** Layers of one hand on one instrument: whatever comes again in a piece, or under another ink, is made once. */
import { Arena } from '../../solver/arena';
import { entryCost } from '../rules/barreCost';
import { FINGER_OF, type HandTables } from './handTables';
import { keptHands, stringBit } from './keptHands';
import { PackedWays } from './packedWays';
import type { StateRows } from './packedLayer';
import { rowCosts } from './rowCosts';
import { sameRows, rowsHash } from './sameRows';
import { growStates, type GrownStates } from './stateRows';
import type { Step } from './step';
import { StepPrice } from './stepPrice';

/** A layer without its place in the piece. */
export interface SharedLayer {
  readonly rows: StateRows;
  readonly stateCost: Int32Array;
  readonly ways: PackedWays | null;
  /** Indices of struck notes that are left out. */
  readonly omitted: ReadonlySet<number>;
}

export class LayerStore {
  private readonly numberOf = new Map<StateRows, number>();
  private readonly rowsByHash = new Map<number, StateRows[]>();
  private readonly byStep = new Map<string, SharedLayer>();

  /** Memory for what is kept of each layer. */
  private readonly arena = new Arena();

  constructor(readonly tables: HandTables) {}

  /** `omitted`: indices of struck notes that must be left out; more are only where nothing else helps. */
  layer(before: StateRows | null, step: Step, omitted: ReadonlySet<number>): SharedLayer {
    const key = `${before ? this.numberOf.get(before) : 'first'} ${[...omitted].join(',')} ${step.key}`;
    let layer = this.byStep.get(key);
    if (!layer) this.byStep.set(key, (layer = this.make(before, step, omitted)));
    return layer;
  }

  private make(before: StateRows | null, step: Step, omitted: ReadonlySet<number>): SharedLayer {
    const { tables, arena } = this;
    const { left, grown } = this.grow(before, step, omitted);
    const rows = this.interned(grown.rows);
    const here = step.struck.map((_note, k) => k).filter((k) => !left.has(k));
    const heldCount = before ? step.heldColumns.length : 0;
    const struckAt = [...Array.from({ length: heldCount }, () => null), ...here.map((k) => step.struck[k]!)];
    const stateCost = rowCosts(tables, arena, rows, struckAt);
    if (!before) {
      for (const [s, state] of rows.barred) stateCost[s]! += entryCost(tables.geometry, state);
      return { rows, stateCost, ways: null, omitted: left };
    }
    const struckColumns = step.struck.map((_note, k) => (left.has(k) ? -1 : heldCount + here.indexOf(k)));
    const price = new StepPrice(tables, arena, before, rows, step, struckColumns);
    const ways = new PackedWays(arena, before, rows, grown.sourcesOf, price);
    return { rows, stateCost, ways, omitted: left };
  }

  private grow(before: StateRows | null, step: Step, omitted: ReadonlySet<number>) {
    const choices = step.struck.map((note) => this.tables.placesOf(note));
    const attempt = (left: ReadonlySet<number>): GrownStates => {
      const here = choices.filter((_places, k) => !left.has(k));
      const kept = keptHands(this.tables, before, step, {
        mayBeFree: here.every((places) => places.some((place) => FINGER_OF[place] === 0)),
        count: here.length,
        strings: stringsOf(here),
      });
      return growStates(this.tables, this.arena, before ? step.heldColumns.length : 0, kept, here);
    };
    let left = omitted;
    let grown = attempt(left);
    if (grown.rows.count > 0) return { left, grown };
    for (const more of subsetsBySize([...choices.keys()].filter((k) => !omitted.has(k)))) {
      left = new Set([...omitted, ...more]);
      grown = attempt(left);
      if (grown.rows.count > 0) break;
    }
    return { left, grown };
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

/** Bits of the strings of all these places. */
function stringsOf(choices: readonly (readonly number[])[]): number {
  let bits = 0;
  for (const places of choices) for (const place of places) bits |= stringBit(place);
  return bits;
}

/** Non-empty subsets, the smallest first. */
export function subsetsBySize(items: readonly number[]): readonly (readonly number[])[] {
  const subsets = Array.from({ length: (1 << items.length) - 1 }, (_, k) =>
    items.filter((_item, bit) => (k + 1) & (1 << bit)),
  );
  return subsets.sort((a, b) => a.length - b.length);
}
