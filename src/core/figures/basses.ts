/** Basses that the thumb plays under the fingers' figures belong to these: see handbook 13, "also the upper voice over held basses". */
import type { NotatedPiece } from '../fingering/problem/problem';
import type { Figure } from './figure';
import type { Texture } from './texture';
import type { NoteHand } from './thumb';

/** @param textures by moment: what the fingers have to think in */
export function withBasses(
  { moments }: NotatedPiece,
  figures: readonly Figure[],
  hands: readonly NoteHand[],
  textures: readonly Texture[],
): readonly Figure[] {
  const momentOf: number[] = [];
  for (const { struck, index } of moments) for (const strike of struck) momentOf[strike] = index;
  return figures.flatMap((figure) => {
    const isBass = figure.strikes.every((strike) => hands[strike] === 'thumb');
    if (!isBass || figure.rule === 'teacher') return [figure];
    return parted(figure, momentOf, textures);
  });
}

/** A bass that moves by step is a voice of its own, but for what moves around a pedal; so is a pedal under chords that move. */
const isOwn = ({ texture, rule }: Figure, upper: Texture): boolean =>
  (texture === 'line' && rule === 'steps' && upper !== 'pedal') ||
  (texture === 'pedal' && upper === 'parallels');

function parted(
  figure: Figure,
  momentOf: readonly number[],
  textures: readonly Texture[],
): readonly Figure[] {
  const parts: { texture: Texture; strikes: number[] }[] = [];
  for (const strike of figure.strikes) {
    const upper = textures[momentOf[strike]!]!;
    const texture = isOwn(figure, upper) ? figure.texture : upper;
    const last = parts.at(-1);
    if (last?.texture === texture) last.strikes.push(strike);
    else parts.push({ texture, strikes: [strike] });
  }
  return parts.map(({ texture, strikes }) => ({
    ...figure,
    texture,
    rule: texture === figure.texture ? figure.rule : ('withUpper' as const),
    strikes,
    fromMoment: momentOf[strikes[0]!]!,
    toMoment: momentOf[strikes.at(-1)!]!,
  }));
}
