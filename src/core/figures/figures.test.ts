import { describe, expect, it } from 'vitest';
import { barXml, problemFrom } from '../../../tests/helpers/music';
import { TEXTURED, type TexturedPassage } from '../../../tests/helpers/textures/corpus';
import type { FingeringProblem } from '../fingering/problem/problem';
import { readFigures } from './reading';
import type { Texture } from './texture';

const surroundings = ({ moments, ticksPerQuarter }: FingeringProblem) => ({
  onBeat: moments.map(({ tick }) => tick % ticksPerQuarter === 0),
  strummed: moments.map(() => false),
});

const read = (passage: TexturedPassage, textureOf?: (uid: string) => Texture | null) => {
  const problem = problemFrom(barXml(passage.notes, passage.tempo));
  return { problem, ...readFigures(problem, surroundings(problem), textureOf) };
};

/** By note of the passage: what it was read as. */
function texturesOf(
  passage: TexturedPassage,
): readonly { readonly wanted: Texture; readonly got: Texture }[] {
  const { problem, figures } = read(passage);
  const of = new Map(figures.flatMap(({ texture, strikes }) => strikes.map((strike) => [strike, texture])));
  return passage.notes.map((note) => {
    const strike = problem.strikes.find(
      ({ midi, onsetTicks }) =>
        midi === note.midi && onsetTicks === (note.onset * problem.ticksPerQuarter) / 2,
    )!;
    return { wanted: note.texture, got: of.get(strike.index)! };
  });
}

describe('textures of passages that the rules were not written from', () => {
  it('are at least sixty, in every texture that notes alone can show', () => {
    expect(TEXTURED.length).toBeGreaterThanOrEqual(60);
    const textures = new Set(TEXTURED.flatMap(({ notes }) => notes.map(({ texture }) => texture)));
    expect([...textures].sort()).toEqual(
      ['afterbeats', 'brokenChord', 'chords', 'line', 'parallels', 'pedal', 'slowMelody', 'tremolo'].sort(),
    );
  });
  it('are read right in at least 95 of 100 notes', () => {
    const wrong: string[] = [];
    let [right, all] = [0, 0];
    for (const passage of TEXTURED) {
      const notes = texturesOf(passage);
      const good = notes.filter(({ wanted, got }) => wanted === got).length;
      if (good < notes.length)
        wrong.push(`${passage.name} ${good}/${notes.length}: ${notes.map(({ got }) => got).join(' ')}`);
      right += good;
      all += notes.length;
    }
    expect(right / all, wrong.join('\n')).toBeGreaterThanOrEqual(0.95);
  });
});

describe('slow notes that come back to a leap', () => {
  const midis = [64, 60, 64, 60, 64, 62, 64, 60, 64, 60];
  const passage = (lengths: readonly number[]): TexturedPassage => ({
    name: 'slow leaps',
    tempo: 60,
    notes: midis.map((midi, k) => ({
      midi,
      onset: lengths.slice(0, k).reduce((sum, length) => sum + length, 0),
      length: lengths[k]!,
      texture: 'slowMelody' as const,
    })),
  });
  const texturesIn = (one: TexturedPassage) => new Set(read(one).figures.map(({ texture }) => texture));
  it('are a figure only where they go on evenly', () => {
    expect(texturesIn(passage([3, 1, 2, 4, 3, 1, 2, 4, 3, 1])).has('brokenChord')).toBe(false);
    expect(texturesIn(passage(midis.map(() => 2))).has('brokenChord')).toBe(true);
  });
});

