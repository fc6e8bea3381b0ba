/** The strikes of a score: noteheads joined, grace notes placed in time, what stands at the notes applied. */
import { placesSounding, placesTouching, type TouchPlace } from '../../instrument/harmonics';
import { type Tuning, tuningOrThrow } from '../../instrument/tuning';
import type { NoteSpan, NoteTag, Score, ScoreNote } from '../../score/model';
import { movedShapes } from './movedShapes';
import { type Holding, ringingBrokenChords } from './brokenChords';
import { barEndAt, joinLines, struckAgain } from './lines';
import { rolesOf } from './roles';
import type { Strike } from './strike';

export function strikesOf(score: Score, holding: Holding): Strike[] {
  const bare = cutByGraces(score, bareStrikesOf(score));
  const moved = movedShapes(joinLines(bare), score, holding);
  const broken = ringingBrokenChords(moved, score, holding);
  return letRing(score, struckAgain(broken, score.measures));
}

/** A grace note takes at most so many quarters, and half of what it takes from. Common practice, from memory. */
const GRACE_QUARTERS = 1 / 8;

const ORNAMENTS: readonly NoteTag[] = ['trill', 'mordent', 'turn'];

/** As they are written: nothing rings on, no grips. */
export function bareStrikesOf(score: Score): Strike[] {
  const roles = rolesOf(score.notes);
  const tuning = tuningOrThrow(score.tuningId);
  const groups = new Map<string, ScoreNote[]>();
  for (const note of score.notes) {
    if (note.leftOut) continue;
    const key = `${startOf(score, note)}:${note.soundingMidi}`;
    const group = groups.get(key);
    if (group) group.push(note);
    else groups.set(key, [note]);
  }
  const inTime = [...groups.values()].sort(
    ([a], [b]) => startOf(score, a!) - startOf(score, b!) || a!.soundingMidi - b!.soundingMidi,
  );
  const indexOfUid = new Map<string, number>();
  inTime.forEach((notes, index) => notes.forEach((note) => indexOfUid.set(note.uid, index)));
  const sourceOf = (spans: readonly NoteSpan[]) => {
    const sources = new Map(spans.map((span) => [span.toUid, span.fromUid]));
    return (notes: readonly ScoreNote[]): number | null => {
      const uid = notes.map((note) => sources.get(note.uid)).find((one) => one !== undefined);
      return uid === undefined ? null : (indexOfUid.get(uid) ?? null);
    };
  };
  const slurSource = sourceOf(score.ligados);
  const slideSource = sourceOf(score.slides);
  return inTime.map((notes, index) => {
    const longest = notes.reduce((a, b) => (b.durationTicks > a.durationTicks ? b : a));
    const onsetTicks = startOf(score, longest);
    const end = endOf(score, longest, onsetTicks);
    return {
      index,
      uids: notes.map((note) => note.uid),
      midi: longest.soundingMidi,
      onsetTicks,
      writtenEndTicks: end,
      endTicks: end,
      laidTicks: onsetTicks,
      continues: null,
      grip: null,
      voice: longest.voice,
      role: roles.get(longest.uid)!,
      grace: longest.grace !== null,
      slurredFrom: slurSource(notes),
      slidFrom: slideSource(notes),
      ornamented: notes.some((note) => note.tags.some((tag) => ORNAMENTS.includes(tag))),
      lineFrom: null,
      inMove: null,
      parallelFrom: null,
      manner: 'plain',
      unhurried: false,
      mustRing: notes.some((note) => note.mustRing),
      touch: touchPlaces(longest, tuning),
      printed: longest.printed,
    };
  });
}

/** In ticks. Grace notes come before the beat, so that nothing else moves. */
export function startOf(score: Score, note: ScoreNote): number {
  if (!note.grace) return note.onsetTicks;
  return note.onsetTicks - note.grace.beforeMain * score.ticksPerQuarter * GRACE_QUARTERS;
}

function endOf(score: Score, note: ScoreNote, onsetTicks: number): number {
  if (note.grace) return onsetTicks + score.ticksPerQuarter * GRACE_QUARTERS;
  // A harmonic rings on when its finger has left, and nothing is lost by a staccato: both free the hand.
  if (note.harmonic === 'natural') return onsetTicks;
  if (note.tags.includes('staccato') && !note.mustRing) return onsetTicks + note.durationTicks / 2;
  return onsetTicks + note.durationTicks;
}

/** Null for a stopped or open note. A file may write the sounding pitch or that of the touched fret. */
function touchPlaces(note: ScoreNote, tuning: Tuning): readonly TouchPlace[] | null {
  if (note.harmonic !== 'natural') return null;
  const sounding = placesSounding(note.soundingMidi, tuning);
  const places = sounding.length > 0 ? sounding : placesTouching(note.soundingMidi, tuning);
  const printed = places.filter((place) => place.string === note.printed.string);
  return printed.length > 0 ? printed : places.length > 0 ? places : null;
}

/** What sounds in a grace note's voice ends where the grace notes begin: the notation has no room for them. */
function cutByGraces(score: Score, strikes: readonly Strike[]): Strike[] {
  const firstGraces = score.notes.filter(
    (note) => note.grace && !score.notes.some((other) => standsBefore(other, note)),
  );
  if (firstGraces.length === 0) return [...strikes];
  return strikes.map((strike) => {
    const grace = firstGraces.find(
      (note) =>
        note.voice === strike.voice &&
        startOf(score, note) > strike.onsetTicks &&
        startOf(score, note) < strike.writtenEndTicks &&
        strike.writtenEndTicks <= note.onsetTicks,
    );
    if (!grace) return strike;
    const end = startOf(score, grace);
    return { ...strike, writtenEndTicks: end, endTicks: end };
  });
}

const standsBefore = (other: ScoreNote, note: ScoreNote) =>
  other.grace !== null &&
  other.voice === note.voice &&
  other.onsetTicks === note.onsetTicks &&
  other.grace.beforeMain > note.grace!.beforeMain;

/** "Let ring" holds a note to the end of its bar, or until its pitch comes again. */
function letRing(score: Score, strikes: readonly Strike[]): Strike[] {
  const ringing = new Set(
    score.notes.filter((note) => note.tags.includes('letRing')).map((note) => note.uid),
  );
  if (ringing.size === 0) return [...strikes];
  return strikes.map((strike) => {
    if (!strike.uids.some((uid) => ringing.has(uid))) return strike;
    const barEnd = barEndAt(score.measures, strike.onsetTicks);
    const again = strikes.find((later) => later.index > strike.index && later.midi === strike.midi);
    const end = Math.min(barEnd, again?.onsetTicks ?? barEnd);
    return { ...strike, endTicks: Math.max(strike.endTicks, end) };
  });
}
