/** Which strings the struck notes of each state lie on: what one hand has to know of the other. */
import { placeAt } from '../left/lattice/stateRows';
import { PLACEMENTS } from '../left/rules/place';
import type { HandLayer } from '../left/lattice/handLayer';

/** The strings of a layer's states, numbered. */
export interface LayerStrings {
  /** The strings in one number, each once. */
  readonly keys: readonly number[];
  /** By state: which of the keys is its own. */
  readonly of: Int32Array;
}

const ofLayers = new WeakMap<HandLayer, LayerStrings>();

/** @param columns of the layer's rows: the struck notes of its moment, the same for every question */
export function stringsAt(layer: HandLayer, columns: readonly number[]): LayerStrings {
  let strings = ofLayers.get(layer);
  if (!strings) ofLayers.set(layer, (strings = read(layer, columns)));
  return strings;
}

function read({ rows }: HandLayer, columns: readonly number[]): LayerStrings {
  const keys: number[] = [];
  const indexOf = new Map<number, number>();
  const of = new Int32Array(rows.count);
  for (let s = 0; s < rows.count; s++) {
    let key = 0;
    for (const column of columns) key = key * 8 + (PLACEMENTS[placeAt(rows, s, column)]?.string ?? 0);
    let index = indexOf.get(key);
    if (index === undefined) indexOf.set(key, (index = keys.push(key) - 1));
    of[s] = index;
  }
  return { keys, of };
}
