/** The teacher's word on a texture, note by note, laid over what was read. */
import type { NotatedPiece } from '../fingering/problem/problem';
import type { Figure } from './figure';
import type { Texture } from './texture';

/** Figures are cut where the teacher's word begins and ends; neighbours of one texture that were named are one. */
export function corrected(
  { strikes, moments }: NotatedPiece,
  figures: readonly Figure[],
  textureOf: (uid: string) => Texture | null,
): readonly Figure[] {
  const wordOn = (strike: number): Texture | null =>
    strikes[strike]!.uids.map(textureOf).find((texture) => texture !== null) ?? null;
  const words = strikes.map((_strike, k) => wordOn(k));
  if (words.every((word) => word === null)) return figures;
  const momentOf: number[] = [];
  for (const { struck, index } of moments) for (const strike of struck) momentOf[strike] = index;
  const cut = figures.flatMap((figure): readonly Figure[] => {
    const parts: { word: Texture | null; strikes: number[] }[] = [];
    for (const strike of figure.strikes) {
      const word = words[strike]!;
      const last = parts.at(-1);
      const sameMoment = last && momentOf[last.strikes.at(-1)!] === momentOf[strike];
      if (last && (last.word === word || sameMoment)) last.strikes.push(strike);
      else parts.push({ word, strikes: [strike] });
    }
    return parts.map(({ word, strikes: own }) => ({
      ...figure,
      ...(word === null ? {} : { texture: word, rule: 'teacher' as const, margin: 1 }),
      strikes: own,
      fromMoment: momentOf[own[0]!]!,
      toMoment: momentOf[own.at(-1)!]!,
    }));
  });
  return cut.reduce<Figure[]>((joined, figure) => {
    const last = joined.at(-1);
    const goesOn = last?.voice === figure.voice && last.rule === 'teacher' && figure.rule === 'teacher';
    if (goesOn && last.texture === figure.texture) {
      joined[joined.length - 1] = {
        ...last,
        toMoment: figure.toMoment,
        strikes: [...last.strikes, ...figure.strikes],
      };
    } else joined.push(figure);
    return joined;
  }, []);
}
