import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, type TestNote } from '../../../../tests/helpers/music';

const strikesOf = (notes: readonly TestNote[]) => problemFrom(barXml(notes)).strikes;
const run = (midi: readonly number[], voice = 1, from = 0): TestNote[] =>
  midi.map((one, k) => ({ midi: one, onset: from + k, length: 1, voice }));
const BASS: TestNote = { midi: 45, onset: 0, length: 6, voice: 2 };

describe('strikes', () => {
  it('share a unison of two voices and keep its longer value', () => {
    const strikes = strikesOf([
      { midi: 60, onset: 0, length: 2 },
      { midi: 60, onset: 0, length: 4, voice: 2 },
    ]);
    expect(strikes).toHaveLength(1);
    expect(strikes[0]).toMatchObject({ uids: ['n1', 'n2'], endTicks: 4 });
  });

  it('are melody, bass or inner part by voice and place in the chord', () => {
    const strikes = strikesOf([
      BASS,
      { midi: 64, onset: 0, length: 2 },
      { midi: 60, onset: 2, length: 2, voice: 3 },
    ]);
    expect(strikes.map((strike) => [strike.midi, strike.role])).toEqual([
      [45, 'bass'],
      [64, 'melody'],
      [60, 'inner'],
    ]);
  });

  it('take a slur over two neighbours as a ligado, one over three as a phrase mark', () => {
    const slur = (type: string) => `<notations><slur type="${type}" number="1"/></notations>`;
    const slurred = (last: number) =>
      run([60, 62, 64]).map((note, k) => ({
        ...note,
        extra: k === 0 ? slur('start') : k === last ? slur('stop') : '',
      }));
    expect(strikesOf(slurred(1)).map((strike) => strike.slurredFrom)).toEqual([null, 0, null]);
    expect(strikesOf(slurred(2)).map((strike) => strike.slurredFrom)).toEqual([null, null, null]);
  });
});

describe('moments', () => {
  it('are the unique onsets with what is struck and what is held', () => {
    const { moments } = problemFrom(barXml([{ ...BASS, length: 2 }, ...run([60, 62, 64])]));
    expect(moments.map((moment) => [moment.tick, moment.struck, moment.held])).toEqual([
      [0, [0, 1], []],
      [1, [2], [0]],
      [2, [3], []],
    ]);
  });
});

