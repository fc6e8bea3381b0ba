/** What a hand may keep of the strikes held into a moment, and from which states it can come with that. */
import type { FingeringProblem, Moment } from '../../problem';
import { chargeCut } from '../cuts';
import { Bill, priceOf } from '../ledger';
import { LONG_FREE } from '../memory';
import { LONGEST_WINDOW_MS } from '../terms';
import { BASE_OF, FINGER_OF, type HandTables, NO_PLACE } from './handTables';
import { type PackedMemory, releasedTickOf, type StateRows } from './packedLayer';

/** States of the layer before that hold the same strikes in the same way, or leave the same memory as well. */
export interface Crowd {
  readonly index: number;
  readonly members: number[];
}

interface HeldGroup {
  /** By held strike: place or NO_PLACE. */
  readonly held: readonly number[];
  readonly all: Crowd;
  /** By index of what is remembered when nothing is stopped afterwards, −1 for nothing. */
  readonly byMemory: Map<number, Crowd>;
}

/** One way to come to what is kept. */
export interface Source {
  readonly group: HeldGroup;
  /** What is cut or handed over on it, in tenths of a point. */
  readonly cuts: number;
  /** Bit of the finger that takes a held note over and must have been free; 0 for none. */
  readonly taker: number;
}

export interface KeptHand {
  readonly held: readonly number[];
  readonly sources: Source[];
}

export interface KeptHands {
  readonly kept: readonly KeptHand[];
  readonly crowds: readonly Crowd[];
  /** What a hand that is free at this moment can remember. */
  readonly memories: readonly PackedMemory[];
}

const IS_STOPPED = Uint8Array.from(FINGER_OF, (finger) => (finger > 0 ? 1 : 0));

/** `mayBeFree`: nothing that is struck here must be stopped. */
export function keptHands(
  problem: FingeringProblem,
  tables: HandTables,
  before: StateRows | null,
  next: Moment,
  mayBeFree: boolean,
): KeptHands {
  if (!before) return { kept: [{ held: [], sources: [] }], crowds: [], memories: [] };
  const memories = mayBeFree ? memoriesAfter(problem, before, next) : null;
  const { groups, crowds } = groupsOf(before, next, memories?.of ?? null);
  const cutCosts = next.held.map((strike) => cutCostOf(problem, strike, next));
  const kept = new Map<string, KeptHand>();
  for (const group of groups) addKept(problem, tables, group, cutCosts, kept);
  return { kept: [...kept.values()], crowds, memories: memories?.known ?? [] };
}

/** Null for a held strike whose pitch is struck again: its sound goes on. */
function cutCostOf(problem: FingeringProblem, index: number, next: Moment): number | null {
  const strike = problem.strikes[index]!;
  if (next.struck.some((other) => problem.strikes[other]!.midi === strike.midi)) return null;
  const bill = new Bill(problem.weights, undefined);
  chargeCut(problem, strike, next.tick, bill);
  return bill.sum;
}

function groupsOf(before: StateRows, next: Moment, memoryOf: Int32Array | null) {
  const columns = next.held.map((strike) => before.strikes.indexOf(strike));
  const width = before.strikes.length;
  const groups = new Map<string, HeldGroup>();
  const crowds: Crowd[] = [];
  const crowd = (): Crowd => {
    const made = { index: crowds.length, members: [] };
    crowds.push(made);
    return made;
  };
  for (let s = 0; s < before.count; s++) {
    const held = columns.map((c) => (c < 0 ? NO_PLACE : before.places[s * width + c]!));
    const key = held.join(' ');
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { held, all: crowd(), byMemory: new Map() }));
    group.all.members.push(s);
    if (!memoryOf) continue;
    let alike = group.byMemory.get(memoryOf[s]!);
    if (!alike) group.byMemory.set(memoryOf[s]!, (alike = crowd()));
    alike.members.push(s);
  }
  return { groups: [...groups.values()], crowds };
}

/** Every choice of what to keep of a group, each as it is or with one note under another finger. */
function addKept(
  problem: FingeringProblem,
  tables: HandTables,
  group: HeldGroup,
  cutCosts: readonly (number | null)[],
  kept: Map<string, KeptHand>,
) {
  const sounding = group.held.flatMap((place, h) => (place === NO_PLACE ? [] : [h]));
  const add = (held: readonly number[], cuts: number, taker: number) => {
    const key = held.join(' ');
    let entry = kept.get(key);
    if (!entry) kept.set(key, (entry = { held, sources: [] }));
    entry.sources.push({ group, cuts, taker });
  };
  const handOver = priceOf(problem.weights, 'handOver', 1);
  const used = group.held.reduce((bits, place) => bits | fingerBit(place), 0);
  for (let subset = 0; subset < 1 << sounding.length; subset++) {
    const held = group.held.map(() => NO_PLACE);
    let cuts = 0;
    sounding.forEach((h, bit) => {
      if (subset & (1 << bit)) held[h] = group.held[h]!;
      else cuts += cutCosts[h] ?? 0;
    });
    add(held, cuts, 0);
    for (const h of sounding) {
      const place = held[h]!;
      if (place === NO_PLACE || FINGER_OF[place] === 0) continue;
      for (let finger = 1; finger <= 4; finger++) {
        const taken = place - FINGER_OF[place]! + finger;
        if (used & fingerBit(taken) || !fits(tables, held, h, taken)) continue;
        add(
          held.map((one, k) => (k === h ? taken : one)),
          cuts + (cutCosts[h] === null ? 0 : handOver),
          fingerBit(taken),
        );
      }
    }
  }
}

const fingerBit = (place: number) => (place === NO_PLACE ? 0 : (1 << FINGER_OF[place]!) >> 1);

const fits = (tables: HandTables, held: readonly number[], h: number, place: number) =>
  held.every((one, k) => k === h || one === NO_PLACE || tables.pairCost(one, place) >= 0);

/** By state of the layer before: index of what it leaves in memory, −1 for nothing. */
function memoriesAfter(problem: FingeringProblem, before: StateRows, next: Moment) {
  const known: PackedMemory[] = [];
  const indexOf = new Map<string, number>();
  const of = new Int32Array(before.count).fill(-1);
  for (let s = 0; s < before.count; s++) {
    if (before.range[s]! < 0) continue;
    const memory = memoryAfterState(problem, before, s, next);
    const key = `${memory.range} ${memory.freedTick} ${memory.fingers.join(' ')}`;
    let index = indexOf.get(key);
    if (index === undefined) {
      index = known.length;
      indexOf.set(key, index);
      known.push(memory);
    }
    of[s] = index;
  }
  return { known, of };
}

const ANYWHERE: readonly number[] = [NO_PLACE, NO_PLACE, NO_PLACE, NO_PLACE];

function memoryAfterState(
  problem: FingeringProblem,
  before: StateRows,
  s: number,
  next: Moment,
): PackedMemory {
  const range = before.range[s]!;
  const freedTick =
    before.memory[s]! > 0
      ? before.memories[before.memory[s]! - 1]!.freedTick
      : releasedTickOf(problem, before, s, next, IS_STOPPED);
  const long = freedTick === LONG_FREE || next.timeMs - problem.clock(freedTick) >= LONGEST_WINDOW_MS;
  if (long) return { range, freedTick: LONG_FREE, fingers: ANYWHERE };
  return { range, freedTick, fingers: [...before.fingers.subarray(4 * s, 4 * s + 4)] };
}

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
