/**
 * Whose note it is: the thumb's, the fingers', or that of whichever hand carries the line. What is written stem-down is
 * not all bass: an accompaniment above a bass note belongs to i and m. Source: handbook 1 and 13.
 */
import type { NotatedPiece } from '../fingering/problem/problem';
import { isSingle, lowest, type Voice, type VoiceEvent } from './voices';

/** thumb: the bass. fingers: everything above it. either: one voice alone, which p or the fingers may play. */
export type NoteHand = 'thumb' | 'fingers' | 'either';

/** A leap up to a note of the accompaniment above a bass, in semitones. */
const ABOVE_BASS = 3;
/** In one voice alone: this far below its neighbours a note is a bass of its own, in semitones. */
const BELOW_NEIGHBOURS = 5;
/** Open third string: from here on a note lies above the thumb's strings. */
const TREBLE_MIDI = 55;
/** A chord of the lowest voice lies above the bass from the open fourth string and a tone on, when it is close. */
const AFTERBEAT_MIDI = 52;
const OPEN_CHORD = 7;
/** A chord broken upward in the lowest voice has so many notes with its bass, over so many semitones. */
const LEAST_RISING = 4;
const RISES = 10;
/** Voices that interleave closer than this are one line ringing over itself, in semitones. */
const APART = 3;

/** By strike. */
export function handsOf(problem: NotatedPiece, voices: readonly Voice[]): readonly NoteHand[] {
  const hands: NoteHand[] = problem.strikes.map(() => 'fingers');
  const set = (event: VoiceEvent, low: NoteHand, others: NoteHand = 'fingers') =>
    event.strikes.forEach(({ index }, k) => (hands[index] = k === 0 ? low : others));
  const [bass, ...above] = voices;
  if (!bass) return hands;
  if (above.length === 0) {
    soloHands(bass, set);
    return hands;
  }
  if (ringsOver(bass, above)) {
    bass.events.forEach((event) => set(event, lowest(event) < TREBLE_MIDI ? 'either' : 'fingers'));
    return hands;
  }
  const answers = answersOf(bass, above, problem.moments.length);
  let held: VoiceEvent | null = null;
  bass.events.forEach((event, n) => {
    if (isInner(bass, n, held, answers)) return;
    set(event, 'thumb');
    held = event;
  });
  return hands;
}

type Setter = (event: VoiceEvent, low: NoteHand, others?: NoteHand) => void;

/** One voice alone: chords have their bass, and so have notes that stand far below both neighbours. */
function soloHands({ events }: Voice, set: Setter): void {
  events.forEach((event, n) => {
    const [before, after] = [events[n - 1], events[n + 1]];
    const { strikes } = event;
    if (strikes.length > 1) {
      set(event, strikes.length > 3 || lowest(event) < TREBLE_MIDI ? 'thumb' : 'fingers');
      return;
    }
    const under = (other: VoiceEvent | undefined) =>
      other !== undefined && lowest(other) - lowest(event) >= BELOW_NEIGHBOURS;
    const isBass =
      lowest(event) < TREBLE_MIDI &&
      (after === undefined ? under(before) : under(after) && (before === undefined || under(before)));
    set(event, isBass ? 'thumb' : 'either');
  });
}

/** Whether other voices strike between two moments, alone. */
type Answers = (from: number, to: number) => boolean;

function answersOf(bass: Voice, voices: readonly Voice[], count: number): Answers {
  const together = new Set(bass.events.map(({ moment }) => moment));
  // By moment: how many were struck before it.
  const before = new Int32Array(count + 1);
  for (const { events } of voices)
    for (const { moment } of events) if (!together.has(moment)) before[moment + 1]!++;
  for (let k = 0; k < count; k++) before[k + 1]! += before[k]!;
  return (from, to) => before[to]! > before[from + 1]!;
}

