/** What the shelf shows of a piece without opening it. */
import { z } from 'zod';
import type { Score } from '../core/score/model';

export const pieceSummarySchema = z.object({
  bars: z.int().min(0),
  notes: z.int().min(1),
  voices: z.int().min(1),
  fifths: z.int().nullable(),
  mode: z.enum(['major', 'minor']).nullable(),
  metre: z.string().nullable(),
  tuningId: z.string(),
  quartersPerMinute: z.number(),
  tempoAssumed: z.boolean(),
});

export type PieceSummary = z.infer<typeof pieceSummarySchema>;

export function summaryOf(score: Score): PieceSummary {
  const key = score.keys[0];
  const metre = score.metres[0];
  const tempo = score.tempos[0]!;
  return {
    bars: score.measures.length,
    notes: score.notes.length,
    voices: new Set(score.notes.map((note) => note.voice)).size,
    fifths: key?.fifths ?? null,
    mode: key?.mode ?? null,
    metre: metre ? `${metre.beats}/${metre.beatType}` : null,
    tuningId: score.tuningId,
    quartersPerMinute: tempo.quartersPerMinute,
    tempoAssumed: tempo.assumed,
  };
}
