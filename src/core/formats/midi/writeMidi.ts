/**
 * The score as a Standard MIDI File of format 1, as it is written: bars in their order, notes for their written length.
 * Source: Standard MIDI Files 1.0. Encoded by `midi-file`.
 */
import { type MidiEvent, writeMidi } from 'midi-file';
import type { FingeringPlan } from '../../fingering/report/plan';
import type { Score, ScoreNote } from '../../score/model';

/** Written ticks may be finer than a MIDI file can say; this divides by all usual values and tuplets. */
const TICKS_PER_QUARTER = 480;
/** General MIDI, counted from 0. */
const NYLON_GUITAR = 24;
const VELOCITY = 80;
/** A grace note takes so much of a quarter from before its main note. */
const GRACE_QUARTERS = 1 / 8;
const DRUMS = 9;

export interface MidiOptions {
  /** A track and channel for each string rather than for each voice; notes without a string come last. */
  readonly byString: boolean;
}

export function midiFile(score: Score, plan: FingeringPlan, { byString }: MidiOptions): Uint8Array {
  const stringOf = new Map(plan.notes.map(({ uid, string }) => [uid, string]));
  const partOf = (note: ScoreNote) =>
    byString ? `string ${stringOf.get(note.uid) ?? 'none'}` : `voice ${note.voice}`;
  const parts = [...new Set(score.notes.map(partOf))].sort();
  const tracks = parts.map((name, k) =>
    noteTrack(
      score,
      score.notes.filter((note) => partOf(note) === name && !note.leftOut),
      { name, channel: k < DRUMS ? k : (k + 1) % 16 },
    ),
  );
  const all = [timeTrack(score), ...tracks];
  const header = { format: 1 as const, numTracks: all.length, ticksPerBeat: TICKS_PER_QUARTER };
  return new Uint8Array(writeMidi({ header, tracks: all }));
}

interface Timed {
  readonly at: number;
  readonly event: Readonly<Record<string, unknown>> & { readonly type: string };
}

const ticksOf = (score: Score, ticks: number) =>
  Math.round((ticks / score.ticksPerQuarter) * TICKS_PER_QUARTER);

/** Title, metres and tempos. */
function timeTrack(score: Score): readonly MidiEvent[] {
  return deltas([
    { at: 0, event: { type: 'trackName', meta: true, text: score.title } },
    ...score.metres.map(({ tick, beats, beatType }): Timed => ({
      at: ticksOf(score, tick),
      event: {
        type: 'timeSignature',
        meta: true,
        numerator: beats,
        denominator: beatType,
        metronome: 24,
        thirtyseconds: 8,
      },
    })),
    ...score.tempos.map(({ tick, quartersPerMinute }): Timed => ({
      at: ticksOf(score, tick),
      event: { type: 'setTempo', meta: true, microsecondsPerBeat: Math.round(60e6 / quartersPerMinute) },
    })),
  ]);
}

function noteTrack(
  score: Score,
  notes: readonly ScoreNote[],
  { name, channel }: { readonly name: string; readonly channel: number },
): readonly MidiEvent[] {
  return deltas([
    { at: 0, event: { type: 'trackName', meta: true, text: name } },
    { at: 0, event: { type: 'programChange', channel, programNumber: NYLON_GUITAR } },
    ...notes.flatMap((note): readonly Timed[] => {
      const noteNumber = note.soundingMidi + score.capo;
      const { from, to } = spanOf(score, note);
      return [
        { at: from, event: { type: 'noteOn', channel, noteNumber, velocity: VELOCITY } },
        { at: to, event: { type: 'noteOff', channel, noteNumber, velocity: 0 } },
      ];
    }),
  ]);
}

function spanOf(score: Score, { onsetTicks, durationTicks, grace }: ScoreNote) {
  const onset = ticksOf(score, onsetTicks);
  if (!grace) return { from: onset, to: ticksOf(score, onsetTicks + durationTicks) };
  const length = GRACE_QUARTERS * TICKS_PER_QUARTER;
  const from = Math.max(0, onset - grace.beforeMain * length);
  return { from, to: from + length };
}

/** What ends at a tick comes before what begins there. */
function deltas(events: readonly Timed[]): readonly MidiEvent[] {
  const rank = ({ event }: Timed) => (event.type === 'noteOn' ? 1 : 0);
  const ordered = [...events].sort((a, b) => a.at - b.at || rank(a) - rank(b));
  const end = ordered.at(-1)?.at ?? 0;
  return [...ordered, { at: end, event: { type: 'endOfTrack', meta: true } }].map(({ at, event }, k) => ({
    ...event,
    deltaTime: at - (ordered[k - 1]?.at ?? 0),
  }));
}
