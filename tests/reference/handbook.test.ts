/** Facts of the trade that the handbook states; common practice, except where a line names its source. */
import { describe, expect, it } from 'vitest';
import { fingerDistanceMm } from '../../src/core/fingering/left/rules/constraints';
import { Planner } from '../../src/core/fingering/planner';
import { fretDistanceMm } from '../../src/core/instrument/fretboard';
import { DEFAULT_PLAYER, maybePlayer, PLAYERS } from '../../src/core/instrument/hands';
import { choiceReasonText } from '../../src/core/messages/hand';
import { placeOf } from '../../src/core/score/places';
import { LEFT_SCHOOL_IDS, type LeftSchoolId } from '../../src/core/fingering/left/rules/schools';
import { barXml, scoreOrThrow, type TestNote } from '../helpers/music';

function planned(
  notes: readonly TestNote[],
  bpm: number,
  school: LeftSchoolId = 'balanced',
  player = DEFAULT_PLAYER,
) {
  const score = scoreOrThrow(barXml(notes, bpm));
  const planner = new Planner(score, player.fretboard, player.hand, school);
  return { score, planner, plan: planner.plan(new Map()) };
}
const line = (midis: readonly number[], length = 1): TestNote[] =>
  midis.map((midi, k) => ({ midi, onset: k * length, length }));
const at = (plan: ReturnType<typeof planned>['plan'], uid: string) => {
  const note = plan.notes.find((one) => one.uid === uid)!;
  return `${note.finger}@${note.string}/${note.fret}`;
};

describe('looking ahead', () => {
  const overBass: TestNote[] = [
    { midi: 48, onset: 0, length: 6, voice: 2 },
    { midi: 60, onset: 0, length: 2 },
    { midi: 62, onset: 2, length: 2 },
    { midi: 67, onset: 4, length: 2 },
  ];

  it('the finger that holds the bass passes its note to 4, and says so', () => {
    const { plan, planner, score } = planned(overBass, 80);
    expect(at(plan, 'n1')).toBe('3@5/3');
    expect(at(plan, 'n3')).toBe('4@2/3');
    const [best] = planner.choices(new Map(), 'n3')!.left;
    expect(best!.finger).toBe(4);
    const words = best!.words.map((word) => choiceReasonText(word, (ticks) => placeOf(score, ticks), 80));
    expect(words[0]).toBe('3 holds the bass C until beat 4');
  });

  it('the shift falls on the open string, not on a stopped note', () => {
    const { plan } = planned(line([65, 67, 64, 71, 72, 74]), 96);
    expect(plan.shifts).toHaveLength(1);
    expect(plan.shifts[0]).toMatchObject({ carrier: 'open', fromUid: 'n3', toUid: 'n4' });
  });

  it('on one fret the lower-numbered finger takes the lower-pitched string', () => {
    const { plan } = planned(
      [45, 52, 57, 61, 64].map((midi) => ({ midi, onset: 0, length: 4 })),
      60,
    );
    expect(['n2', 'n3', 'n4'].map((uid) => at(plan, uid))).toEqual(['1@4/2', '2@3/2', '3@2/2']);
  });

  it('a guide finger is chosen ahead: the hand that must move slides on a finger that is down', () => {
    const thirds = [
      [60, 64],
      [62, 65],
      [64, 67],
      [65, 69],
      [67, 71],
    ].flatMap(([low, high], k) => [
      { midi: low!, onset: 2 * k, length: 2 },
      { midi: high!, onset: 2 * k, length: 2 },
    ]);
    const { plan } = planned(thirds, 60);
    expect(plan.shifts.length).toBeGreaterThan(0);
    expect(plan.shifts.some((shift) => shift.carrier === 'guide' || shift.carrier === 'shape')).toBe(true);
    expect(plan.shifts.every((shift) => shift.carrier !== 'none')).toBe(true);
  });

  it('neighbour fingers take the notes of a quick line: none slides along its string to the next', () => {
    const { plan } = planned(line([60, 62, 64, 66, 67, 69, 71, 69, 67, 66, 64, 62]), 184);
    const pairs = plan.notes.slice(1).map((note, k) => [plan.notes[k]!, note] as const);
    const slid = pairs.filter(
      ([a, b]) => b.finger! > 0 && a.finger === b.finger && a.string === b.string && a.fret !== b.fret,
    );
    expect(slid).toEqual([]);
  });

  it.each([
    ['C', 48],
    ['D flat', 49],
    ['B', 47],
  ])('two octaves of %s major go up and down without a slide of a semitone', (_key, tonic) => {
    const up = [0, 2, 4, 5, 7, 9, 11, 12, 14, 16, 17, 19, 21, 23, 24].map((step) => tonic + step);
    const { plan } = planned(line([...up, ...up.slice(0, -1).reverse()]), 200);
    const slides = plan.notes.slice(1).filter((note, k) => {
      const before = plan.notes[k]!;
      return (
        note.finger !== 0 &&
        note.finger === before.finger &&
        note.string === before.string &&
        Math.abs(note.fret! - before.fret!) === 1
      );
    });
    expect(slides.map(({ uid }) => at(plan, uid))).toEqual([]);
  });

  it('nor do fingers cross on one fret from note to note', () => {
    const { plan } = planned(line([60, 64, 67, 72, 71, 69, 67, 65, 64]), 168);
    const pairs = plan.notes.slice(1).map((note, k) => [plan.notes[k]!, note] as const);
    const onOneFret = pairs.filter(([a, b]) => a.fret === b.fret && b.fret! > 0 && a.string !== b.string);
    expect(onOneFret.length).toBeGreaterThan(0);
    // Higher string numbers are lower-pitched strings.
    for (const [a, b] of onOneFret)
      expect(Math.sign(a.finger! - b.finger!) * Math.sign(b.string! - a.string!)).toBeGreaterThanOrEqual(0);
  });

  it('a shift that cannot be done in time is never proposed where the position can stay', () => {
    const { plan } = planned(line([72, 71, 69, 67, 65, 64, 69, 72]), 168);
    expect(plan.shifts.filter((shift) => shift.risk === 'tooFast')).toEqual([]);
  });
});

