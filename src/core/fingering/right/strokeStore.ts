/**
 * Layers of the right hand without their place in the piece: equal strokes after equal memories share states, ways
 * and prices. A layer may hold several groups, one for each way the left hand can put the notes on strings. What
 * fingers and thumb know are numbered apart, so that each is aged and priced once for all pairs of them.
 */
import type { HandProfile } from '../../instrument/handProfile';
import type { Pluck } from '../../score/model';
import { EdgeList } from '../edgeList';
import {
  agedFingers,
  agedThumb,
  fingersAfter,
  fingersKey,
  NO_FINGERS,
  NO_THUMB,
  type RightMemory,
  sharingFor,
  thumbAfter,
  thumbKey,
} from './memory';
import { Memo, type Parted, Parting, PartTable, type Steps } from './partTable';
import type { Manner } from './setting';
import { busyPrice, busyShare, fingersPartCost, groupCost, thumbPartCost } from './strokeCost';
import { sharingsOf, type StrokeGroup } from './strokes';

export interface StrokeState {
  /** Which of the layer's groups is played. */
  readonly variant: number;
  readonly letters: readonly Pluck[];
}

/**
 * What later costs can depend on: pairs of what the fingers and the thumb still know as the next moment comes, with
 * where the left hand was.
 */
export interface Situations {
  readonly id: number;
  readonly count: number;
  /** By situation: numbers of its parts. */
  readonly fingers: Int32Array;
  readonly thumbs: Int32Array;
  readonly frets: readonly (number | null)[];
}

export interface SharedStrokes {
  readonly states: readonly StrokeState[];
  /** By state, side by side. */
  readonly variantOf: Int32Array;
  readonly stateCost: Int32Array;
  /** From situations of the layer before to states. */
  readonly ways: EdgeList;
  /** By state: which of the situations it leaves. */
  readonly situationOf: Int32Array;
  readonly situations: Situations;
}

/** A layer with the time until the next moment that it was made for. */
interface Lately {
  readonly ms: number;
  readonly layer: SharedStrokes;
}

/** One way to share out a group, with what it makes of every part. */
interface Shared {
  readonly letters: readonly Pluck[];
  readonly own: number;
  readonly fingers: Steps;
  readonly thumbs: Steps;
}

/** More parts of one kind than this never come up in a piece; numbers of two fit into one. */
const PARTS = 1 << 20;
const FRETS = 32;

export class StrokeStore {
  private readonly fingers = new PartTable({
    keyOf: fingersKey,
    agedBy: agedFingers,
    after: fingersAfter,
    cost: fingersPartCost,
  });
  private readonly thumbs = new PartTable({
    keyOf: thumbKey,
    agedBy: agedThumb,
    after: thumbAfter,
    cost: thumbPartCost,
  });
  private readonly fingersApart = new Parting(this.fingers);
  private readonly thumbsApart = new Parting(this.thumbs);
  private readonly sharings = new Map<string, readonly Shared[]>();
  private readonly sets = new Map<string, Situations>();
  private readonly layers = new Map<string, SharedStrokes>();
  /** The same by groups and the number of the situations before, which needs no key to be written. */
  private readonly lately = new WeakMap<readonly StrokeGroup[], Map<number, Lately>>();
  private readonly busy = new Map<string, BusyPrices>();
  readonly start: SharedStrokes;

  constructor(private readonly hand: HandProfile) {
    this.start = {
      states: [{ variant: 0, letters: [] }],
      variantOf: new Int32Array(1),
      stateCost: new Int32Array(1),
      ways: new EdgeList(new Int32Array(2), new Int32Array(0), new Int32Array(0)),
      ...this.situationsOf([this.fingers.number(NO_FINGERS)], [this.thumbs.number(NO_THUMB)], [null]),
    };
  }

  /** `groups`: one for each variant of the moment; `ms` until the next one. */
  layer(before: SharedStrokes, groups: readonly StrokeGroup[], ms: number): SharedStrokes {
    let bySituations = this.lately.get(groups);
    if (!bySituations) this.lately.set(groups, (bySituations = new Map()));
    const lately = bySituations.get(before.situations.id);
    if (lately?.ms === ms) return lately.layer;
    const layer = this.layerByKey(before, groups, ms);
    bySituations.set(before.situations.id, { ms, layer });
    return layer;
  }

  private layerByKey(before: SharedStrokes, groups: readonly StrokeGroup[], ms: number): SharedStrokes {
    const key = `${before.situations.id}|${ms}|${groups.map((group) => group.key).join('|')}`;
    let layer = this.layers.get(key);
    if (!layer) this.layers.set(key, (layer = this.make(before.situations, groups, ms)));
    return layer;
  }

  /** What is known in a situation. */
  memoryIn({ fingers, thumbs }: Situations, number: number): RightMemory {
    return {
      fingers: this.fingers.values[fingers[number]!]!,
      thumb: this.thumbs.values[thumbs[number]!]!,
    };
  }

  private make(before: Situations, groups: readonly StrokeGroup[], ms: number): SharedStrokes {
    const { fingersApart, thumbsApart } = this;
    fingersApart.begin(before.fingers);
    thumbsApart.begin(before.thumbs);
    const sharings = groups.map((group) => this.sharingsFor(group));
    const growing = new Growing(
      before.count,
      sharings.reduce((sum, some) => sum + some.length, 0),
    );
    groups.forEach((group, variant) => {
      const busy = this.busyFor(before, group);
      for (const { letters, own, fingers, thumbs } of sharings[variant]!) {
        fingersApart.through(fingers, ms);
        thumbsApart.through(thumbs, ms);
        growing.add({ variant, letters }, own, group.fret, fingersApart, thumbsApart, busy);
      }
    });
    const { states, cost } = growing;
    return {
      states,
      variantOf: Int32Array.from(growing.variants),
      stateCost: Int32Array.from(cost),
      ways: growing.ways(),
      ...this.situationsOf(growing.fingers, growing.thumbs, growing.frets),
    };
  }

