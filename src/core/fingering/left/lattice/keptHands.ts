/** What a hand may keep of the strikes held into a moment, and from which states it can come with that. */
import { priceOf } from '../rules/ledger';
import { LONG_FREE } from '../rules/memory';
import { LONGEST_WINDOW_MS } from '../rules/terms';
import { BASE_OF, FINGER_OF, type HandTables, NO_PLACE, PLACES, STRING_OF } from './handTables';
import { freedTicks, type PackedMemory, type StateRows } from './packedLayer';
import { MOST_RANGES } from './shiftTable';
import { RowKeys } from './rowKeys';
import type { Step } from './step';

/** States of the layer before that hold the same strikes in the same way, or leave the same memory as well. */
export interface Crowd {
  readonly members: number[];
}

const NONE: ReadonlyMap<number, Crowd> = new Map();

interface HeldGroup extends Crowd {
  /** By held strike: place or NO_PLACE. */
  readonly held: readonly number[];
  /** By index of what is remembered when nothing is stopped afterwards, −1 for nothing. */
  readonly byMemory: ReadonlyMap<number, Crowd>;
}

/** A crowd of states before, and what it costs to come from each of them. */
export interface Entrance {
  readonly crowd: Crowd;
  /** What is cut or handed over on it, in tenths of a point. */
  readonly cuts: number;
  /** Bit of the finger that takes a held note over and must have been free; 0 for none. */
  readonly taker: number;
}

/** One way to come to what is kept, from all states of a group. */
export interface Source extends Entrance {
  readonly crowd: HeldGroup;
  /** Bits of the open strings that it lets go: something must come to lie on each. */
  readonly freedOpen: number;
}

export interface KeptHand {
  readonly held: readonly number[];
  readonly sources: Source[];
}

export interface KeptHands {
  readonly kept: readonly KeptHand[];
  /** What a hand that is free at this moment can remember. */
  readonly memories: readonly PackedMemory[];
}

/** What is struck at the moment, as far as it bears on what can be kept. */
export interface StruckThere {
  /** Nothing that is struck must be stopped. */
  readonly mayBeFree: boolean;
  readonly count: number;
  /** Bits of the strings on which something that is struck may lie. */
  readonly strings: number;
}

export const stringBit = (place: number): number => 1 << STRING_OF[place]!;

export function keptHands(
  tables: HandTables,
  before: StateRows | null,
  step: Step,
  struck: StruckThere,
): KeptHands {
  if (!before) return { kept: [{ held: [], sources: [] }], memories: [] };
  const memories = struck.mayBeFree ? memoriesAfter(tables, before, step) : null;
  const groups = groupsOf(before, step.heldColumns, memories?.of ?? null);
  const kept = new KeptInTheMaking(step.heldColumns.length);
  const handOver = priceOf(tables.geometry.weights, 'handOver', 1);
  for (const group of groups) addKept(tables, group, step.cuts, handOver, struck, kept);
  return { kept: [...kept.all].sort(byWhatIsHeld), memories: memories?.known ?? [] };
}

/** Part of the tie rule: states are numbered by what lies where, whatever they were made from. */
function byWhatIsHeld({ held: a }: KeptHand, { held: b }: KeptHand): number {
  const h = a.findIndex((place, k) => place !== b[k]);
  return h < 0 ? 0 : orderOf(a[h]!) - orderOf(b[h]!);
}

/** What is let go comes last. */
const orderOf = (place: number) => (place === NO_PLACE ? PLACES : place);

class KeptInTheMaking {
  readonly all: KeptHand[] = [];
  private readonly byKey = new Map<number | string, KeptHand>();
  readonly keys: RowKeys;

  constructor(width: number) {
    this.keys = new RowKeys(width);
  }

  /** @param sum of the parts of what is held */
  add(held: readonly number[], sum: number, source: Source) {
    const key = this.keys.keyed(sum, held);
    let entry = this.byKey.get(key);
    if (!entry) {
      entry = { held: held.slice(), sources: [] };
      this.byKey.set(key, entry);
      this.all.push(entry);
    }
    entry.sources.push(source);
  }
}