/** Whether the lowest voice goes in and out among the others note by note: a scale that rings over itself. */
function ringsOver(bass: Voice, above: readonly Voice[]): boolean {
  const others = above.flatMap(({ events }) => events).sort((a, b) => a.moment - b.moment);
  const taken = new Set(others.map(({ moment }) => moment));
  const alone = bass.events.filter((event) => isSingle(event) && !taken.has(event.moment));
  if (alone.length < bass.events.length * 0.8) return false;
  const pitches = new Set(others.map(({ strikes }) => strikes.at(-1)!.midi));
  if (pitches.size < 3) return false;
  const near = alone.filter((event) => {
    const before = others.filter(({ moment }) => moment < event.moment).at(-1);
    const after = others.find(({ moment }) => moment > event.moment);
    const close = (other: VoiceEvent | undefined) =>
      other !== undefined && Math.abs(lowest(other) - lowest(event)) <= APART;
    return close(before) && close(after);
  });
  return near.length >= alone.length * 0.6;
}

/**
 * Whether an event of the lowest voice is accompaniment above a bass that has been struck in the same voice: chords
 * after it, or notes that leap up from it and come again.
 * @param held the last bass of the voice
 */
function isInner({ events }: Voice, n: number, held: VoiceEvent | null, answers: Answers): boolean {
  const event = events[n]!;
  if (!held || lowest(event) - lowest(held) < ABOVE_BASS) return false;
  if (!isSingle(event)) return isAfterbeat(event);
  const previous = events[n - 1]!;
  // A bass that swings between two strings while others answer is bass on both; so is a tune below a pedal.
  if (answers(previous.moment, event.moment)) return false;
  if (swings(events, n) || rises(events, n, held, answers)) return true;
  return lowest(event) >= TREBLE_MIDI && (previous !== held || leapsAround(events, n));
}

/** A close chord that no finger but those of the trebles need reach for. */
const isAfterbeat = ({ strikes }: VoiceEvent): boolean =>
  strikes[0]!.midi >= AFTERBEAT_MIDI && strikes[1]!.midi - strikes[0]!.midi < OPEN_CHORD;

/** Two notes by turns above the bass: a figure goes round, whatever strings it is on. */
function swings(events: readonly VoiceEvent[], n: number): boolean {
  const pitch = (k: number) => (events[k] ? lowest(events[k]) : null);
  const byTurns = (a: number, b: number, c: number, d: number) =>
    pitch(a) !== null && pitch(a) === pitch(c) && pitch(b) !== null && pitch(b) === pitch(d);
  if (byTurns(n - 3, n - 2, n - 1, n)) return true;
  return leapsAround(events, n) && (byTurns(n, n + 1, n + 2, n + 3) || byTurns(n - 1, n, n + 1, n + 2));
}

/**
 * Quick notes that rise from a bass over a seventh and more, by leaps, and may fall again: a chord broken in one voice.
 * Where they turn upwards once more the next one begins.
 */
function rises(events: readonly VoiceEvent[], n: number, held: VoiceEvent, answers: Answers): boolean {
  const from = events.lastIndexOf(held, n);
  let to = n;
  while (to < events.length && lowest(events[to]!) - lowest(held) >= ABOVE_BASS && !turnsUp(events, to)) to++;
  if (to <= n) return false;
  const figure = events.slice(from, to);
  const last = figure.at(-1)!;
  if (figure.length < LEAST_RISING || answers(held.moment, last.moment)) return false;
  const top = Math.max(...figure.map(lowest));
  const leaps = figure
    .slice(1)
    .filter((event, k) => Math.abs(lowest(event) - lowest(figure[k]!)) >= ABOVE_BASS);
  return top - lowest(held) >= RISES && leaps.length >= (figure.length - 1) * 0.75;
}

/** Comes down from another pitch, and the next goes up. */
function turnsUp(events: readonly VoiceEvent[], n: number): boolean {
  const pitch = lowest(events[n]!);
  let before = n - 1;
  while (before >= 0 && lowest(events[before]!) === pitch) before--;
  const isHigher = (other: VoiceEvent | undefined) => other !== undefined && lowest(other) > pitch;
  return isHigher(events[before]) && isHigher(events[n + 1]);
}

/** A bass that walks up goes by step; what leaps away on both sides is accompaniment. */
function leapsAround(events: readonly VoiceEvent[], n: number): boolean {
  const leaps = (other: VoiceEvent | undefined) =>
    other === undefined || !isSingle(other) || Math.abs(lowest(other) - lowest(events[n]!)) >= ABOVE_BASS;
  return leaps(events[n - 1]) && leaps(events[n + 1]);
}
