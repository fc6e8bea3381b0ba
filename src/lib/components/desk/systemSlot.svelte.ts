/**
 * What one system shows. Slots are filled from outside and only where something has changed: thousands of marks would
 * otherwise hang on the one edition, and be asked at every key whether they are still the same.
 */
import type { SheetSystem } from '$core/engraving/sheet';

/** Notes that are drawn in a way of their own. */
export interface NoteSets {
  readonly conflicts: ReadonlySet<string>;
  readonly corrected: ReadonlySet<string>;
  readonly noticed: ReadonlySet<string>;
  /** What is marked. */
  readonly ranged: ReadonlySet<string>;
}

const NONE: ReadonlySet<string> = new Set();

export class SystemSlot {
  system = $state.raw() as SheetSystem;
  conflicts = $state.raw(NONE);
  corrected = $state.raw(NONE);
  noticed = $state.raw(NONE);
  ranged = $state.raw(NONE);
  selectedUid = $state<string | null>(null);

  constructor(system: SheetSystem) {
    this.system = system;
  }

  fill(system: SheetSystem, sets: NoteSets): void {
    if (this.system !== system) this.system = system;
    for (const kind of ['conflicts', 'corrected', 'noticed', 'ranged'] as const) {
      const own = ownOf(system, sets[kind]);
      if (!areSame(own, this[kind])) this[kind] = own;
    }
  }
}

function ownOf({ notes }: SheetSystem, all: ReadonlySet<string>): ReadonlySet<string> {
  if (all.size === 0) return NONE;
  const own = notes.filter(({ uid }) => all.has(uid));
  return own.length === 0 ? NONE : new Set(own.map(({ uid }) => uid));
}

const areSame = (a: ReadonlySet<string>, b: ReadonlySet<string>): boolean =>
  a === b || (a.size === b.size && [...a].every((uid) => b.has(uid)));
