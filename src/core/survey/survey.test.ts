import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { CLEF_8, documentXml, noteXml, scoreOrThrow } from '../../../tests/helpers/music';
import { Planner } from '../fingering/planner';
import { CONCERT_FRETBOARD } from '../instrument/fretboard';
import { ADULT_MEDIUM } from '../instrument/hands';
import { STANDARD_TUNING } from '../instrument/tuning';
import type { Measure } from '../score/model';
import { bestChord, chordName, maybeChord, maybeChordOf } from './chords';
import { functionOf } from './functions';
import { keyAreas } from './keyAreas';
import { playOrder } from './playOrder';
import { barKinds, distinctBars } from './sameMusic';
import { maybeShapeBehind } from './shapes';
import { surveyOf } from './survey';

const chordXml = (midis: readonly number[], length = 8) =>
  midis.map((midi, k) => noteXml({ midi, onset: 0, length }, k > 0)).join('');
const lineXml = (midis: readonly number[], length = 2) =>
  midis.map((midi) => noteXml({ midi, onset: 0, length })).join('');
const scoreOf = (bars: readonly string[], attributes = CLEF_8) => scoreOrThrow(documentXml(bars, attributes));

describe('the chord of a bar', () => {
  const nameOf = (bar: string) => {
    const chord = maybeChordOf(scoreOf([bar]), 0);
    return chord && chordName(chord, false);
  };
  it.each([
    [[48, 52, 55, 60], 'C'],
    [[45, 52, 57, 60, 64], 'Am'],
    [[47, 51, 57, 59, 63, 66], 'B7'],
    [[40, 47, 52, 55], 'Em'],
    [[43, 47, 50, 53], 'G7'],
    [[47, 50, 53, 56], 'Bdim7'],
    [[52, 60, 67], 'C/E'],
    [[45, 50, 57, 62, 65], 'Dm/A'],
  ])('%j is %s', (midis, name) => expect(nameOf(chordXml(midis))).toBe(name));
  it('a broken chord with a passing note keeps its name', () =>
    expect(nameOf(lineXml([48, 52, 55, 53, 52, 55, 60, 55], 1))).toBe('C'));
  it('one pitch alone is no chord', () => expect(nameOf(lineXml([60, 60]))).toBeNull());
  it('names are read back', () => {
    for (const name of ['C', 'F#m7', 'Bbmaj7', 'C#dim', 'E7/G#']) {
      expect(chordName(maybeChord(name)!, name.includes('b'))).toBe(name);
    }
    expect(maybeChord('H')).toBeNull();
    expect(maybeChord('Cxyz')).toBeNull();
  });
  it('nothing sounding gives nothing', () =>
    expect(
      bestChord(
        Array.from({ length: 12 }, () => 0),
        0,
      ),
    ).toBeNull());
});

describe('key areas', () => {
  const scale = (tonic: number) => [0, 2, 4, 5, 7, 9, 11, 12].map((step) => tonic + step);
  it('one key through a scale and its cadence', () => {
    const areas = keyAreas(
      scoreOf([lineXml(scale(48), 1), chordXml([43, 50, 59, 65]), chordXml([48, 55, 64])]),
    );
    expect(areas).toEqual([{ fromBar: 0, toBar: 2, tonic: 0, mode: 'major' }]);
  });
  it('a change that lasts is seen, the bar it begins within one', () => {
    const bars = [48, 48, 48, 48, 48, 54, 54, 54, 54, 54].map((tonic) => lineXml(scale(tonic), 1));
    const areas = keyAreas(scoreOf(bars));
    expect(areas.map((area) => area.tonic)).toEqual([0, 6]);
    expect(Math.abs(areas[1]!.fromBar - 5)).toBeLessThanOrEqual(1);
  });
  it('degrees and secondary dominants', () => {
    const key = { fromBar: 0, toBar: 0, tonic: 0, mode: 'major' } as const;
    const names = ['C', 'Dm', 'G7', 'D7', 'Am', 'Bdim', 'Fmaj7'].map((name) =>
      functionOf(maybeChord(name)!, key),
    );
    expect(names).toEqual(['I', 'ii', 'V7', 'V7/V', 'vi', 'vii°', 'IVmaj7']);
    const minor = { ...key, tonic: 9, mode: 'minor' } as const;
    expect(['Am', 'E7', 'Dm', 'G7'].map((name) => functionOf(maybeChord(name)!, minor))).toEqual([
      'i',
      'V7',
      'iv',
      'V7/III',
    ]);
  });
});

describe('familiar shapes (common practice)', () => {
  const shape = (name: string, midis: readonly number[]) =>
    maybeShapeBehind(maybeChord(name)!, midis, STANDARD_TUNING)?.name ?? null;
  it('C major in first position', () => expect(shape('C', [48, 52, 55, 60, 64])).toBe('C shape'));
  it('F major with a barre at I', () => expect(shape('F', [41, 48, 53, 57, 60, 65])).toBe('E shape at I'));
  it('D major high up is the A shape at V', () => expect(shape('D', [57, 62, 66, 69])).toBe('A shape at V'));
  it('none where the notes lie elsewhere', () => expect(shape('C', [84, 88])).toBeNull());
});

