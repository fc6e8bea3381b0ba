import { describe, expect, it } from 'vitest';
import { barXml, scoreOrThrow } from '../../../tests/helpers/music';
import { Planner } from '../fingering/planner';
import { correctionsOf, keyOf, type Registers, scoreCorrectionsKey } from '../fingering/edition/registers';
import { readScore } from '../formats/musicxml/readScore';
import { CONCERT_FRETBOARD } from '../instrument/fretboard';
import { ADULT_MEDIUM } from '../instrument/hands';
import { slideTargetOf } from './slideCorrections';

// E4 and A4 over a bass: without a word the A is played by another finger.
const TEXT = barXml([
  { midi: 40, onset: 0, length: 8, voice: 2 },
  { midi: 66, onset: 0, length: 2 },
  { midi: 69, onset: 2, length: 2 },
  { midi: 71, onset: 4, length: 4 },
]);

function planned(gesture: string | null) {
  const plain = scoreOrThrow(TEXT);
  const uid = plain.notes.find(({ soundingMidi }) => soundingMidi === 66)!.uid;
  const registers: Registers = new Map(gesture ? [[keyOf(uid, 'gesture'), gesture]] : []);
  const read = readScore(TEXT, { corrections: correctionsOf(registers) });
  if (!read.ok) throw new Error(read.error.code);
  const { score } = read.value;
  const plan = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());
  const at = (midi: number) =>
    plan.notes.find((note) => score.notes.some((one) => one.uid === note.uid && one.soundingMidi === midi))!;
  return { score, key: scoreCorrectionsKey(registers), from: at(66), to: at(69) };
}

describe('a slide that the teacher asks for', () => {
  it('leads to the next note of its voice, of a chord to the nearest', () => {
    const { score } = planned(null);
    const [bass, first] = [score.notes[0]!, score.notes[1]!];
    expect(slideTargetOf(score.notes, first)?.soundingMidi).toBe(69);
    expect(slideTargetOf(score.notes, bass)).toBeNull();
    const chord = [...score.notes, { ...score.notes[2]!, uid: 'x', soundingMidi: 67 }];
    expect(slideTargetOf(chord, first)?.uid).toBe('x');
    // Another voice that begins there is not where it leads.
    const other = score.notes.map((note) => (note.soundingMidi === 69 ? { ...note, voice: '3' } : note));
    expect(slideTargetOf(other, first)).toBeNull();
  });

  it('is played by one finger on one string, which the plan would not do by itself', () => {
    const [bare, slid] = [planned(null), planned('slide')];
    expect([bare.from.finger, bare.from.string]).not.toEqual([bare.to.finger, bare.to.string]);
    expect([slid.to.finger, slid.to.string]).toEqual([slid.from.finger, slid.from.string]);
    expect(slid.score.slides).toHaveLength(1);
    expect(slid.key).not.toBe(bare.key);
  });

  it('is a matter of the plan, vibrato is not', () => {
    expect(planned('vibrato').score.slides).toEqual([]);
    expect(planned('vibrato').key).toBe(planned(null).key);
  });
});
