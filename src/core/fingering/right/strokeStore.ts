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
  type FingersPart,
  NO_FINGERS,
  NO_THUMB,
  type RightMemory,
  type Sharing,
  sharingFor,
  thumbAfter,
  thumbKey,
  type ThumbPart,
} from './memory';
import { busyCost, fingersPartCost, groupCost, thumbPartCost } from './strokeCost';
import { sharingsOf, type StrokeGroup } from './strokes';

export interface StrokeState {
  /** Which of the layer's groups is played. */
  readonly variant: number;
  readonly letters: readonly Pluck[];
  readonly memory: RightMemory;
}

/** What later costs can depend on: pairs of what the fingers and the thumb know, with where the left hand was. */
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
  readonly stateCost: Int32Array;
  /** From situations of the layer before to states. */
  readonly ways: EdgeList;
  /** By state: which of the situations it leaves. */
  readonly situationOf: Int32Array;
  readonly situations: Situations;
}

/** Numbers values that are equal when their keys are. */
class Interned<T> {
  readonly values: T[] = [];
  private readonly numbers = new Map<string, number>();
  constructor(private readonly keyOf: (value: T) => string) {}
  number(value: T): number {
    const key = this.keyOf(value);
    let number = this.numbers.get(key);
    if (number === undefined) {
      number = this.values.push(value) - 1;
      this.numbers.set(key, number);
    }
    return number;
  }
}

/** More parts of one kind than this never come up in a piece; numbers of two fit into one. */
const PARTS = 1 << 20;

export class StrokeStore {
  private readonly fingers = new Interned<FingersPart>(fingersKey);
  private readonly thumbs = new Interned<ThumbPart>(thumbKey);
  private readonly sets = new Map<string, Situations>();
  private readonly layers = new Map<string, SharedStrokes>();
  readonly start: SharedStrokes;

  constructor(private readonly hand: HandProfile) {
    const states = [{ variant: 0, letters: [], memory: { fingers: NO_FINGERS, thumb: NO_THUMB } }];
    this.start = {
      states,
      stateCost: new Int32Array(1),
      ways: new EdgeList(new Int32Array(2), new Int32Array(0), new Int32Array(0)),
      ...this.situationsOf([this.fingers.number(NO_FINGERS)], [this.thumbs.number(NO_THUMB)], [null]),
    };
  }

  /** `groups`: one for each variant of the moment; `stepMs` since the moment before. */
  layer(before: SharedStrokes, groups: readonly StrokeGroup[], stepMs: number): SharedStrokes {
    const key = `${before.situations.id}|${stepMs}|${groups.map((group) => group.key).join('|')}`;
    let layer = this.layers.get(key);
    if (!layer) this.layers.set(key, (layer = this.make(before.situations, groups, stepMs)));
    return layer;
  }

  private make(before: Situations, groups: readonly StrokeGroup[], stepMs: number): SharedStrokes {
    const growing = new Growing(before.count);
    const fingers = this.agedParts(this.fingers, before.fingers, (part) => agedFingers(part, stepMs));
    const thumbs = this.agedParts(this.thumbs, before.thumbs, (part) => agedThumb(part, stepMs));
    groups.forEach((group, variant) => {
      for (const letters of sharingsOf(group)) {
        const sharing = sharingFor(group, letters);
        growing.begin(variant, sharing, group.fret, groupCost(group, sharing));
        const onFingers = this.stepOf(this.fingers, fingers, fingersAfter, fingersPartCost, group, sharing);
        const onThumbs = this.stepOf(this.thumbs, thumbs, thumbAfter, thumbPartCost, group, sharing);
        for (let s = 0; s < before.count; s++) {
          const f = fingers.indexOf[s]!;
          const t = thumbs.indexOf[s]!;
          const awkward = onFingers.cost[f]! + onThumbs.cost[t]!;
          const busy = awkward === 0 ? 0 : busyCost(awkward, before.frets[s]!, group);
          growing.add(onFingers.after[f]!, onThumbs.after[t]!, s, awkward + busy);
        }
      }
    });
    return this.finished(growing);
  }

  /** The distinct parts among the situations, as old as the new moment. */
  private agedParts<T>(store: Interned<T>, numbers: Int32Array, age: (part: T) => T): AgedParts {
    const distinct = new Map<number, number>();
    const agedNumbers: number[] = [];
    const indexOf = Int32Array.from(numbers, (number) => {
      let index = distinct.get(number);
      if (index === undefined) {
        index = agedNumbers.push(store.number(age(store.values[number]!))) - 1;
        distinct.set(number, index);
      }
      return index;
    });
    return { indexOf, numbers: agedNumbers };
  }