describe('the instrument in millimetres (handbook, section 3)', () => {
  it('four frets from I are as wide as five from V', () => {
    const span = (from: number, to: number) => fretDistanceMm(to, 650) - fretDistanceMm(from, 650);
    expect(span(1, 4)).toBeCloseTo(97.6, 1);
    expect(span(5, 9)).toBeCloseTo(100.5, 1);
  });
  it('so 1 and 4 that lie at ease over four frets at V are stretched at I', () => {
    const mm = (fret: number) =>
      fingerDistanceMm({ string: 1, fret }, { string: 1, fret: fret + 4 }, DEFAULT_PLAYER.fretboard);
    const { atEaseMm } = DEFAULT_PLAYER.hand.reach['14'];
    expect(mm(5)).toBeLessThan(atEaseMm);
    expect(mm(1)).toBeGreaterThan(atEaseMm);
  });
});

describe('hands and schools', () => {
  it('a child that may not bar gets two fingers where an adult bars, and never more than it reaches', () => {
    const chord = [57, 60, 65].map((midi) => ({ midi, onset: 0, length: 4 }));
    const child = maybePlayer('child-half')!;
    const { plan } = planned(chord, 60, 'balanced', child);
    expect(plan.barres).toEqual([]);
    expect(plan.findings).toEqual([]);
  });
  it('smaller hands reach less, on every pair', () => {
    const reach = (id: string) => maybePlayer(id)!.hand.reach['14'].atMostMm;
    const byReach = [
      'adult-large',
      'adult-medium',
      'adult-small',
      'teen',
      'child-three-quarters',
      'child-half',
    ].map(reach);
    expect([...byReach].sort((a, b) => b - a)).toEqual(byReach);
    expect(PLAYERS).toHaveLength(byReach.length);
  });
  it('few barres bars less, low and open stays lower, a singing line has fewer open strings', () => {
    const amChord = [45, 60, 64, 69].map((midi) => ({ midi, onset: 0, length: 4 }));
    const barres = (school: LeftSchoolId) => planned(amChord, 60, school).plan.barres.length;
    expect(barres('few-barres')).toBeLessThanOrEqual(barres('balanced'));
    const tune = line([64, 65, 67, 69, 67, 65, 64], 2);
    const opens = (school: LeftSchoolId) =>
      planned(tune, 60, school).plan.notes.filter((note) => note.finger === 0).length;
    expect(opens('singing-line')).toBeLessThan(opens('low-and-open'));
    const frets = (school: LeftSchoolId) =>
      planned(tune, 60, school).plan.notes.reduce((sum, note) => sum + (note.fret ?? 0), 0);
    expect(frets('low-and-open')).toBeLessThanOrEqual(frets('singing-line'));
  });
  it.each(LEFT_SCHOOL_IDS)('%s plans everything that can be played, at its own optimum', (school) => {
    const { plan } = planned(line([57, 60, 64, 69, 67, 65, 64, 62]), 100, school);
    expect(plan.findings.filter((finding) => finding.code !== 'cut')).toEqual([]);
    expect(plan.lowerBound).toBe(plan.cost);
  });
});
