/** What has to be mastered in a piece, counted. */
import type { FingeringPlan } from '../fingering/report/plan';
import type { Score } from '../score/model';

export type Technique =
  | 'ligados'
  | 'barres'
  | 'shifts'
  | 'tightShifts'
  | 'graceNotes'
  | 'ornaments'
  | 'harmonics'
  | 'slides'
  | 'rolls'
  | 'strums'
  | 'chords'
  | 'tremolo';

export interface TechniqueCount {
  readonly technique: Technique;
  readonly count: number;
}

/** Those that occur, most frequent first. Barres and shifts need a plan. */
export function techniquesOf(score: Score, plan: FingeringPlan | null): readonly TechniqueCount[] {
  const tagged = (pattern: RegExp) =>
    new Set(
      score.notes.filter((note) => note.tags.some((tag) => pattern.test(tag))).map((note) => note.onsetTicks),
    ).size;
  const rows: readonly (readonly [Technique, number])[] = [
    ['ligados', score.ligados.length],
    ['barres', plan?.barres.length ?? 0],
    ['shifts', plan?.shifts.length ?? 0],
    ['tightShifts', plan?.shifts.filter((shift) => shift.risk !== 'free').length ?? 0],
    ['graceNotes', score.notes.filter((note) => note.grace).length],
    ['ornaments', tagged(/^(trill|mordent|turn)$/)],
    ['harmonics', score.notes.filter((note) => note.harmonic).length],
    ['slides', score.slides.length],
    ['rolls', tagged(/^roll/)],
    ['strums', tagged(/^brush/)],
    ['chords', chordCount(score)],
    ['tremolo', tremoloFigures(score)],
  ];
  return rows
    .filter(([, count]) => count > 0)
    .map(([technique, count]) => ({ technique, count }))
    .sort((a, b) => b.count - a.count);
}

/** Three or more notes struck at once. */
function chordCount(score: Score): number {
  const sizes = new Map<number, number>();
  for (const note of score.notes) {
    if (!note.grace) sizes.set(note.onsetTicks, (sizes.get(note.onsetTicks) ?? 0) + 1);
  }
  return [...sizes.values()].filter((size) => size >= 3).length;
}

/** Runs of three or more quick notes of one pitch in one voice. */
function tremoloFigures(score: Score): number {
  let figures = 0;
  const runs = new Map<string, { midi: number; end: number; length: number }>();
  for (const note of score.notes) {
    if (note.grace || note.durationTicks > score.ticksPerQuarter / 4) continue;
    const run = runs.get(note.voice);
    const goesOn = run && run.midi === note.soundingMidi && run.end === note.onsetTicks;
    const length = goesOn ? run.length + 1 : 1;
    runs.set(note.voice, { midi: note.soundingMidi, end: note.onsetTicks + note.durationTicks, length });
    if (length === 3) figures++;
  }
  return figures;
}