  private stepOf<T>(
    store: Interned<T>,
    { numbers }: AgedParts,
    after: (part: T, sharing: Sharing) => T,
    cost: (part: T, group: StrokeGroup, sharing: Sharing, hand: HandProfile) => number,
    group: StrokeGroup,
    sharing: Sharing,
  ) {
    return {
      after: numbers.map((number) => {
        const part = store.values[number]!;
        const next = after(part, sharing);
        return next === part ? number : store.number(next);
      }),
      cost: numbers.map((number) => cost(store.values[number]!, group, sharing, this.hand)),
    };
  }

  private finished(growing: Growing): SharedStrokes {
    const { states, cost, fingers, thumbs, frets } = growing;
    return {
      states: states.map(({ variant, letters }, s) => ({
        variant,
        letters,
        memory: { fingers: this.fingers.values[fingers[s]!]!, thumb: this.thumbs.values[thumbs[s]!]! },
      })),
      stateCost: Int32Array.from(cost),
      ways: growing.edges(),
      ...this.situationsOf(fingers, thumbs, frets),
    };
  }

  private situationsOf(
    fingers: readonly number[],
    thumbs: readonly number[],
    frets: readonly (number | null)[],
  ): Pick<SharedStrokes, 'situationOf' | 'situations'> {
    const numbers = new Map<number, number>();
    const firsts: number[] = [];
    const situationOf = Int32Array.from(fingers, (f, s) => {
      const key = (f * PARTS + thumbs[s]!) * FRETS + ((frets[s] ?? -1) + 1);
      let number = numbers.get(key);
      if (number === undefined) {
        number = firsts.push(s) - 1;
        numbers.set(key, number);
      }
      return number;
    });
    const key = [...numbers.keys()].join();
    let situations = this.sets.get(key);
    if (!situations) {
      situations = {
        id: this.sets.size,
        count: firsts.length,
        fingers: Int32Array.from(firsts, (s) => fingers[s]!),
        thumbs: Int32Array.from(firsts, (s) => thumbs[s]!),
        frets: firsts.map((s) => frets[s]!),
      };
      this.sets.set(key, situations);
    }
    return { situationOf, situations };
  }
}

const FRETS = 32;

interface AgedParts {
  /** By situation: index into `numbers`. */
  readonly indexOf: Int32Array;
  readonly numbers: readonly number[];
}

/** A layer as it grows: one state for each sharing and what is known after it, with all ways into it. */
class Growing {
  readonly states: { readonly variant: number; readonly letters: readonly Pluck[] }[] = [];
  readonly cost: number[] = [];
  readonly fingers: number[] = [];
  readonly thumbs: number[] = [];
  readonly frets: (number | null)[] = [];
  private readonly from: number[] = [];
  private readonly to: number[] = [];
  private readonly price: number[] = [];
  private numbers = new Map<number, number>();
  private current!: { readonly variant: number; readonly letters: readonly Pluck[] };
  private fret: number | null = null;
  private own = 0;

  constructor(readonly situations: number) {}

  begin(variant: number, { letters }: Sharing, fret: number | null, own: number): void {
    this.numbers = new Map();
    this.current = { variant, letters };
    this.fret = fret;
    this.own = own;
  }

  add(fingers: number, thumb: number, from: number, price: number): void {
    const key = fingers * PARTS + thumb;
    let state = this.numbers.get(key);
    if (state === undefined) {
      state = this.states.push(this.current) - 1;
      this.numbers.set(key, state);
      this.cost.push(this.own);
      this.fingers.push(fingers);
      this.thumbs.push(thumb);
      this.frets.push(this.fret);
    }
    this.from.push(from);
    this.to.push(state);
    this.price.push(price);
  }

  /** Sorted by the state that they lead to. */
  edges(): EdgeList {
    const start = new Int32Array(this.states.length + 1);
    for (const to of this.to) start[to + 1]!++;
    for (let s = 0; s < this.states.length; s++) start[s + 1]! += start[s]!;
    const next = start.slice();
    const from = new Int32Array(this.from.length);
    const price = new Int32Array(this.from.length);
    this.to.forEach((to, e) => {
      const at = next[to]!++;
      from[at] = this.from[e]!;
      price[at] = this.price[e]!;
    });
    return new EdgeList(start, from, price);
  }
}