describe('broken chords (common practice: the hand holds an arpeggio as its chord)', () => {
  const ends = (notes: readonly TestNote[]) =>
    strikesOf(notes)
      .filter((strike) => strike.voice === '1')
      .map((strike) => strike.endTicks);

  it('ring on to the end of the figure, or to the same pitch again', () => {
    expect(ends([BASS, ...run([57, 60, 64, 60, 57], 1, 1)])).toEqual([5, 4, 6, 6, 6]);
  });
  it('do not ring where the voice moves by step', () => {
    expect(ends([BASS, ...run([60, 62, 64, 65], 1, 1)])).toEqual([2, 3, 4, 5]);
  });
  it('keep the written end, so that losing the ringing is not losing a written value', () => {
    const [first] = strikesOf([BASS, ...run([57, 60, 64], 1, 1)]).filter((strike) => strike.voice === '1');
    expect(first).toMatchObject({ writtenEndTicks: 2, endTicks: 4 });
  });
  it('in a single line need a long figure that comes back to a pitch', () => {
    expect(ends(run([57, 60, 64]))).toEqual([1, 2, 3]);
    expect(ends(run([57, 60, 64, 69, 64, 60]))).toEqual([6, 5, 4, 6, 6, 6]);
  });

  const grips = (notes: readonly TestNote[]) =>
    strikesOf(notes)
      .filter((strike) => strike.voice === '1')
      .map(({ grip }) => grip);
  const laid = (notes: readonly TestNote[]) =>
    strikesOf(notes)
      .filter((strike) => strike.voice === '1')
      .map(({ laidTicks }) => laidTicks);
  const bass = (midi: number, onset: number): TestNote => ({ midi, onset, length: 3, voice: 2 });

  it('go on over the rest in which a bass strikes, where they come back to a pitch of theirs', () => {
    const notes = [bass(45, 0), ...run([57, 60], 1, 1), bass(47, 3), ...run([57, 60], 1, 4)];
    expect(new Set(grips(notes))).toEqual(new Set([0]));
    const other = [bass(45, 0), ...run([57, 60], 1, 1), bass(47, 3), ...run([59, 62], 1, 4)];
    expect(grips(other)).toEqual([null, null, null, null]);
  });
  it('are taken with a stopped bass before them, and after an open one, which gives the hand time', () => {
    expect(laid([bass(48, 0), ...run([60, 64, 69], 1, 1)])).toEqual([0, 0, 0]);
    expect(laid([bass(45, 0), ...run([60, 64, 69], 1, 1)])).toEqual([1, 1, 1]);
  });
  it('after a chord of the same notes are struck where it lies', () => {
    const chord = [50, 57, 60, 66].map((midi): TestNote => ({ midi, onset: 0, length: 2 }));
    const strikes = strikesOf([...chord, ...run([50, 57, 60, 66], 1, 2)]);
    expect(strikes.slice(4).map(({ continues }) => continues)).toEqual([0, 1, 2, 3]);
    const other = strikesOf([...chord, ...run([50, 57, 59], 1, 2)]);
    expect(other.slice(4).map(({ continues }) => continues)).toEqual([0, 1, null]);
  });
  it('leave out what shares a string in the first position: an open one and what is stopped on it take turns', () => {
    expect(grips([bass(48, 0), ...run([55, 60, 64, 67], 1, 1)])).toEqual([0, 0, null, null]);
  });
  it('hold what a figure passes through or turns at by turns; turns that move are a tune', () => {
    // F major with f and c on top, D major with f sharp and d by turns: all is one chord.
    expect(grips(run([41, 57, 60, 65, 60, 57, 60, 57]))).toEqual(Array(8).fill(0));
    expect(grips(run([50, 66, 57, 62, 57, 66, 57, 62]))).toEqual(Array(8).fill(0));
    // The same chord under e, g, e: a tune.
    const tune = grips(run([45, 64, 57, 60, 67, 57, 60, 64, 57, 60]));
    expect(tune.map((grip) => grip !== null)).toEqual(
      [45, 64, 57, 60, 67, 57, 60, 64, 57, 60].map((midi) => midi < 64),
    );
  });
  it('have two notes on one string in turns where no low grip has both, and a string for each where one has', () => {
    // C7 with an open G: B flat lies on the string of G.
    expect(grips(run([48, 52, 58, 64, 58, 52, 55, 58]))).toEqual([0, 0, null, 0, null, 0, null, null]);
    // B minor: B and D have strings of their own in the second position.
    expect(grips(run([47, 54, 59, 62, 66, 62, 59, 54]))).toEqual(Array(8).fill(0));
  });
  it('hold seconds that ring in them; steps that do not come round are a voice that moves', () => {
    // B7 at the nut: a lies beside the open b.
    expect(grips([bass(47, 0), ...run([66, 59, 57, 59, 66, 59, 57], 1, 1)])).toEqual(Array(7).fill(0));
    const moving = grips([bass(45, 0), ...run([64, 60, 57, 59, 60, 64, 60], 1, 1)]);
    expect(moving).not.toEqual(Array(7).fill(0));
  });
  it('are grips of slow notes, too, below a melody', () => {
    const tune: TestNote = { midi: 72, onset: 0, length: 8, voice: 1 };
    const slow = [57, 52, 57].map((midi, k): TestNote => ({ midi, onset: 2 + 2 * k, length: 2, voice: 2 }));
    const below = strikesOf([tune, ...slow]).filter(({ voice }) => voice === '2');
    expect(below.map(({ grip }) => grip)).toEqual([0, 0, 0]);
  });
});