function groupsOf(before: StateRows, columns: readonly number[], memoryOf: Int32Array | null) {
  const groups = new Map<number | string, HeldGroup>();
  const keys = new RowKeys(columns.length);
  const held = columns.map(() => NO_PLACE);
  for (let s = 0; s < before.count; s++) {
    for (let h = 0; h < columns.length; h++)
      held[h] = columns[h]! < 0 ? NO_PLACE : before.places[s * before.columns + columns[h]!]!;
    const key = keys.of(held);
    let group = groups.get(key);
    if (!group)
      groups.set(key, (group = { held: held.slice(), members: [], byMemory: memoryOf ? new Map() : NONE }));
    group.members.push(s);
    if (!memoryOf) continue;
    const byMemory = group.byMemory as Map<number, Crowd>;
    let alike = byMemory.get(memoryOf[s]!);
    if (!alike) byMemory.set(memoryOf[s]!, (alike = { members: [] }));
    alike.members.push(s);
  }
  return groups.values();
}

/**
 * Every choice of what to keep of a group, each as it is or with one note under another finger. An open string
 * sounds on by itself: it is let go only where a note or a barre may come to lie on it.
 */
function addKept(
  tables: HandTables,
  group: HeldGroup,
  cutCosts: readonly (number | null)[],
  handOver: number,
  struck: StruckThere,
  kept: KeptInTheMaking,
) {
  const sounding: number[] = [];
  for (let h = 0; h < group.held.length; h++) if (group.held[h] !== NO_PLACE) sounding.push(h);
  const stopped = sounding.filter((h) => FINGER_OF[group.held[h]!]! > 0).length;
  const silenced = stopped + struck.count > 1 ? ALL_STRINGS : struck.strings;
  const takings = takingsOf(tables, group.held, sounding, kept.keys);
  const held = group.held.map(() => NO_PLACE);
  const whole = group.held.reduce((sum, place, h) => sum + kept.keys.part(h, place), 0);
  const letGo = sounding.map((h) => kept.keys.part(h, NO_PLACE) - kept.keys.part(h, group.held[h]!));
  // What keeps most comes first: it is cheapest, and soon shuts out the rest.
  for (let subset = (1 << sounding.length) - 1; subset >= 0; subset--) {
    let cuts = 0;
    let freedOpen = 0;
    let sum = whole;
    for (let bit = 0; bit < sounding.length; bit++) {
      const h = sounding[bit]!;
      const place = group.held[h]!;
      held[h] = subset & (1 << bit) ? place : NO_PLACE;
      if (subset & (1 << bit)) continue;
      cuts += cutCosts[h] ?? 0;
      sum += letGo[bit]!;
      if (FINGER_OF[place] === 0) freedOpen |= stringBit(place);
    }
    if (freedOpen & ~silenced) continue;
    kept.add(held, sum, { crowd: group, cuts, taker: 0, freedOpen });
    for (const { bit, h, taken, change, taker, clashes } of takings) {
      if (!(subset & (1 << bit)) || subset & clashes) continue;
      const place = held[h]!;
      held[h] = taken;
      const price = cuts + (cutCosts[h] === null ? 0 : handOver);
      kept.add(held, sum + change, { crowd: group, cuts: price, taker, freedOpen });
      held[h] = place;
    }
  }
}

/** A held note under another finger. */
interface Taking {
  /** Which of the sounding notes. */
  readonly bit: number;
  /** Its column. */
  readonly h: number;
  readonly taken: number;
  /** Of the key. */
  readonly change: number;
  readonly taker: number;
  /** Bits of the sounding notes that cannot be kept beside it. */
  readonly clashes: number;
}

