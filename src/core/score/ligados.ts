/**
 * Slurs against phrase marks. A slur over two notes that can lie on one string is played by the left hand; one
 * over many notes, or over notes that cannot, is a phrase mark; three to five notes that run on one string
 * could be either, and the teacher is asked once for the piece. Source: handbook, "Notation conventions".
 */
import { openMidi, STRINGS, type Tuning } from '../instrument/tuning';
import type { NoteSpan, ScoreNote } from './model';

export interface SlurReading {
  readonly ligados: readonly NoteSpan[];
  readonly phraseMarks: number;
  /** First notes of the slurs that could be either. */
  readonly ambiguous: readonly string[];
}

const MOST_NOTES_IN_DOUBT = 5;
/** What one hand spans on a string: four frets and a stretch. */
const MOST_FRETS_APART = 5;

/** `answer` is the teacher's for the piece; without one, slurs in doubt are taken as phrase marks. */
export function readSlurs(
  notes: readonly ScoreNote[],
  slurs: readonly NoteSpan[],
  tuning: Tuning,
  answer: 'ligado' | 'phrase' | undefined,
): SlurReading {
  const headOf = new Map(notes.flatMap((note) => [note.uid, ...note.tiedUids].map((uid) => [uid, note])));
  const voices = byVoice(notes);
  const ligados: NoteSpan[] = [];
  const ambiguous: string[] = [];
  let phraseMarks = 0;
  for (const slur of slurs) {
    const run = runBetween(voices, headOf.get(slur.fromUid), headOf.get(slur.toUid));
    const pairs = run.slice(1).map((note, k) => ({ fromUid: run[k]!.uid, toUid: note.uid }));
    const playable = run.length >= 2 && movesOn(run) && onOneString(run, tuning);
    if (playable && run.length === 2) ligados.push(...pairs);
    else if (playable && run.length <= MOST_NOTES_IN_DOUBT) {
      ambiguous.push(run[0]!.uid);
      if (answer === 'ligado') ligados.push(...pairs);
    } else if (run.length > 2) phraseMarks++;
  }
  return { ligados, phraseMarks, ambiguous };
}

/** The notes of one voice from one to another; empty when they are not in one voice or not one after another. */
function runBetween(
  voices: ReadonlyMap<string, readonly ScoreNote[]>,
  from: ScoreNote | undefined,
  to: ScoreNote | undefined,
): readonly ScoreNote[] {
  if (!from || !to || from.voice !== to.voice) return [];
  const voice = voices.get(from.voice)!;
  const run = voice.slice(voice.indexOf(from), voice.indexOf(to) + 1);
  const joined = run.every((note, k) => k === 0 || follows(run[k - 1]!, note));
  return joined ? run : run.length > 2 ? run : [];
}

const follows = (before: ScoreNote, note: ScoreNote): boolean =>
  before.grace !== null
    ? note.onsetTicks === before.onsetTicks
    : before.onsetTicks + before.durationTicks === note.onsetTicks;

const movesOn = (run: readonly ScoreNote[]) =>
  run.every(
    (note, k) => k === 0 || (note.soundingMidi !== run[k - 1]!.soundingMidi && follows(run[k - 1]!, note)),
  );

function onOneString(run: readonly ScoreNote[], tuning: Tuning): boolean {
  return STRINGS.some((string) => {
    const frets = run.map((note) => note.soundingMidi - openMidi(tuning, string));
    const stopped = frets.filter((fret) => fret > 0);
    return (
      Math.min(...frets) >= 0 &&
      Math.max(...frets) <= 19 &&
      (stopped.length === 0 || Math.max(...stopped) - Math.min(...stopped) <= MOST_FRETS_APART)
    );
  });
}

/** Of a chord, the highest note carries the line. */
function byVoice(notes: readonly ScoreNote[]): ReadonlyMap<string, readonly ScoreNote[]> {
  const voices = new Map<string, ScoreNote[]>();
  for (const note of notes) {
    const voice = voices.get(note.voice) ?? [];
    voices.set(note.voice, voice);
    voice.push(note);
  }
  return voices;
}