describe('figures', () => {
  const [change] = TEXTURED.filter(({ name }) => name === 'arpeggio, then a scale');

  it('cover every note of every voice once, in the order of time', () => {
    for (const passage of TEXTURED) {
      const { problem, figures } = read(passage);
      const strikes = figures.flatMap((figure) => figure.strikes);
      expect(
        [...strikes].sort((a, b) => a - b),
        passage.name,
      ).toEqual(problem.strikes.map(({ index }) => index));
      for (const voice of new Set(figures.map((figure) => figure.voice))) {
        const own = figures.filter((figure) => figure.voice === voice);
        own.slice(1).forEach((figure, k) => expect(figure.fromMoment).toBeGreaterThan(own[k]!.toMoment));
      }
    }
  });
  it('say what recognised them, and how clearly', () => {
    const { figures } = read(change!);
    expect(figures.find(({ texture, voice }) => texture === 'brokenChord' && voice === '1')).toMatchObject({
      rule: 'leaps',
    });
    expect(figures.find(({ texture }) => texture === 'line')).toMatchObject({ rule: 'steps' });
    for (const { margin, texture } of figures) if (texture === 'line') expect(margin).toBeGreaterThan(0.5);
  });
  it('give way to the teacher’s word, note by note', () => {
    const { problem } = read(change!);
    const tune = problem.strikes.filter(({ onsetTicks }) => onsetTicks >= 12 * (problem.ticksPerQuarter / 2));
    const named = new Set(tune.flatMap(({ uids }) => uids));
    const { figures, textures } = read(change!, (uid) => (named.has(uid) ? 'brokenChord' : null));
    const own = figures.filter(({ rule }) => rule === 'teacher');
    expect(own).toHaveLength(1);
    expect(own[0]).toMatchObject({ texture: 'brokenChord', strikes: tune.map(({ index }) => index) });
    expect(textures.slice(-tune.length)).toEqual(tune.map(() => 'brokenChord'));
  });
  it('do not depend on the tempo, but for slow tunes and what is too slow for a tremolo', () => {
    for (const passage of TEXTURED) {
      const at = (factor: number) => read({ ...passage, tempo: passage.tempo * factor }).figures;
      const slow = (figures: ReturnType<typeof at>) =>
        figures.some(({ texture }) => texture === 'slowMelody' || texture === 'tremolo');
      const [usual, quicker, slower] = [at(1), at(1.25), at(0.8)];
      if (slow(usual) || slow(quicker) || slow(slower)) continue;
      const shape = (figures: typeof usual) =>
        figures.map(({ texture, fromMoment }) => `${texture} ${fromMoment}`);
      expect(shape(quicker), passage.name).toEqual(shape(usual));
      expect(shape(slower), passage.name).toEqual(shape(usual));
    }
  });
});

describe('whose note it is', () => {
  const handsIn = (name: string) => {
    const passage = TEXTURED.find((one) => one.name === name)!;
    const { problem, hands } = read(passage);
    return problem.strikes.map(({ voice, midi }) => ({
      voice,
      midi,
      hand: hands[problem.strikes.findIndex((one) => one.voice === voice && one.midi === midi)]!,
    }));
  };
  // Handbook 13: an accompaniment written stem-down above a bass note belongs to i m.
  it('stem-down chords and figures above a bass belong to the fingers', () => {
    for (const name of ['below a tune', 'inner accompaniment below a tune'])
      for (const { voice, midi, hand } of handsIn(name))
        if (voice === '2') expect(hand, `${name} ${midi}`).toBe(midi < 52 ? 'thumb' : 'fingers');
  });
  it('a new chord of the lowest voice begins with a bass, also above the last one', () => {
    const tune = [62, 59, 62, 67, 64, 60, 64, 67].map((midi, k) => ({
      midi,
      onset: 2 * k,
      length: 2,
      voice: 1,
    }));
    const below = [43, 50, 55, 50, 43, 50, 55, 50, 48, 52, 55, 52, 48, 52, 55, 52];
    const notes = below.map((midi, onset) => ({ midi, onset, length: 1, voice: 2 }));
    const problem = problemFrom(barXml([...tune, ...notes], 88));
    const { hands } = readFigures(problem, surroundings(problem));
    const handOf = (midi: number, onset: number) =>
      hands[problem.strikes.findIndex((one) => one.midi === midi && one.onsetTicks === onset)];
    for (const onset of [0, 4]) expect(handOf(43, onset)).toBe('thumb');
    for (const onset of [8, 12]) expect(handOf(48, onset)).toBe('thumb');
    for (const onset of [1, 3, 5, 7]) expect(handOf(50, onset)).toBe('fingers');
  });
  it('a bass line is the thumb’s to its last note', () => {
    for (const { voice, hand } of handsIn('open first string'))
      expect(hand).toBe(voice === '2' ? 'thumb' : 'fingers');
  });
});

describe('a tremolo that stays on one pitch at first', () => {
  it('is one figure, whatever its beginning looks like alone', () => {
    const trebles = [66, 66, 66, 66, 67, 69, 71, 71];
    const basses = [47, 54, 59, 47, 54, 62, 40, 52];
    const notes = trebles.flatMap((midi, group) =>
      [1, 2, 3].map((k) => ({ midi, onset: 4 * group + k, length: 1, voice: 1 })),
    );
    const below = basses.map((midi, group) => ({ midi, onset: 4 * group, length: 4, voice: 2 }));
    const problem = problemFrom(barXml([...notes, ...below], 208));
    const figures = readFigures(problem, surroundings(problem)).figures.filter(({ voice }) => voice === '1');
    expect(figures.map(({ texture, strikes }) => [texture, strikes.length])).toEqual([
      ['tremolo', notes.length],
    ]);
  });
});
