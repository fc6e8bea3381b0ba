/**
 * Layers of the right hand without their place in the piece: equal strokes after equal memories share states, ways
 * and prices. A layer may hold several groups, one for each way the left hand can put the notes on strings. What
 * fingers and thumb know are numbered apart, so that each is aged and priced once for all pairs of them.
 */
import type { HandProfile } from '../../../instrument/handProfile';
import { Arena } from '../../solver/arena';
import { EdgeList } from '../../solver/edgeList';
import {
  fingersAfter,
  type FingersPart,
  fingersKey,
  NO_FINGERS,
  NO_THUMB,
  type Played,
  type RightMemory,
  sharingFor,
  thumbAfter,
  thumbKey,
  type ThumbPart,
} from '../rules/memory';
import { KEEP, modesFor } from '../rules/modes';
import { type Parted, Parting, PartTable, type Steps } from './partTable';
import { type Aftermath, type Situations, SituationSets } from './situations';
import { fingersPartCost, groupCost, thumbPartCost } from '../rules/strokeCost';
import { sharingsOf, type StrokeGroup } from '../rules/strokes';

export interface StrokeState {
  /** Which of the layer's groups is played. */
  readonly variant: number;
  readonly played: Played;
}

export interface SharedStrokes extends Aftermath {
  readonly states: readonly StrokeState[];
  /** By state, side by side. */
  readonly variantOf: Int32Array;
  readonly stateCost: Int32Array;
  /** From situations of the layer before to states. */
  readonly ways: EdgeList;
}

/** One way to share out a group, with what it makes of every part. */
interface Shared {
  readonly played: Played;
  readonly own: number;
  readonly fingers: Steps;
  readonly thumbs: Steps;
}

/** What hands can know, and what strokes make of it: the same in every piece, so it is kept from one to the next. */
interface Parts {
  readonly fingers: PartTable<FingersPart>;
  readonly thumbs: PartTable<ThumbPart>;
}

const newParts = (): Parts => ({
  fingers: new PartTable({ keyOf: fingersKey, after: fingersAfter, cost: fingersPartCost }),
  thumbs: new PartTable({ keyOf: thumbKey, after: thumbAfter, cost: thumbPartCost }),
});

/** From so many strokes on the tables are begun anew: they would only grow. */
const MOST_STROKES_KNOWN = 3000;
let parts = newParts();

function knownParts(): Parts {
  if (parts.fingers.strokesKnown > MOST_STROKES_KNOWN) parts = newParts();
  return parts;
}

export class StrokeStore {
  private readonly parts = knownParts();
  private readonly fingers = this.parts.fingers;
  private readonly thumbs = this.parts.thumbs;
  private readonly fingersApart = new Parting();
  private readonly thumbsApart = new Parting();
  private readonly sharings = new Map<string, readonly Shared[]>();
  private readonly sets = new SituationSets();
  private readonly arena = new Arena();
  private readonly layers = new Map<string, SharedStrokes>();
  /** The same by groups and the number of the situations before, which needs no key to be written. */
  private readonly lately = new WeakMap<readonly StrokeGroup[], Map<number, SharedStrokes>>();
  readonly start: SharedStrokes;

  constructor(private readonly hand: HandProfile) {
    this.start = {
      states: [{ variant: 0, played: { letters: [], mode: KEEP } }],
      variantOf: new Int32Array(1),
      stateCost: new Int32Array(1),
      ways: new EdgeList(new Int32Array(2), new Int32Array(0), new Int32Array(0)),
      ...this.sets.after([this.fingers.number(NO_FINGERS)], [this.thumbs.number(NO_THUMB)], 1),
    };
  }

  /** `groups`: one for each variant of the moment. */
  layer(before: SharedStrokes, groups: readonly StrokeGroup[]): SharedStrokes {
    let bySituations = this.lately.get(groups);
    if (!bySituations) this.lately.set(groups, (bySituations = new Map()));
    let layer = bySituations.get(before.situations.id);
    if (!layer) bySituations.set(before.situations.id, (layer = this.layerByKey(before, groups)));
    return layer;
  }

  private layerByKey(before: SharedStrokes, groups: readonly StrokeGroup[]): SharedStrokes {
    const key = `${before.situations.id}|${groups.map((group) => group.key).join('|')}`;
    let layer = this.layers.get(key);
    if (!layer) this.layers.set(key, (layer = this.make(before.situations, groups)));
    return layer;
  }

  /** What is known in a situation. */
  memoryIn({ fingers, thumbs }: Situations, number: number): RightMemory {
    return {
      fingers: this.fingers.values[fingers[number]!]!,
      thumb: this.thumbs.values[thumbs[number]!]!,
    };
  }

