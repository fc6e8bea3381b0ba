/** Which part each note plays in the texture. */
import type { ScoreNote } from '../../score/model';
import type { Role } from './strike';

/**
 * Melody, bass, inner part. With several voices the lowest one is the bass and the highest the melody, and
 * inside a chord of the melody only its top note is; in one voice a chord's outer notes are the two.
 */
export function rolesOf(notes: readonly ScoreNote[]): ReadonlyMap<string, Role> {
  const voices = voicesFromLowToHigh(notes);
  const roles = new Map<string, Role>();
  const chords = new Map<string, ScoreNote[]>();
  for (const note of notes) {
    const key = `${note.onsetTicks}:${note.voice}`;
    chords.set(key, [...(chords.get(key) ?? []), note]);
  }
  for (const chord of chords.values()) {
    const ordered = [...chord].sort((a, b) => a.soundingMidi - b.soundingMidi);
    const rank = voices.indexOf(ordered[0]!.voice);
    ordered.forEach((note, k) => roles.set(note.uid, roleIn(voices.length, rank, k, ordered.length)));
  }
  return roles;
}

function roleIn(voiceCount: number, voiceRank: number, k: number, chordSize: number): Role {
  const top = k === chordSize - 1;
  if (voiceCount === 1) return top ? 'melody' : k === 0 ? 'bass' : 'inner';
  if (voiceRank === 0) return k === 0 ? 'bass' : 'inner';
  return voiceRank === voiceCount - 1 && top ? 'melody' : 'inner';
}

function voicesFromLowToHigh(notes: readonly ScoreNote[]): string[] {
  const sums = new Map<string, { sum: number; count: number }>();
  for (const note of notes) {
    const entry = sums.get(note.voice) ?? { sum: 0, count: 0 };
    sums.set(note.voice, { sum: entry.sum + note.soundingMidi, count: entry.count + 1 });
  }
  const mean = (voice: string) => sums.get(voice)!.sum / sums.get(voice)!.count;
  return [...sums.keys()].sort((a, b) => mean(a) - mean(b) || a.localeCompare(b));
}
