/** The fingering that a student reads off a page by the reading rule. It sees the notation and the signs, never the plan. */
import type { Pluck } from '../../score/model';
import { barreOver } from '../reading/barreOver';
import { LeftMemory } from '../reading/leftMemory';
import { type Place, positionAfter, type Reading, readHarmonic, readNote } from '../reading/readNote';
import { RightMemory, strokeOf } from '../reading/rightMemory';
import type { WrittenNote, WrittenScore } from '../reading/writtenNote';
import type { Signs } from './signs';

export interface ReadFingering {
  /** A note that the student does not know how to play has no entry. */
  readonly places: ReadonlyMap<string, Place>;
  readonly letters: ReadonlyMap<string, Pluck>;
}

/** @param silent notes with a question mark: not played */
export function decode(written: WrittenScore, signs: Signs, silent: ReadonlySet<string>): ReadFingering {
  const places = decodeLeft(written, signs, silent);
  return { places, letters: decodeRight(written, signs, places) };
}

function decodeLeft({ tuning, moments }: WrittenScore, signs: Signs, silent: ReadonlySet<string>) {
  const places = new Map<string, Place>();
  const barreAt = barreOver(moments, signs.barres);
  const memory = new LeftMemory();
  let position = 1;
  moments.forEach((moment, k) => {
    const barre = barreAt[k]!;
    position = numeralOver(moment, signs) ?? barre ?? position;
    memory.begin(moment[0]!.onsetTicks);
    for (const note of moment) {
      if (silent.has(note.uid)) continue;
      const place = placeOf(note, signs, { ...memory.around(note, barre), position }, tuning);
      if (!place) continue;
      places.set(note.uid, place);
      memory.play(note, place);
    }
    position = positionAfter(position, memory.here);
  });
  return places;
}

const numeralOver = (moment: readonly WrittenNote[], { positions }: Signs): number | null =>
  moment.map(({ uid }) => positions.get(uid)).find((numeral) => numeral !== undefined) ?? null;

function placeOf(note: WrittenNote, signs: Signs, reading: Reading, tuning: WrittenScore['tuning']) {
  const said = { finger: signs.fingers.get(note.uid) ?? null, string: signs.strings.get(note.uid) ?? null };
  const fret = signs.touches.get(note.uid);
  return fret !== undefined && said.string !== null
    ? readHarmonic({ string: said.string, fret }, said, reading)
    : readNote(note.midi, tuning, said, reading);
}

function decodeRight(
  { moments }: WrittenScore,
  signs: Signs,
  places: ReadonlyMap<string, Place>,
): ReadonlyMap<string, Pluck> {
  const letters = new Map<string, Pluck>();
  const memory = new RightMemory();
  for (const moment of moments) {
    const stroke = strokeOf(moment, (uid) => places.get(uid)?.string ?? null);
    if (!stroke) continue;
    const read = memory.read(stroke);
    const played = stroke.struck.map(({ uid }, k) => signs.letters.get(uid) ?? read[k]!);
    stroke.struck.forEach(({ uid }, k) => letters.set(uid, played[k]!));
    memory.play(stroke, played);
  }
  return letters;
}