describe('the same music', () => {
  const a = lineXml([60, 64, 67, 72]);
  const b = lineXml([62, 65, 69, 74]);
  const c = lineXml([55, 59, 62, 71]);
  it('exact, transposed, varied', () => {
    const kinds = barKinds(scoreOf([a, c, a, lineXml([62, 66, 69, 74]), lineXml([60, 64, 67, 71])]));
    expect(kinds.map((kind) => [kind.like, kind.relation, kind.semitones])).toEqual([
      [0, 'new', 0],
      [1, 'new', 0],
      [0, 'exact', 0],
      [0, 'transposed', 2],
      [0, 'varied', 0],
    ]);
    expect(distinctBars(kinds)).toBe(3);
  });
  it('lines of four bars with letters', () => {
    const line = [a, b, c, a];
    const up = [a, b, c, a].map((_, k) =>
      lineXml(
        [
          [62, 66, 69, 74],
          [64, 67, 71, 76],
          [57, 61, 64, 73],
          [62, 66, 69, 74],
        ][k]!,
      ),
    );
    const other = [72, 71, 69, 67].map((midi) => lineXml([midi, midi - 2, midi - 5, midi - 1]));
    const survey = surveyOf(scoreOf([...line, ...other, ...line, ...up]), new Map(), null);
    expect(survey.phrases.map((phrase) => phrase.label)).toEqual(['A', 'B', 'A', 'A+2']);
  });
  it('the teacher’s letter and chord hold', () => {
    const score = scoreOf([a, b, c, a]);
    const survey = surveyOf(
      score,
      new Map([
        ['b1', { form: 'Intro' }],
        ['b2', { chord: 'Dm7' }],
      ]),
      null,
    );
    expect(survey.phrases[0]!.label).toBe('Intro');
    expect(survey.bars[1]).toMatchObject({ chord: 'Dm7', chordCorrected: true, function: 'ii7' });
  });
});

describe('the order of play', () => {
  const NO_JUMPS = { segno: false, coda: false, toCoda: false, daCapo: false, dalSegno: false, fine: false };
  const bar = (index: number, more: Partial<Measure> = {}): Measure => ({
    uid: `b${index + 1}`,
    index,
    number: String(index + 1),
    startTicks: index * 4,
    durationTicks: 4,
    nominalTicks: 4,
    repeatStart: false,
    repeatEnd: false,
    repeatTimes: 2,
    ending: null,
    endingStops: false,
    jumps: NO_JUMPS,
    sectionEnd: false,
    ...more,
  });
  const order = (rows: readonly Partial<Measure>[]) => playOrder(rows.map((row, k) => bar(k, row)));
  const jumps = (row: Partial<Measure['jumps']>) => ({ jumps: { ...NO_JUMPS, ...row } });

  it('straight through', () => expect(order([{}, {}])).toEqual([0, 1]));
  it('a repeat from the beginning, and one of its own', () =>
    expect(order([{}, { repeatEnd: true }, { repeatStart: true }, { repeatEnd: true }])).toEqual([
      0, 1, 0, 1, 2, 3, 2, 3,
    ]));
  it('three times', () => expect(order([{ repeatEnd: true, repeatTimes: 3 }, {}])).toEqual([0, 0, 0, 1]));
  it('first and second ending', () =>
    expect(
      order([
        { repeatStart: true },
        { ending: '1', endingStops: true, repeatEnd: true },
        { ending: '2', endingStops: true },
        {},
      ]),
    ).toEqual([0, 1, 0, 2, 3]));
  it('da capo al fine, repeats not taken again', () =>
    expect(order([{ repeatEnd: true }, jumps({ fine: true }), jumps({ daCapo: true })])).toEqual([
      0, 0, 1, 2, 0, 1,
    ]));
  it('dal segno al coda', () =>
    expect(
      order([
        {},
        jumps({ segno: true }),
        jumps({ toCoda: true }),
        jumps({ dalSegno: true }),
        jumps({ coda: true }),
      ]),
    ).toEqual([0, 1, 2, 3, 1, 2, 4]));
  it('after a jump the last ending', () =>
    expect(
      order([
        {},
        { ending: '1', endingStops: true, repeatEnd: true },
        { ending: '2', endingStops: true },
        jumps({ daCapo: true }),
      ]),
    ).toEqual([0, 1, 0, 2, 3, 0, 2, 3]));
});

describe('the whole', () => {
  const text = readFileSync(new URL('../../../demo/mill-bridge-dance.musicxml', import.meta.url), 'utf8');
  const score = scoreOrThrow(text);
  const plan = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());
  const survey = surveyOf(score, new Map(), plan);

  it('effort by bar adds up to the plan’s', () => {
    const sum = (side: 'left' | 'right') => survey.bars.reduce((total, bar) => total + bar.effort![side], 0);
    expect(sum('left')).toBe(plan.leftCost);
    expect(sum('right')).toBe(plan.rightCost);
  });
  it('the dance begins with an upbeat and comes back to its first line', () => {
    expect(survey.phrases[0]).toMatchObject({ fromBar: 0, upbeat: true, label: 'A' });
    expect(survey.phrases.slice(1).some((phrase) => phrase.letter === 'A')).toBe(true);
    expect(survey.distinctBars).toBeLessThan(score.measures.length);
  });
  it('every bar lies in one phrase and one key area', () => {
    const bars = survey.phrases.flatMap((phrase) =>
      Array.from({ length: phrase.toBar - phrase.fromBar + 1 }, (_, k) => phrase.fromBar + k),
    );
    expect(bars).toEqual(score.measures.map((_, k) => k));
    expect(survey.keys.at(-1)!.toBar).toBe(score.measures.length - 1);
  });
});