function takingsOf(
  tables: HandTables,
  held: readonly number[],
  sounding: readonly number[],
  keys: RowKeys,
): Taking[] {
  const used = held.reduce((bits, place) => bits | fingerBit(place), 0);
  const takings: Taking[] = [];
  for (const [bit, h] of sounding.entries()) {
    const place = held[h]!;
    if (FINGER_OF[place] === 0) continue;
    for (let finger = 1; finger <= 4; finger++) {
      const taken = place - FINGER_OF[place]! + finger;
      const taker = fingerBit(taken);
      if (used & taker) continue;
      let clashes = 0;
      for (const [other, k] of sounding.entries())
        if (other !== bit && tables.pairCost(held[k]!, taken) < 0) clashes |= 1 << other;
      const change = keys.part(h, taken) - keys.part(h, place);
      takings.push({ bit, h, taken, change, taker, clashes });
    }
  }
  return takings;
}

const ALL_STRINGS = 0b1111110;

const fingerBit = (place: number) => (place === NO_PLACE ? 0 : (1 << FINGER_OF[place]!) >> 1);

/** By state of the layer before: index of what it leaves in memory, −1 for nothing. */
function memoriesAfter(tables: HandTables, before: StateRows, step: Step) {
  const known: PackedMemory[] = [];
  const indexOf = new Map<number, Map<number, number>>();
  const of = new Int32Array(before.count).fill(-1);
  for (let s = 0; s < before.count; s++) {
    if (before.range[s]! < 0) continue;
    const freed = freedTicks(before, s, step);
    const long = freed === LONG_FREE || step.msBefore(freed) >= LONGEST_WINDOW_MS;
    const waitedTicks = long ? LONG_FREE : freed;
    let alike = indexOf.get(waitedTicks);
    if (!alike) indexOf.set(waitedTicks, (alike = new Map()));
    // A hand that has long been free has forgotten its fingers. A barre narrows the range that they would have.
    const range = before.range[s]!;
    const key = long ? range : fingersKey(before.fingers, 4 * s) * MOST_RANGES + range;
    let index = alike.get(key);
    if (index === undefined) {
      index = known.length;
      alike.set(key, index);
      const fingers = long ? ANYWHERE : fingersAt(before.fingers, 4 * s);
      known.push({ range, waitedTicks, fingers });
    }
    of[s] = index;
  }
  return inOrder(tables, known, of);
}

/** Frets over the nut come after all others. */
const OVER_NUT = 64;

/**
 * Part of the tie rule: by how long the hand has been free, where it was, from the first position up, and what its
 * fingers left.
 */
function inOrder(tables: HandTables, known: readonly PackedMemory[], of: Int32Array) {
  const keyOf = ({ waitedTicks, range, fingers }: PackedMemory) => {
    const { low, high } = tables.ranges[range]!;
    return [waitedTicks, low < 1 ? OVER_NUT - low : low, high, ...fingers];
  };
  const order = known.map((_memory, index) => index);
  const keys = known.map(keyOf);
  order.sort((a, b) => {
    const k = keys[a]!.findIndex((part, n) => part !== keys[b]![n]);
    return k < 0 ? 0 : keys[a]![k]! - keys[b]![k]!;
  });
  const rankOf = new Int32Array(known.length);
  order.forEach((index, rank) => (rankOf[index] = rank));
  for (let s = 0; s < of.length; s++) if (of[s]! >= 0) of[s] = rankOf[of[s]!]!;
  return { known: order.map((index) => known[index]!), of };
}

const fingersAt = (fingers: Int16Array, at: number): readonly number[] => [
  fingers[at]!,
  fingers[at + 1]!,
  fingers[at + 2]!,
  fingers[at + 3]!,
];

/** Four places in one exact number. */
function fingersKey(fingers: Int16Array, at: number): number {
  let key = 0;
  for (let k = at; k < at + 4; k++) key = key * 1024 + fingers[k]! + 1;
  return key;
}

const ANYWHERE: readonly number[] = [NO_PLACE, NO_PLACE, NO_PLACE, NO_PLACE];

/** The span of a set of places, as far as fingers stop them: low above high where none does. */
export function spanOf(places: readonly number[]): { low: number; high: number } {
  let low = 99;
  let high = -99;
  for (const place of places) {
    if (place === NO_PLACE || FINGER_OF[place] === 0) continue;
    low = Math.min(low, BASE_OF[place]!);
    high = Math.max(high, BASE_OF[place]!);
  }
  return { low, high };
}
