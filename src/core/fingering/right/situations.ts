/** What the right hand may come to a moment with: every set of such situations is kept once. */
import { HASH_START, hashOf, sameNumbers } from '../numberRows';
import { Apart } from './partTable';

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
  /** By situation: the fret where the left hand was; NO_FRET where nothing was stopped. */
  readonly frets: Int32Array;
}

export const NO_FRET = -1;
/** More than a fretboard has, NO_FRET counted. */
const FRETS = 32;

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

  /** @param fingers,thumbs,frets by state: numbers of parts, frets as in `Situations` */
  after(
    fingers: ArrayLike<number>,
    thumbs: ArrayLike<number>,
    frets: ArrayLike<number>,
    states: number,
  ): Aftermath {
    if (this.rows.key.length < states) this.rows = scratchOf(2 * states);
    const { apart, rows } = this;
    apart.fingers.write(fingers, states, rows.finger, rows.fingers);
    const thumbCount = apart.thumbs.write(thumbs, states, rows.thumb, rows.thumbs);
    for (let s = 0; s < states; s++)
      rows.key[s] = (rows.finger[s]! * thumbCount + rows.thumb[s]!) * FRETS + frets[s]! - NO_FRET;
    const situationOf = new Int32Array(states);
    const count = apart.all.write(rows.key, states, situationOf, rows.keys);
    const [f, t, place] = [new Int32Array(count), new Int32Array(count), new Int32Array(count)];
    for (let n = 0; n < count; n++) {
      const key = rows.keys[n]!;
      const pair = Math.floor(key / FRETS);
      f[n] = rows.fingers[Math.floor(pair / thumbCount)]!;
      t[n] = rows.thumbs[pair % thumbCount]!;
      place[n] = (key % FRETS) + NO_FRET;
    }
    return { situationOf, situations: this.kept(count, f, t, place) };
  }

  private kept(count: number, fingers: Int32Array, thumbs: Int32Array, frets: Int32Array): Situations {
    const hash = hashOf(frets, hashOf(thumbs, hashOf(fingers, HASH_START)));
    let alike = this.byHash.get(hash);
    if (!alike) this.byHash.set(hash, (alike = []));
    const known = alike.find(
      (one) =>
        sameNumbers(one.fingers, fingers) && sameNumbers(one.thumbs, thumbs) && sameNumbers(one.frets, frets),
    );
    if (known) return known;
    const made = { id: this.count++, count, fingers, thumbs, frets };
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
