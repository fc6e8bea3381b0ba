/** Rows of evidence cut into spans of one texture: Viterbi's algorithm over the events of a voice. */
import { type Evidence, READ_TEXTURES, type ReadTexture } from './evidence';

export interface TextureSpan {
  readonly texture: ReadTexture;
  /** First and last event. */
  readonly from: number;
  readonly to: number;
  readonly margin: number;
}

/** Changing the texture on a beat, and off it. On a break it is free. */
const CHANGE_ON_BEAT = 0.9;
const CHANGE_OFF_BEAT = 1.7;

/**
 * The best cut: evidence inside each span, less what its borders cost. A pair of events between two spans counts for
 * neither.
 * @param evidence by pair of neighbouring events, null where a phrase ends
 * @param onBeat by event
 */
export function textureSpansOf(
  evidence: readonly (Evidence | null)[],
  onBeat: readonly boolean[],
): readonly TextureSpan[] {
  const count = evidence.length + 1;
  const best: number[][] = [READ_TEXTURES.map(() => 0)];
  const via: number[][] = [READ_TEXTURES.map((_texture, t) => t)];
  for (let n = 1; n < count; n++) {
    const row = evidence[n - 1]!;
    const before = best[n - 1]!;
    const change = row === null ? 0 : onBeat[n] ? CHANGE_ON_BEAT : CHANGE_OFF_BEAT;
    const highest = before.indexOf(Math.max(...before));
    best.push([]);
    via.push([]);
    READ_TEXTURES.forEach((texture, t) => {
      const stay = before[t]! + (row?.[texture] ?? 0);
      const come = before[highest]! - change;
      best[n]![t] = Math.max(stay, come);
      via[n]![t] = stay >= come ? t : highest;
    });
  }
  const textures: number[] = [];
  let t = best.at(-1)!.indexOf(Math.max(...best.at(-1)!));
  for (let n = count - 1; n >= 0; n--) {
    textures[n] = t;
    t = via[n]![t]!;
  }
  return grouped(textures, evidence);
}

function grouped(
  textures: readonly number[],
  evidence: readonly (Evidence | null)[],
): readonly TextureSpan[] {
  const spans: TextureSpan[] = [];
  let from = 0;
  for (let n = 1; n <= textures.length; n++) {
    const ends = n === textures.length || textures[n] !== textures[from] || evidence[n - 1] === null;
    if (!ends) continue;
    const texture = READ_TEXTURES[textures[from]!]!;
    spans.push({ texture, from, to: n - 1, margin: marginOf(texture, evidence.slice(from, n - 1)) });
    from = n;
  }
  return spans;
}

/** How much more speaks for the texture than for the next best, a pair. */
function marginOf(texture: ReadTexture, rows: readonly (Evidence | null)[]): number {
  if (rows.length === 0) return 0;
  const sum = (of: ReadTexture) => rows.reduce((total, row) => total + (row?.[of] ?? 0), 0);
  const next = Math.max(...READ_TEXTURES.filter((other) => other !== texture).map(sum));
  return Math.max(0, (sum(texture) - next) / rows.length);
}
