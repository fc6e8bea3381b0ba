/** What a hand may hold on of the strikes that sound into a moment, and from which states it can come with that. */
import { heldRules } from '../rules/rules';
import { Bill } from '../rules/ledger';
import { FINGER_OF, NO_PLACE, PLACES, STRING_OF, stringBit, underFinger } from '../rules/place';
import type { WayRule } from '../rules/rule';
import { isBarre } from '../rules/stand';
import type { HandStep } from '../rules/step';
import type { CostTables } from './costTables';
import { memoriesAfter } from './memories';
import { RowKeys } from './rowKeys';
import { placeAt, type RowHand, type RowMemory, type StateRows } from './stateRows';

/** States of the layer before that hold the same strikes in the same way, under the same barre. */
export interface HeldGroup {
  /** By held strike, those that are struck where they lie last: place or NO_PLACE. */
  readonly places: readonly number[];
  /** The barre that lies in them. */
  readonly lying: number;
  readonly states: number[];
  /** The same by index of what is remembered when nothing is stopped afterwards, −1 for nothing. */
  readonly byMemory: ReadonlyMap<number, number[]>;
}

/**
 * Ways in which a group of states comes to what is held, in columns: which group, what is cut or handed over, the finger
 * that takes a note over, and the strings that it lets go open.
 */
export class Arrivals {
  readonly groups: HeldGroup[] = [];
  /** In tenths of a point. */
  readonly cuts: number[] = [];
  /** Bit of the finger that must have been free; 0 for none. */
  readonly takers: number[] = [];
  /** Bits of the open strings that it lets go: something must come to lie on each. */
  readonly freedOpen: number[] = [];
  /** By note that is struck where it lies: the place that its grip leaves to it; NO_PLACE where it may lie anywhere. */
  readonly bound: (readonly number[])[] = [];

  add(group: HeldGroup, { cuts, taker, freedOpen, bound }: Arrival): number {
    this.cuts.push(cuts);
    this.takers.push(taker);
    this.freedOpen.push(freedOpen);
    this.bound.push(bound);
    return this.groups.push(group) - 1;
  }
}

/** See the columns of `Arrivals`. */
interface Arrival {
  readonly cuts: number;
  readonly taker: number;
  readonly freedOpen: number;
  readonly bound: readonly number[];
}

/** What is held, and the numbers of the arrivals at it. */
export interface Hold {
  readonly places: readonly number[];
  readonly arrivals: number[];
}

export interface Holds {
  readonly all: readonly Hold[];
  readonly arrivals: Arrivals;
  /** What a hand that is free at this moment can remember. */
  readonly memories: readonly RowMemory[];
}

/** What is struck at the moment, as far as it bears on what can be held. */
export interface StruckThere {
  /** Nothing that is struck must be stopped. */
  readonly mayBeFree: boolean;
  readonly count: number;
  /** Bits of the strings on which something that is struck may lie. */
  readonly strings: number;
}

export function holdsAfter(
  tables: CostTables,
  before: { readonly rows: StateRows; readonly hand: RowHand } | null,
  step: HandStep,
  struck: StruckThere,
): Holds {
  const arrivals = new Arrivals();
  if (!before) return { all: [{ places: [], arrivals: [] }], arrivals, memories: [] };
  const memories = struck.mayBeFree ? memoriesAfter(before.rows, before.hand, step) : null;
  const made = new HoldsInTheMaking(tables, step, struck, arrivals);
  for (const group of groupsOf(before.rows, step, memories?.of ?? null)) made.addFrom(group);
  return { all: made.inOrder(), arrivals, memories: memories?.all ?? [] };
}

const NO_MEMORIES: ReadonlyMap<number, number[]> = new Map();

function groupsOf(rows: StateRows, { held }: HandStep, memoryOf: Int32Array | null): readonly HeldGroup[] {
  const all: HeldGroup[] = [];
  const keys = new RowKeys(held.length);
  const byLying = new Map<number, Map<number | string, HeldGroup>>();
  const places = held.map(() => NO_PLACE);
  for (let s = 0; s < rows.count; s++) {
    for (let h = 0; h < held.length; h++) {
      const { column } = held[h]!;
      places[h] = column < 0 ? NO_PLACE : placeAt(rows, s, column);
    }
    const lying = rows.lying[s]!;
    const groups = within(byLying, lying);
    const key = keys.of(places);
    let group = groups.get(key);
    if (!group) {
      group = { places: places.slice(), lying, states: [], byMemory: memoryOf ? new Map() : NO_MEMORIES };
      groups.set(key, group);
      all.push(group);
    }
    group.states.push(s);
    if (!memoryOf) continue;
    const byMemory = group.byMemory as Map<number, number[]>;
    const alike = byMemory.get(memoryOf[s]!);
    if (alike) alike.push(s);
    else byMemory.set(memoryOf[s]!, [s]);
  }
  return all;
}