  /** By situation: what an awkward stroke costs more; null where the left hand is never busy. */
  private busyFor({ frets }: Situations, group: StrokeGroup): readonly BusyPrices[] | null {
    const shares = frets.map((fret) => busyShare(fret, group));
    if (shares.every((share) => share === 0)) return null;
    return shares.map((share) => {
      const key = `${group.manner.weights.busy}*${share}`;
      let busy = this.busy.get(key);
      if (!busy) this.busy.set(key, (busy = new BusyPrices(share, group.manner)));
      return busy;
    });
  }

  private sharingsFor(group: StrokeGroup): readonly Shared[] {
    let sharings = this.sharings.get(group.pluckKey);
    if (!sharings) {
      sharings = sharingsOf(group).map((letters) => {
        const sharing = sharingFor(group, letters);
        return {
          letters,
          own: groupCost(group, sharing),
          fingers: this.fingers.steps(group, sharing, this.hand),
          thumbs: this.thumbs.steps(group, sharing, this.hand),
        };
      });
      this.sharings.set(group.pluckKey, sharings);
    }
    return sharings;
  }

  private situationsOf(
    fingers: readonly number[],
    thumbs: readonly number[],
    frets: readonly (number | null)[],
  ): Pick<SharedStrokes, 'situationOf' | 'situations'> {
    const numbers = new Map<number, number>();
    const firsts: number[] = [];
    const situationOf = new Int32Array(fingers.length);
    let set = '';
    for (let s = 0; s < fingers.length; s++) {
      const [f, t, fret] = [fingers[s]!, thumbs[s]!, (frets[s] ?? -1) + 1];
      const key = (f * PARTS + t) * FRETS + fret;
      let number = numbers.get(key);
      if (number === undefined) {
        number = firsts.push(s) - 1;
        numbers.set(key, number);
        set += `${f},${t},${fret};`;
      }
      situationOf[s] = number;
    }
    let situations = this.sets.get(set);
    if (!situations) {
      situations = {
        id: this.sets.size,
        count: firsts.length,
        fingers: Int32Array.from(firsts, (s) => fingers[s]!),
        thumbs: Int32Array.from(firsts, (s) => thumbs[s]!),
        frets: firsts.map((s) => frets[s]!),
      };
      this.sets.set(set, situations);
    }
    return { situationOf, situations };
  }
}

/** What awkward strokes cost more while the left hand is busy, each worked out once. */
class BusyPrices {
  private readonly known = new Memo();

  constructor(
    private readonly share: number,
    private readonly manner: Manner,
  ) {}

  of(awkward: number): number {
    const known = this.known.get(awkward);
    return known >= 0 ? known : this.known.set(awkward, busyPrice(awkward, this.share, this.manner));
  }
}

/**
 * A layer as it grows: for each sharing a state for each thing that is still known at the next moment, with all ways
 * into them.
 */
class Growing {
  readonly states: StrokeState[] = [];
  readonly variants: number[] = [];
  readonly cost: number[] = [];
  readonly fingers: number[] = [];
  readonly thumbs: number[] = [];
  readonly frets: (number | null)[] = [];
  private readonly start: number[] = [];
  private readonly from: Int32Array;
  private readonly price: Int32Array;
  /** How many ways there are already. */
  private size = 0;
  /** By situation: the state that it comes to, counted from the first of the sharing. */
  private readonly to: Int32Array;
  private stateOf = new Int32Array(64);

  constructor(
    private readonly situations: number,
    sharings: number,
  ) {
    this.from = new Int32Array(situations * sharings);
    this.price = new Int32Array(situations * sharings);
    this.to = new Int32Array(situations);
  }

  add(
    state: StrokeState,
    own: number,
    fret: number | null,
    fingers: Parted,
    thumbs: Parted,
    busy: readonly BusyPrices[] | null,
  ): void {
    const first = this.states.length;
    const pairs = fingers.count * thumbs.count;
    if (this.stateOf.length < pairs) this.stateOf = new Int32Array(2 * pairs);
    const stateOf = this.stateOf.fill(-1, 0, pairs);
    const ways: number[] = [];
    for (let s = 0; s < this.situations; s++) {
      const f = fingers.newOf[fingers.of[s]!]!;
      const t = thumbs.newOf[thumbs.of[s]!]!;
      const pair = f * thumbs.count + t;
      if (stateOf[pair]! < 0) {
        stateOf[pair] = ways.push(0) - 1;
        this.states.push(state);
        this.variants.push(state.variant);
        this.cost.push(own);
        this.fingers.push(fingers.numbers[f]!);
        this.thumbs.push(thumbs.numbers[t]!);
        this.frets.push(fret);
      }
      const n = stateOf[pair]!;
      this.to[s] = n;
      ways[n]!++;
    }
    for (let n = 0, at = this.size; n < ways.length; n++) {
      this.start[first + n] = at;
      at += ways[n]!;
      ways[n] = this.start[first + n]!;
    }
    for (let s = 0; s < this.situations; s++) {
      const at = ways[this.to[s]!]!++;
      const awkward = fingers.cost[fingers.of[s]!]! + thumbs.cost[thumbs.of[s]!]!;
      this.from[at] = s;
      this.price[at] = awkward + (busy === null || awkward === 0 ? 0 : busy[s]!.of(awkward));
    }
    this.size += this.situations;
  }

  /** Sorted by the state that they lead to. */
  ways(): EdgeList {
    return new EdgeList(Int32Array.from([...this.start, this.size]), this.from, this.price);
  }
}
