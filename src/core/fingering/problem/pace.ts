/**
 * Time as the left hand reckons it. A teacher fingers a figure alike at every tempo, and a line by whether it is quick or
 * slow, not by its metronome mark (handbook 13). So each stretch of one texture is reckoned at a pace of its own: figures
 * at one that does not depend on the tempo, all else at the nearest of a few. Inside a stretch all times keep their
 * proportions. What is shown to a teacher is always in real time.
 */
import type { TempoMark } from '../../music/tempo';
import type { Reading } from '../../figures/reading';
import type { Texture } from '../../figures/texture';
import type { Moment } from './problem';

/** Ms from note to note: what is usual. From memory, with an eye on the passages. */
const FIGURE_MS: Readonly<Partial<Record<Texture, number>>> = {
  tremolo: 125,
  brokenChord: 250,
  pedal: 200,
  strum: 500,
  afterbeats: 500,
  parallels: 500,
  chords: 1000,
};

/** Whether notes in it are fingered alike at every tempo. */
export const isFigure = (texture: Texture): boolean => FIGURE_MS[texture] !== undefined;

/** Where the tempo counts, the paces lie octaves from this one: quick up to 177 ms a note, slow from 354 on. */
const PACE_MS = 250;

/** The tempos of a score as the hand reckons them: the first at tick 0, ascending. */
export function reckonedTempos(
  tempos: readonly TempoMark[],
  moments: readonly Moment[],
  reading: Pick<Reading, 'figures' | 'textures'>,
): readonly TempoMark[] {
  if (moments.length === 0) return tempos;
  const textures = leftTextures(reading);
  const marks = stretchesOf(textures).flatMap(({ from, to }) => {
    const start = from === 0 ? 0 : moments[from]!.tick;
    const end = moments[to]?.tick ?? Infinity;
    const paceMs = medianGapMs(moments.slice(from, to + 1));
    const quicker = paceMs / reckonedMs(textures[from]!, paceMs);
    const first = tempos.findLast(({ tick }) => tick <= start)!;
    const later = tempos.filter(({ tick }) => tick > start && tick < end);
    return [{ ...first, tick: start }, ...later].map((mark) => ({
      ...mark,
      quartersPerMinute: mark.quartersPerMinute * quicker,
    }));
  });
  return marks.filter((mark, k) => mark.quartersPerMinute !== marks[k - 1]?.quartersPerMinute);
}

/** What the left hand has to think in: parallels, whatever the right hand does with them. */
function leftTextures({ figures, textures }: Pick<Reading, 'figures' | 'textures'>): readonly Texture[] {
  const parallels = figures.filter(({ texture }) => texture === 'parallels');
  return textures.map((texture, k) =>
    parallels.some(({ fromMoment, toMoment }) => fromMoment <= k && k <= toMoment) ? 'parallels' : texture,
  );
}

function reckonedMs(texture: Texture, paceMs: number): number {
  const octaves = Math.round(Math.log2(paceMs / PACE_MS));
  return FIGURE_MS[texture] ?? PACE_MS * 2 ** octaves;
}

/** From moment to the moment after the last. */
interface Stretch {
  readonly from: number;
  readonly to: number;
}

function stretchesOf(textures: readonly Texture[]): readonly Stretch[] {
  const starts = [...textures.keys()].filter((k) => k === 0 || textures[k] !== textures[k - 1]);
  return starts.map((from, n) => ({ from, to: starts[n + 1] ?? textures.length }));
}

/** As slow as most of it; of a single note at the end nothing is known. */
function medianGapMs(moments: readonly Moment[]): number {
  const gaps = moments.slice(1).map(({ timeMs }, k) => timeMs - moments[k]!.timeMs);
  return gaps.sort((a, b) => a - b)[gaps.length >> 1] ?? PACE_MS;
}