function within<V>(maps: Map<number, Map<number | string, V>>, key: number): Map<number | string, V> {
  let map = maps.get(key);
  if (!map) maps.set(key, (map = new Map()));
  return map;
}

const ALL_STRINGS = 0b111111;

/** A held note under another finger. */
interface Taking {
  /** Which of the sounding notes, and its column. */
  readonly bit: number;
  readonly h: number;
  readonly taken: number;
  /** Of the key. */
  readonly change: number;
  readonly taker: number;
  readonly price: number;
  /** Bits of the sounding notes that cannot be held beside it. */
  readonly clashes: number;
}

class HoldsInTheMaking {
  private readonly all: Hold[] = [];
  private readonly byKey = new Map<number | string, Hold>();
  private readonly keys: RowKeys;
  private readonly rules: readonly WayRule[];
  private readonly grips: readonly (number | null)[];
  private readonly silent: readonly boolean[];
  /** Notes that are held on and not struck. */
  private readonly width: number;

  constructor(
    private readonly tables: CostTables,
    step: HandStep,
    private readonly struck: StruckThere,
    private readonly arrivals: Arrivals,
  ) {
    this.width = step.held.length - step.taken.length;
    this.keys = new RowKeys(this.width);
    this.rules = heldRules(step);
    this.grips = step.held.map(({ grip }) => grip);
    this.silent = step.held.map(({ silent }) => silent);
  }

  /**
   * Every choice of what to hold on of a group, each as it is or with one note under another finger. An open string
   * sounds on by itself: it is let go only where a note or a barre may come to lie on it.
   */
  addFrom(group: HeldGroup): void {
    const { keys, struck, arrivals } = this;
    const sounding = group.places
      .map((_place, h) => h)
      .filter((h) => h < this.width && group.places[h] !== NO_PLACE);
    const whole = this.wholeGrips(group.places);
    const { blocks, gone } = this.blocksOf(group.places, sounding, whole);
    const stopped = sounding.filter((h) => FINGER_OF[group.places[h]!]! > 0).length;
    const silenced = stopped + struck.count > 1 ? ALL_STRINGS : struck.strings;
    const takings = this.takingsOf(group.places, sounding);
    const held = Array.from({ length: this.width }, () => NO_PLACE);
    const all = held.reduce((sum, _place, h) => sum + keys.part(h, group.places[h]!), 0);
    const letGo = sounding.map((h) => keys.part(h, NO_PLACE) - keys.part(h, group.places[h]!));
    const cutOf = sounding.map((h, bit) =>
      gone & (1 << bit) ? 0 : this.price(h, group.places[h]!, NO_PLACE),
    );
    // What holds most comes first: it is cheapest, and soon shuts out the rest.
    for (let choice = (1 << blocks.length) - 1; choice >= 0; choice--) {
      let cuts = 0;
      let freedOpen = 0;
      let sum = all;
      let subset = 0;
      for (let b = 0; b < blocks.length; b++) if (choice & (1 << b)) subset |= blocks[b]!;
      for (let bit = 0; bit < sounding.length; bit++) {
        const h = sounding[bit]!;
        const place = group.places[h]!;
        held[h] = subset & (1 << bit) ? place : NO_PLACE;
        if (subset & (1 << bit)) continue;
        cuts += cutOf[bit]!;
        sum += letGo[bit]!;
        if (FINGER_OF[place] === 0 && !this.silent[h]) freedOpen |= stringBit(STRING_OF[place]!);
      }
      if (freedOpen & ~silenced) continue;
      const bound = this.boundBy(group.places, held, whole);
      this.hold(held, sum).arrivals.push(arrivals.add(group, { cuts, taker: 0, freedOpen, bound }));
      for (const { bit, h, taken, change, taker, price, clashes } of takings) {
        if (!(subset & (1 << bit)) || subset & clashes) continue;
        const place = held[h]!;
        held[h] = taken;
        const arrival = arrivals.add(group, { cuts: cuts + price, taker, freedOpen, bound });
        this.hold(held, sum + change).arrivals.push(arrival);
        held[h] = place;
      }
    }
  }

