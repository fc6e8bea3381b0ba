/** Slurs that the teacher has set or taken away, among those that the file has. */
import type { NoteCorrection } from './corrections';
import type { NoteSpan, ScoreNote } from './model';

/** The note of its voice that ends where this one begins; of a chord the highest. Null where there is none. */
export function slurSourceOf(notes: readonly ScoreNote[], target: ScoreNote): ScoreNote | null {
  const before = notes.filter(
    (note) =>
      note.voice === target.voice &&
      !note.grace &&
      note.onsetTicks < target.onsetTicks &&
      note.onsetTicks + note.durationTicks === target.onsetTicks,
  );
  return before.reduce<ScoreNote | null>(
    (best, note) => (best && best.soundingMidi >= note.soundingMidi ? best : note),
    null,
  );
}

export function withSlurCorrections(
  notes: readonly ScoreNote[],
  ligados: readonly NoteSpan[],
  corrections: ReadonlyMap<string, NoteCorrection>,
): readonly NoteSpan[] {
  let result = ligados;
  for (const [uid, { slur }] of corrections) {
    if (slur === undefined) continue;
    const target = notes.find((note) => note.uid === uid);
    if (!target) continue;
    const others = result.filter(({ toUid }) => toUid !== uid);
    const source = slur ? slurSourceOf(notes, target) : null;
    const known = result.find(({ toUid }) => toUid === uid);
    result = !slur
      ? others
      : known
        ? result
        : source
          ? [...others, { fromUid: source.uid, toUid: uid }]
          : others;
  }
  return result;
}
