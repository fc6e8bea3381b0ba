/** What the right hand may come to a moment with: every set of such situations is kept once. */
import { HASH_START, hashOf, sameNumbers } from '../../solver/numberRows';
import { Apart } from './partTable';

/** What later costs can depend on: pairs of what the fingers and the thumb still know as the next moment comes. */
export interface Situations {
  readonly id: number;
  readonly count: number;
  /** By situation: numbers of its parts. */
  readonly fingers: Int32Array;
  readonly thumbs: Int32Array;
}

/** What the states of a layer leave behind. */
export interface Aftermath {
  /** By state: which of the situations it leaves. */
  readonly situationOf: Int32Array;
  readonly situations: Situations;
}

export class SituationSets {
  private readonly byHash = new Map<number, Situations[]>();
  private count = 0;
  private readonly apart = { fingers: new Apart(), thumbs: new Apart(), all: new Apart() };
  private rows = scratchOf(64);

  /** @param fingers,thumbs by state: numbers of parts */
  after(fingers: ArrayLike<number>, thumbs: ArrayLike<number>, states: number): Aftermath {
    if (this.rows.key.length < states) this.rows = scratchOf(2 * states);
    const { apart, rows } = this;
    apart.fingers.write(fingers, states, rows.finger, rows.fingers);
    const thumbCount = apart.thumbs.write(thumbs, states, rows.thumb, rows.thumbs);
    for (let s = 0; s < states; s++) rows.key[s] = rows.finger[s]! * thumbCount + rows.thumb[s]!;
    const situationOf = new Int32Array(states);
    const count = apart.all.write(rows.key, states, situationOf, rows.keys);
    const [f, t] = [new Int32Array(count), new Int32Array(count)];
    for (let n = 0; n < count; n++) {
      const pair = rows.keys[n]!;
      f[n] = rows.fingers[Math.floor(pair / thumbCount)]!;
      t[n] = rows.thumbs[pair % thumbCount]!;
    }
    return { situationOf, situations: this.kept(count, f, t) };
  }

  private kept(count: number, fingers: Int32Array, thumbs: Int32Array): Situations {
    const hash = hashOf(thumbs, hashOf(fingers, HASH_START));
    let alike = this.byHash.get(hash);
    if (!alike) this.byHash.set(hash, (alike = []));
    const known = alike.find((one) => sameNumbers(one.fingers, fingers) && sameNumbers(one.thumbs, thumbs));
    if (known) return known;
    const made = { id: this.count++, count, fingers, thumbs };
    alike.push(made);
    return made;
  }
}

/** Rows that are written over with each layer: by state, and by distinct part or situation. */
const scratchOf = (length: number) => ({
  finger: new Int32Array(length),
  fingers: new Int32Array(length),
  thumb: new Int32Array(length),
  thumbs: new Int32Array(length),
  key: new Int32Array(length),
  keys: new Int32Array(length),
});