  /** Grips of which everything lies. */
  private wholeGrips(places: readonly number[]): ReadonlySet<number> {
    const whole = new Set(this.grips.filter((grip) => grip !== null));
    places.forEach((place, h) => {
      if (place === NO_PLACE) whole.delete(this.grips[h]!);
    });
    return whole;
  }

  /** An open string that is heard needs no hand: it sounds on, whatever becomes of its grip. */
  private ringsOn(places: readonly number[], h: number): boolean {
    return FINGER_OF[places[h]!] === 0 && !this.silent[h];
  }

  /** A whole grip of which something is held binds its other notes to their places. */
  private boundBy(
    places: readonly number[],
    held: readonly number[],
    whole: ReadonlySet<number>,
  ): readonly number[] {
    const holds = new Set(
      held.flatMap((place, h) =>
        place !== NO_PLACE && whole.has(this.grips[h]!) && !this.ringsOn(places, h) ? [this.grips[h]] : [],
      ),
    );
    return places.slice(this.width).map((place, k) => {
      const grip = this.grips[this.width + k];
      return grip !== null && holds.has(grip) ? place : NO_PLACE;
    });
  }

  /**
   * Bits of what is held or let go together: the notes of a whole grip, and each other note that is heard by itself.
   * `gone`: silent notes of a grip that is broken are let go in any case.
   */
  private blocksOf(places: readonly number[], sounding: readonly number[], whole: ReadonlySet<number>) {
    const byGrip = new Map<number, number>();
    const single: number[] = [];
    let gone = 0;
    sounding.forEach((h, bit) => {
      const grip = this.grips[h] ?? null;
      if (grip !== null && whole.has(grip) && !this.ringsOn(places, h))
        byGrip.set(grip, (byGrip.get(grip) ?? 0) | (1 << bit));
      else if (this.silent[h]) gone |= 1 << bit;
      else single.push(1 << bit);
    });
    return { blocks: [...single, ...byGrip.values()], gone };
  }

  /** Part of the tie rule: by what lies where, whatever they were made from. */
  inOrder(): readonly Hold[] {
    return [...this.all].sort(byPlaces);
  }

  /** @param sum of the parts of what is held */
  private hold(places: readonly number[], sum: number): Hold {
    const key = this.keys.keyed(sum, places);
    let hold = this.byKey.get(key);
    if (!hold) {
      hold = { places: places.slice(), arrivals: [] };
      this.byKey.set(key, hold);
      this.all.push(hold);
    }
    return hold;
  }

  /** What it costs that the h-th held note, from one place, lies on another or is let go. */
  private price(h: number, from: number, to: number): number {
    const bill = new Bill(this.tables.setting, undefined);
    this.rules[h]!.charge(from + 1, to + 1, 0, bill);
    return bill.sum;
  }

  private takingsOf(places: readonly number[], sounding: readonly number[]): readonly Taking[] {
    const used = places.slice(0, this.width).reduce((bits, place) => bits | fingerBit(place), 0);
    const takings: Taking[] = [];
    for (const [bit, h] of sounding.entries()) {
      const place = places[h]!;
      if (FINGER_OF[place] === 0 || this.grips[h] !== null) continue;
      for (let finger = 1; finger <= 4; finger++) {
        const taken = underFinger(place, finger);
        const taker = fingerBit(taken);
        if (used & taker) continue;
        let clashes = 0;
        for (const [other, k] of sounding.entries())
          if (other !== bit && !this.tables.fit(places[k]!, taken)) clashes |= 1 << other;
        const change = this.keys.part(h, taken) - this.keys.part(h, place);
        takings.push({ bit, h, taken, change, taker, price: this.price(h, place, taken), clashes });
      }
    }
    return takings;
  }
}

function byPlaces({ places: a }: Hold, { places: b }: Hold): number {
  const h = a.findIndex((place, k) => place !== b[k]);
  return h < 0 ? 0 : orderOf(a[h]!) - orderOf(b[h]!);
}

/** What is let go comes last. */
const orderOf = (place: number) => (place === NO_PLACE ? PLACES : place);

const fingerBit = (place: number) => (place === NO_PLACE ? 0 : (1 << FINGER_OF[place]!) >> 1);

/** Whether nothing that is let go open sounds on: something lies on each of these strings, or a barre may. */
export const isSilenced = (freedOpen: number, strings: number, index: number): boolean =>
  isBarre(index) || (freedOpen & ~strings) === 0;
