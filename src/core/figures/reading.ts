/** A piece read as figures: the texture of every note, and what the right hand makes of it. */
import type { NotatedPiece } from '../fingering/problem/problem';
import { withBasses } from './basses';
import { corrected } from './corrected';
import type { Figure } from './figure';
import { handTextures } from './handTextures';
import { readVoice } from './readFigures';
import type { Texture } from './texture';
import { type NoteHand, handsOf } from './thumb';
import { type Phase, phasesOf } from './tremoloGroups';
import { voicesOf } from './voices';

export interface Reading {
  /** By voice from the lowest, in the order of time. */
  readonly figures: readonly Figure[];
  /** By strike. */
  readonly hands: readonly NoteHand[];
  readonly phases: readonly (Phase | null)[];
  /** By moment. */
  readonly textures: readonly Texture[];
  /** Whether the fingers have struck a chord a moment ago, over which a tune may go on. */
  readonly overChord: readonly boolean[];
}

/** What is known of the score besides its strikes; rows by moment. */
export interface Surroundings {
  readonly onBeat: readonly boolean[];
  readonly strummed: readonly boolean[];
}

/** @param textureOf the teacher's word for a note; null where there is none */
export function readFigures(
  problem: NotatedPiece,
  { onBeat, strummed }: Surroundings,
  textureOf: (uid: string) => Texture | null = () => null,
): Reading {
  const voices = voicesOf(problem);
  const hands = handsOf(problem, voices);
  const context = { problem, hands, onBeat, strummed };
  const read = voices.flatMap((voice) => readVoice(context, voice));
  const figures = corrected(problem, read, textureOf);
  const textures = handTextures(problem, figures, hands);
  return {
    figures: withBasses(problem, figures, hands, textures),
    hands,
    phases: phasesOf(problem, figures, hands),
    textures,
    overChord: overChords(problem, hands),
  };
}

/** A chord is held for so many moments of a tune above it. From memory. */
const CHORD_MOMENTS = 4;

function overChords({ moments }: NotatedPiece, hands: readonly NoteHand[]): readonly boolean[] {
  let since = Infinity;
  return moments.map(({ struck }) => {
    since = struck.filter((strike) => hands[strike] !== 'thumb').length > 1 ? 0 : since + 1;
    return since <= CHORD_MOMENTS;
  });
}