  private make(before: Situations, groups: readonly StrokeGroup[]): SharedStrokes {
    const { fingersApart, thumbsApart } = this;
    fingersApart.begin(before.fingers);
    thumbsApart.begin(before.thumbs);
    const sharings = groups.map((group) => this.sharingsFor(group));
    const growing = new Growing(
      this.arena,
      before.count,
      sharings.reduce((sum, some) => sum + some.length, 0),
    );
    groups.forEach((_group, variant) => {
      for (const { played, own, fingers, thumbs } of sharings[variant]!) {
        fingersApart.through(fingers);
        thumbsApart.through(thumbs);
        growing.add({ variant, played }, own, fingersApart, thumbsApart);
      }
    });
    const { states, fingers, thumbs } = growing;
    const { situationOf, situations } = this.sets.after(fingers, thumbs, states.length);
    return {
      states,
      variantOf: growing.variants(),
      stateCost: growing.costs(),
      ways: growing.ways(),
      situationOf,
      situations,
    };
  }

  private sharingsFor(group: StrokeGroup): readonly Shared[] {
    let sharings = this.sharings.get(group.key);
    if (!sharings) {
      sharings = waysToPlay(group).map((played) => {
        const sharing = sharingFor(group, played);
        return {
          played,
          own: groupCost(group, sharing),
          fingers: this.fingers.steps(group, sharing, this.hand),
          thumbs: this.thumbs.steps(group, sharing, this.hand),
        };
      });
      this.sharings.set(group.key, sharings);
    }
    return sharings;
  }
}

/** Every sharing of a group's letters in every mode that can play it. */
export const waysToPlay = (group: StrokeGroup): readonly Played[] =>
  sharingsOf(group).flatMap((letters) => modesFor(group, letters).map((mode) => ({ letters, mode })));

/**
 * A layer as it grows: for each sharing a state for each thing that is still known at the next moment, with all ways
 * into them.
 */
class Growing {
  readonly states: StrokeState[] = [];
  readonly fingers: number[] = [];
  readonly thumbs: number[] = [];
  private readonly own: number[] = [];
  private readonly start: number[] = [];
  private readonly from: Int32Array;
  private readonly price: Int32Array;
  /** How many ways there are already. */
  private size = 0;

  constructor(
    private readonly arena: Arena,
    private readonly situations: number,
    sharings: number,
  ) {
    this.from = arena.int32(situations * sharings);
    this.price = arena.int32(situations * sharings);
    if (to.length < situations) to = new Int32Array(2 * situations);
  }

  add(state: StrokeState, own: number, fingers: Parted, thumbs: Parted): void {
    const { situations, from, price } = this;
    this.addStates(state, own, fingers, thumbs);
    const { of: fingerOf, cost: fingerCost } = fingers;
    const { of: thumbOf, cost: thumbCost } = thumbs;
    for (let s = 0; s < situations; s++) {
      const at = next[to[s]!]!++;
      from[at] = s;
      price[at] = fingerCost[fingerOf[s]!]! + thumbCost[thumbOf[s]!]!;
    }
    this.size += situations;
  }

  /** Writes to which of the new states each situation comes, and where the ways into each of them begin. */
  private addStates(state: StrokeState, own: number, fingers: Parted, thumbs: Parted): void {
    const first = this.states.length;
    const { of: fingerOf, newOf: newFingers } = fingers;
    const { of: thumbOf, newOf: newThumbs, count: width } = thumbs;
    const pairs = fingers.count * width;
    if (stateOf.length < pairs) stateOf = new Int32Array(2 * pairs);
    if (next.length < pairs) next = new Int32Array(2 * pairs);
    stateOf.fill(-1, 0, pairs);
    let states = 0;
    for (let s = 0; s < this.situations; s++) {
      const f = newFingers[fingerOf[s]!]!;
      const t = newThumbs[thumbOf[s]!]!;
      let n = stateOf[f * width + t]!;
      if (n < 0) {
        n = stateOf[f * width + t] = states++;
        next[n] = 0;
        this.states.push(state);
        this.own.push(own);
        this.fingers.push(fingers.numbers[f]!);
        this.thumbs.push(thumbs.numbers[t]!);
      }
      to[s] = n;
      next[n]!++;
    }
    for (let n = 0, at = this.size; n < states; n++) {
      const ways = next[n]!;
      this.start[first + n] = next[n] = at;
      at += ways;
    }
  }

  variants(): Int32Array {
    const variants = this.arena.int32(this.states.length);
    for (let s = 0; s < variants.length; s++) variants[s] = this.states[s]!.variant;
    return variants;
  }

  costs(): Int32Array {
    const costs = this.arena.int32(this.own.length);
    costs.set(this.own);
    return costs;
  }

  /** Sorted by the state that they lead to. */
  ways(): EdgeList {
    const start = this.arena.int32(this.start.length + 1);
    start.set(this.start);
    start[this.start.length] = this.size;
    return new EdgeList(start, this.from, this.price);
  }
}

/** By situation: the state that it comes to, counted from the first of the sharing; written over with each. */
let to = new Int32Array(64);
/** By pair of parts: the state that knows it, in the same way. */
let stateOf = new Int32Array(64);
/** By state of the sharing: how many ways lead into it; then where the next one is written. */
let next = new Int32Array(64);
