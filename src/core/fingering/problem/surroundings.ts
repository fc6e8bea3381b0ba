/** What is known of the score besides its notes: where its beats are, what is strummed. */
import type { Surroundings } from '../../figures/reading';
import type { NoteTag, Score } from '../../score/model';
import { effectAmong, type EffectId, isStrum } from '../right/rules/effects';
import type { NotatedPiece } from './problem';

export function surroundingsOf(score: Score, piece: NotatedPiece): Surroundings {
  const bars = barsOfMoments(score, piece);
  return {
    onBeat: piece.moments.map(({ tick }, k) => isBeat(score, bars[k]!, tick)),
    strummed: effectsOf(score, piece).map(isStrum),
  };
}

export function barsOfMoments({ measures }: Score, { moments }: NotatedPiece): readonly number[] {
  let bar = 0;
  return moments.map(({ tick }) => {
    while (bar + 1 < measures.length && measures[bar + 1]!.startTicks <= tick) bar++;
    return bar;
  });
}

/** Beats are quarters; in compound time (6/8, 9/8, 12/8) dotted quarters. */
function isBeat(score: Score, bar: number, tick: number): boolean {
  const metre = score.metres.filter((one) => one.tick <= tick).at(-1);
  const compound = metre?.beatType === 8 && metre.beats % 3 === 0 && metre.beats > 3;
  const beat = (compound ? 1.5 : 1) * score.ticksPerQuarter;
  return (tick - score.measures[bar]!.startTicks) % beat === 0;
}

const BRUSHES: ReadonlySet<NoteTag> = new Set(['brushDown', 'brushUp']);

export function effectsOf(score: Score, problem: NotatedPiece): readonly (EffectId | null)[] {
  const tagsOf = new Map<string, readonly NoteTag[]>(
    score.notes.filter((note) => note.tags.length > 0).map((note) => [note.uid, note.tags]),
  );
  if (tagsOf.size === 0) return problem.moments.map(() => null);
  return problem.moments.map(({ struck }) => {
    const tags = struck.flatMap((index) =>
      problem.strikes[index]!.uids.flatMap((uid) => tagsOf.get(uid) ?? []),
    );
    // One string is not brushed: the mark is a stroke of the plectrum.
    const brushed = struck.length > 1;
    return effectAmong(new Set(brushed ? tags : tags.filter((tag) => !BRUSHES.has(tag))));
  });
}
