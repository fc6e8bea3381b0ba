/** What speaks for each texture between two events of a voice that follow each other. */
import type { Tuning } from '../instrument/tuning';
import { ringingSeconds } from './ringingSeconds';
import { highest, isSingle, lowest, type Voice, type VoiceEvent } from './voices';

/** Textures that are told apart by the notes of one voice. */
export const READ_TEXTURES = ['line', 'brokenChord', 'tremolo', 'chords', 'parallels', 'pedal'] as const;
export type ReadTexture = (typeof READ_TEXTURES)[number];
export type Evidence = Readonly<Record<ReadTexture, number>>;

/** So much longer than what is usual around it, a gap divides phrases. */
const BREAK_FACTOR = 2.4;
/** From here on a line is a slow melody. Source: handbook 13. */
export const SLOW_MS = 400;
/** Repeated notes of a tremolo are no slower. From memory. */
export const TREMOLO_MS = 240;

/** Whether other voices, or the voice itself with another pitch, play between the events `n` and `n + 1`. */
export type Answered = (n: number) => boolean;

/** By pair of neighbours: what speaks for each texture. A phrase ends where the row is null. */
export function evidenceOf(
  { events }: Voice,
  answered: Answered,
  tuning: Tuning,
): readonly (Evidence | null)[] {
  const rings = ringingSeconds(
    events.map((event) => (isSingle(event) ? lowest(event) : null)),
    tuning,
  );
  const gaps = events.slice(1).map((event, n) => event.timeMs - events[n]!.timeMs);
  return gaps.map((gap, n) => {
    const around = median(gaps.slice(Math.max(0, n - 4), n + 5));
    if (gap > BREAK_FACTOR * around) return null;
    const [a, b] = [events[n]!, events[n + 1]!];
    if (isSingle(a) && isSingle(b))
      return betweenSingles(events, n, gaps, { answered: answered(n), rings: rings[n]! });
    if (!isSingle(a) && !isSingle(b)) return betweenChords(a, b);
    return betweenChordAndNote(a, b);
  });
}

const NOTHING: Evidence = { line: 0, brokenChord: 0, tremolo: -1, chords: 0, parallels: -1, pedal: -1 };

function betweenSingles(
  events: readonly VoiceEvent[],
  n: number,
  gaps: readonly number[],
  { answered, rings }: { readonly answered: boolean; readonly rings: boolean },
): Evidence {
  const gap = gaps[n]!;
  const semitones = Math.abs(lowest(events[n + 1]!) - lowest(events[n]!));
  // A slow tune comes back to its leaps, too; a figure goes on evenly.
  const round = goesRound(events, n) && (gap < SLOW_MS || isEven(gaps, n));
  const row = { ...NOTHING, chords: -0.9, ...bySemitones(semitones, gap >= SLOW_MS && !round) };
  if (semitones === 0) {
    if (answered) return { ...row, pedal: 1.4, tremolo: 0.1, line: -0.2, brokenChord: 0.1 };
    return gap <= TREMOLO_MS ? { ...row, tremolo: 0.5 } : row;
  }
  // In a row of two notes by turns one of them stays: a pedal inside one voice.
  if (staysInTurn(events, n)) return { ...row, pedal: 1.1 };
  if (rings) return { ...row, ...RINGING };
  if (round) return { ...row, brokenChord: row.brokenChord + 0.35 };
  return row;
}

/** A step that is part of a chord speaks as a third does. */
const RINGING = { line: -0.25, brokenChord: 0.6 };

/** Source: handbook 13: a line goes by step, a broken chord over different strings. */
function bySemitones(semitones: number, isSlow: boolean): Pick<Evidence, 'line' | 'brokenChord'> {
  if (semitones === 0) return { line: 0.3, brokenChord: -0.5 };
  if (semitones <= 2) return { line: 1, brokenChord: -0.7 };
  // A slow tune leaps, too; only what comes again is a figure then.
  if (isSlow) return { line: 0.25, brokenChord: 0.1 };
  if (semitones <= 4) return { line: -0.25, brokenChord: 0.6 };
  return { line: -0.7, brokenChord: 0.9 };
}

/** One pitch in every second of three strikes and more, while the notes between move by step. */
function staysInTurn(events: readonly VoiceEvent[], n: number): boolean {
  const pitchAt = (k: number) => (events[k] && isSingle(events[k]) ? lowest(events[k]) : null);
  const stays = (k: number) => {
    const pitch = pitchAt(k);
    return pitch !== null && [k - 4, k - 2, k + 2, k + 4].filter((j) => pitchAt(j) === pitch).length >= 2;
  };
  const moves = (k: number) =>
    [k - 2, k + 2].some((j) => {
      const [here, there] = [pitchAt(k), pitchAt(j)];
      return here !== null && there !== null && here !== there && Math.abs(here - there) <= 2;
    });
  return (stays(n) && moves(n + 1) && !stays(n + 1)) || (stays(n + 1) && moves(n) && !stays(n));
}

const LEAST_PERIOD = 3;
const LONGEST_PERIOD = 9;

/** Whether the two notes come again, as the same leap, after a whole round of a figure. */
function goesRound(events: readonly VoiceEvent[], n: number): boolean {
  const [a, b] = [lowest(events[n]!), lowest(events[n + 1]!)];
  if (Math.abs(b - a) < 3) return false;
  for (let period = LEAST_PERIOD; period <= LONGEST_PERIOD; period++) {
    for (const at of [n - period, n + period]) {
      const [c, d] = [events[at], events[at + 1]];
      if (!c || !d || !isSingle(c) || !isSingle(d)) continue;
      if (Math.sign(lowest(d) - lowest(c)) === Math.sign(b - a) && (lowest(c) === a || lowest(d) === b))
        return true;
    }
  }
  return false;
}

/** A gap before or after is as long; a rest in the figure may stand on the other side. */
const isEven = (gaps: readonly number[], n: number): boolean =>
  [n - 1, n + 1].some((k) => gaps[k] !== undefined && Math.abs(gaps[k] / gaps[n]! - 1) < 0.1);

/** Chords of one form move all of their notes the same way, none by more than a fourth. */
function betweenChords(a: VoiceEvent, b: VoiceEvent): Evidence {
  const row = { ...NOTHING, line: -1, brokenChord: -0.6, chords: 1 };
  if (a.strikes.length !== b.strikes.length) return row;
  const moves = a.strikes.map(({ midi }, k) => b.strikes[k]!.midi - midi);
  const along = moves.every(
    (move) => move !== 0 && Math.sign(move) === Math.sign(moves[0]!) && Math.abs(move) <= 5,
  );
  return along ? { ...row, parallels: 1.6 } : row;
}

/** A note of the chord beside it is the chord broken; any other begins or ends a line. */
function betweenChordAndNote(a: VoiceEvent, b: VoiceEvent): Evidence {
  const [chord, note] = isSingle(a) ? [b, a] : [a, b];
  const own = chord.strikes.some(({ midi }) => midi === lowest(note));
  const step = Math.abs(highest(chord) - lowest(note)) <= 2;
  return { ...NOTHING, line: step && !own ? 0.3 : -0.2, brokenChord: own ? 0.5 : 0, chords: 0.2 };
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((x, y) => x - y);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}
