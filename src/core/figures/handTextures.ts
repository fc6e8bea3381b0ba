/** What the fingers of the right hand have to think in at each moment, when figures of several voices lie over each other. */
import type { NotatedPiece } from '../fingering/problem/problem';
import type { Figure } from './figure';
import type { Texture } from './texture';
import type { NoteHand } from './thumb';

/** Textures in which each finger has its string: beside one of them a tune above is part of it. */
const STATIONED: ReadonlySet<Texture> = new Set<Texture>([
  'brokenChord',
  'afterbeats',
  'chords',
  'parallels',
  'pedal',
]);

/**
 * By moment. A voice that only the thumb plays says nothing to the fingers; a tune above an accompaniment that the
 * fingers play belongs to its stations.
 */
export function handTextures(
  { moments }: NotatedPiece,
  figures: readonly Figure[],
  hands: readonly NoteHand[],
): readonly Texture[] {
  const lasting = figures.flatMap((figure) => spansWithFingers(figure, figures, hands, moments));
  const figuresAt: Figure[][] = moments.map(() => []);
  for (const { figure, from, to } of lasting) for (let k = from; k < to; k++) figuresAt[k]!.push(figure);
  const textures = figuresAt.map((here) => (here.length === 0 ? null : textureOf(here)));
  // Before the fingers come in the hand is set for what they will play.
  for (let k = textures.length - 2; k >= 0; k--) textures[k] ??= textures[k + 1]!;
  return textures.map((texture) => texture ?? 'mixed');
}

function textureOf(here: readonly Figure[]): Texture {
  const textures = [...new Set(here.map(({ texture }) => texture))];
  for (const first of ['tremolo', 'strum'] as const) if (textures.includes(first)) return first;
  if (textures.length <= 1 && here.length <= 1) return textures[0] ?? 'mixed';
  const stationed = textures.find((texture) => STATIONED.has(texture));
  if (stationed) return stationed;
  // Two tunes at once, both with the fingers: each keeps to its strings.
  return here.length > 1 ? 'chords' : textures[0]!;
}

interface Lasting {
  readonly figure: Figure;
  readonly from: number;
  readonly to: number;
}

/** Notes of the thumb between two notes of the fingers, in one voice, at which their figure goes on. */
const MOST_THUMBED = 4;

/**
 * Where the fingers play a figure: from the bass below their first note on until the voice strikes again in another one, without those
 * parts that belong to the thumb alone.
 */
function spansWithFingers(
  figure: Figure,
  figures: readonly Figure[],
  hands: readonly NoteHand[],
  moments: NotatedPiece['moments'],
): readonly Lasting[] {
  const next = figures
    .filter(({ voice, fromMoment }) => voice === figure.voice && fromMoment > figure.toMoment)
    .reduce((least, { fromMoment }) => Math.min(least, fromMoment), moments.length);
  const own = new Set(figure.strikes);
  const spans: { figure: Figure; from: number; to: number }[] = [];
  let thumbed = 0;
  let begun = false;
  let bass = figure.fromMoment;
  for (let k = figure.fromMoment; k <= figure.toMoment; k++) {
    const struck = moments[k]!.struck.filter((strike) => own.has(strike));
    if (struck.length === 0) continue;
    if (struck.every((strike) => hands[strike] === 'thumb')) {
      if (thumbed === 0 || thumbed > MOST_THUMBED) bass = k;
      thumbed++;
      continue;
    }
    const withBass = struck.some((strike) => hands[strike] === 'thumb');
    const from = withBass || thumbed === 0 ? k : bass;
    if (!begun || thumbed > MOST_THUMBED) spans.push({ figure, from, to: k + 1 });
    else spans.at(-1)!.to = k + 1;
    thumbed = 0;
    begun = true;
  }
  const last = spans.at(-1);
  if (last && last.to > figure.toMoment) last.to = next;
  return spans;
}
