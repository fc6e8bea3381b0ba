/**
 * What guitarists agree on about the right hand (common practice, from the handbook's "The right hand" and "Slurs"),
 * on invented music: the planner finds it by itself, and each school plays as it teaches.
 */
import { describe, expect, it } from 'vitest';
import { FORMULAS, ORDERS } from '../../src/core/fingering/formulas/formulas';
import type { Ink } from '../../src/core/fingering/problem/ink';
import type { FingeringPlan } from '../../src/core/fingering/report/plan';
import { NO_WISHES, Planner } from '../../src/core/fingering/planner';
import { RIGHT_SCHOOL_IDS } from '../../src/core/fingering/right/rules/schools';
import { PLAIN_STYLE, type RightStyle } from '../../src/core/fingering/right/rules/style';
import { TREMOLO_IDS, TREMOLOS } from '../../src/core/fingering/right/rules/tremolo';
import { DEFAULT_PLAYER } from '../../src/core/instrument/hands';
import { strokeActionText, strokeWords } from '../../src/core/messages/strokes';
import type { Pluck } from '../../src/core/score/model';
import { barXml, scoreOrThrow, type TestNote } from '../helpers/music';

const { hand, fretboard } = DEFAULT_PLAYER;
const plannerOf = (notes: readonly TestNote[], tempo: number, style: Partial<RightStyle> = {}) =>
  new Planner(scoreOrThrow(barXml(notes, tempo)), fretboard, hand, 'balanced', {
    ...NO_WISHES,
    style: { ...PLAIN_STYLE, ...style },
  });
const planOf = (notes: readonly TestNote[], tempo: number, style: Partial<RightStyle> = {}) =>
  plannerOf(notes, tempo, style).plan(new Map());
const lettersIn = (plan: FingeringPlan): readonly (Pluck | null)[] => plan.notes.map(({ pluck }) => pluck);
const crossingsIn = (plan: FingeringPlan) => plan.strokes.filter(({ move }) => move?.against).length;

const line = (
  midis: readonly number[],
  length = 1,
  extras: Readonly<Record<number, string>> = {},
): TestNote[] =>
  midis.map((midi, k) => ({
    midi,
    onset: k * length,
    length,
    voice: 1,
    ...(extras[k] ? { extra: extras[k] } : {}),
  }));
const slur = (type: 'start' | 'stop') => `<notations><slur type="${type}" number="1"/></notations>`;
const chord = (onset: number, length: number, ...midis: number[]): TestNote[] =>
  midis.map((midi) => ({ midi, onset, length, voice: 1 }));

const C_SCALE = [60, 62, 64, 65, 67, 69, 71, 72, 71, 69, 67, 65, 64, 62, 60];
const ARPEGGIO: TestNote[] = [0, 6].flatMap((start) =>
  [45, 57, 60, 64, 60, 57].map((midi, k) => ({ midi, onset: start + k, length: 1, voice: k === 0 ? 2 : 1 })),
);
const TRIAD = [48, 52, 55, 60, 64, 67, 72];

describe('formulas by combinatorics', () => {
  it('four fingers have 24 orders, six begin with each', () => {
    expect(ORDERS).toHaveLength(24);
    expect(new Set(ORDERS.map(({ id }) => id)).size).toBe(24);
    for (const finger of ['p', 'i', 'm', 'a'])
      expect(ORDERS.filter(({ letters }) => letters[0] === finger)).toHaveLength(6);
  });
  it('the table has every order once and no formula twice', () => {
    expect(new Set(FORMULAS.map(({ id }) => id)).size).toBe(FORMULAS.length);
    for (const { id } of ORDERS) expect(FORMULAS.map((one) => one.id)).toContain(id);
  });
});

describe('common practice', () => {
  it('a formula goes on over the bar line', () => {
    const letters = lettersIn(planOf(ARPEGGIO, 120));
    expect(letters.slice(0, 6)).toEqual(['p', 'i', 'm', 'a', 'm', 'i']);
    expect(letters.slice(6)).toEqual(letters.slice(0, 6));
  });
  it('below a tune the fingers move at the border of the chord, not inside its figure', () => {
    const tune = [62, 59, 62, 67, 64, 60, 64, 67].map((midi, k): TestNote => ({
      midi,
      onset: 2 * k,
      length: 2,
      voice: 1,
    }));
    const figure = [43, 50, 55, 50, 43, 50, 55, 50, 48, 52, 55, 52, 48, 52, 55, 52].map(
      (midi, onset): TestNote => ({ midi, onset, length: 1, voice: 2 }),
    );
    const { notes } = planOf([...tune, ...figure], 88);
    // G major, then C major: each string of the accompaniment has one finger.
    const ofFigure = notes.slice(tune.length);
    for (const bar of [ofFigure.slice(0, 8), ofFigure.slice(8)])
      for (const string of [3, 4, 5, 6]) {
        const letters = bar.filter((note) => note.string === string).map(({ pluck }) => pluck);
        expect(new Set(letters).size).toBeLessThanOrEqual(1);
      }
  });
  it('and is named, with its length', () => {
    const [span] = planOf(ARPEGGIO, 120).formulas;
    expect(span).toMatchObject({ formula: 'pimami', strokes: 12, leaving: 'end' });
  });
  it('on one string fingers alternate, and a slur flips the count', () => {
    const tune = [64, 65, 67, 65, 64, 65, 67, 65];
    const plain = lettersIn(planOf(line(tune), 180));
    const slurred = lettersIn(planOf(line(tune, 1, { 2: slur('start'), 3: slur('stop') }), 180));
    plain.slice(1).forEach((letter, k) => expect(letter).not.toBe(plain[k]));
    expect(slurred[3]).toBeNull();
    expect(slurred[2]).not.toBe(slurred[4]);
    // Without the slur the third and fifth note have the same finger, with it two different ones.
    expect(plain[2]).toBe(plain[4]);
  });
  it('double p takes the crossings out of a triad over two octaves', () => {
    // C in the first position: a string for each note, two notes more on the first.
    const strings = [5, 4, 3, 2, 1, 1, 1];
    const ink = new Map(strings.map((string, k) => [`n${k + 1}`, { finger: null, string, pluck: null }]));
    const planWith = (school: RightStyle['school']) => plannerOf(line(TRIAD), 160, { school }).plan(ink);
    expect(crossingsIn(planWith('strict-im'))).toBeGreaterThan(0);
    const free = planWith('crossing-free');
    expect(crossingsIn(free)).toBe(0);
    expect(lettersIn(free).slice(0, 5).join('')).toBe('ppima');
  });
  it('against p one treble string is played by i or m, two by i m, three by i m a', () => {
    expect(lettersIn(planOf(chord(0, 4, 40, 64), 90))[1]).toMatch(/[im]/);
    expect(
      lettersIn(planOf(chord(0, 4, 40, 59, 64), 90))
        .slice(1)
        .join(''),
    ).toMatch(/im|ma/);
    expect(lettersIn(planOf(chord(0, 4, 40, 55, 59, 64), 90))).toEqual(['p', 'i', 'm', 'a']);
  });
  it('p brushes the lowest of five and six strings', () => {
    expect(lettersIn(planOf(chord(0, 4, 40, 47, 52, 56, 59), 90))).toEqual(['p', 'p', 'i', 'm', 'a']);
    expect(lettersIn(planOf(chord(0, 4, 40, 47, 52, 56, 59, 64), 90))).toEqual([
      'p',
      'p',
      'p',
      'i',
      'm',
      'a',
    ]);
  });
  it('c is off unless it is allowed', () => {
    const quick = line(Array.from({ length: 16 }, () => 64));
    expect(lettersIn(planOf(quick, 260))).not.toContain('c');
  });
  it('lines are played with rest strokes, arpeggios freely', () => {
    const scale = planOf(line(C_SCALE), 140);
    expect(scale.strokes.filter(({ rest }) => rest).length).toBeGreaterThan(scale.strokes.length / 2);
    expect(planOf(ARPEGGIO, 120).strokes.some(({ rest }) => rest)).toBe(false);
    expect(planOf(line(C_SCALE), 140, { restStrokes: 'never' }).strokes.some(({ rest }) => rest)).toBe(false);
  });
});

describe('schools', () => {
  it.each([
    ['strict-im', 'im'],
    ['strict-ma', 'ma'],
    ['strict-ia', 'ia'],
  ] as const)('%s alternates its two fingers, whatever they cross', (school, pair) => {
    const letters = lettersIn(planOf(line(C_SCALE), 140, { school }));
    letters.forEach((letter, k) => {
      expect(pair).toContain(letter);
      expect(letter).not.toBe(letters[k + 1]);
    });
  });
  it('three fingers go a m i again and again in a scale', () => {
    const letters = lettersIn(planOf(line(C_SCALE), 140, { school: 'three-finger' })).join('');
    expect('amiamiamiamiamiamiami').toContain(letters);
  });
  it('stations: each finger keeps its string', () => {
    const plan = planOf(ARPEGGIO, 120, { school: 'stations' });
    const stations: Readonly<Record<number, Pluck>> = { 1: 'a', 2: 'm', 3: 'i' };
    for (const { letters, strings } of plan.strokes)
      letters.forEach((letter, k) => expect(letter).toBe(stations[strings[k]!] ?? 'p'));
  });
  it('a plectrum strokes down on the beat and up beside it, on one string', () => {
    const letters = lettersIn(planOf(line([64, 65, 67, 65, 64, 65, 67, 65]), 120, { school: 'plectrum' }));
    expect(letters).toEqual(['down', 'up', 'down', 'up', 'down', 'up', 'down', 'up']);
  });
  it('bow marks on single notes are strokes of a plectrum: one keeps them, fingers pass them over', () => {
    const tune = [64, 65, 67, 65, 64, 65, 67, 65];
    const bow = (k: number) => (k % 2 === 0 ? 'up' : 'down');
    const mark = (k: number) => `<notations><technical><${bow(k)}-bow/></technical></notations>`;
    const marked = line(tune, 1, Object.fromEntries(tune.map((_midi, k) => [k, mark(k)])));
    expect(lettersIn(planOf(marked, 120, { school: 'plectrum' }))).toEqual(tune.map((_midi, k) => bow(k)));
    const [byFingers, plain] = [marked, line(tune)].map((notes) => planOf(notes, 120));
    expect(lettersIn(byFingers!)).toEqual(lettersIn(plain!));
    expect(byFingers!.cost).toBe(plain!.cost);
    expect(byFingers!.findings).toEqual(plain!.findings);
  });
  it('a plectrum sweeps a chord in one direction', () => {
    const letters = lettersIn(planOf(chord(0, 4, 40, 47, 52, 56), 90, { school: 'plectrum' }));
    expect(new Set(letters).size).toBe(1);
  });
  it.each(['i', 'm', 'a'] as const)('the chosen finger %s begins', (startFinger) => {
    expect(lettersIn(planOf(line(C_SCALE), 120, { startFinger }))[0]).toBe(startFinger);
  });
  it.each(TREMOLO_IDS)('a tremolo goes in the chosen order %s', (tremolo) => {
    const order: readonly Pluck[] = TREMOLOS[tremolo];
    const notes = [0, 1, 2, 3].flatMap((group): TestNote[] => [
      { midi: 45, onset: group * order.length, length: order.length, voice: 2 },
      ...order
        .slice(1)
        .map((_finger, k) => ({ midi: 64, onset: group * order.length + k + 1, length: 1, voice: 1 })),
    ]);
    const letters = lettersIn(planOf(notes, 240, { tremolo }));
    expect(letters).toEqual([0, 1, 2, 3].flatMap(() => order));
  });
  it('every school plans every texture without an unplucked note', () => {
    for (const school of RIGHT_SCHOOL_IDS)
      for (const notes of [line(C_SCALE), ARPEGGIO, line(TRIAD), chord(0, 4, 40, 47, 52, 56)])
        expect(lettersIn(planOf(notes, 120, { school }))).not.toContain(null);
  });
});

describe('strums', () => {
  const strummed = (mark: string, gap = 4) =>
    planOf(
      [
        ...chord(0, 2, 50, 57, 62, 66).map((note) => ({ ...note, extra: `<notations>${mark}</notations>` })),
        { midi: 64, onset: gap, length: 1, voice: 1 },
        { midi: 59, onset: gap + 1, length: 1, voice: 1 },
      ],
      200,
    );
  it('a brush is one finger over all strings; a roll keeps p i m a', () => {
    expect(new Set(lettersIn(strummed('<technical><down-bow/></technical>')).slice(0, 4)).size).toBe(1);
    expect(lettersIn(strummed('<arpeggiate/>')).slice(0, 4)).toEqual(['p', 'i', 'm', 'a']);
  });
  it('a rasgueado goes out with a m i and back with i, over all strings, in the row and in the script', () => {
    const notes = chord(0, 2, 50, 57, 62, 66);
    const score = scoreOrThrow(barXml(notes, 100));
    const tagged = {
      ...score,
      notes: score.notes.map((note) => ({ ...note, tags: ['rasgueado' as const] })),
    };
    const planner = new Planner(tagged, fretboard, hand);
    const inked = (pluck: Pluck): Ink => new Map([['n1', { finger: null, string: null, pluck }]]);
    for (const [letter, order] of [
      ['a', ['a', 'm', 'i']],
      ['i', ['i']],
    ] as const) {
      const [stroke] = planner.plan(inked(letter)).strokes;
      expect([stroke!.effect, stroke!.order]).toEqual(['rasgueado', order]);
      expect(strokeWords(stroke!).slice(0, 2)).toEqual([`${order.join(' ')} over 4 3 2 1`, 'rasgueado']);
      const [action] = planner.strokeScript(inked(letter));
      expect(action).toMatchObject({ kind: 'strum', letters: order, strings: [4, 3, 2, 1] });
      expect(strokeActionText(action!)).toBe(`${order.join(' ')} over 4 3 2 1`);
    }
  });
  it('a rasgueado goes out on the beat and back beside it', () => {
    const notes = [0, 1, 2, 3].flatMap((onset) => chord(onset, 1, 45, 52, 57, 60, 64));
    const score = scoreOrThrow(barXml(notes, 100));
    const tagged = {
      ...score,
      notes: score.notes.map((note) => ({ ...note, tags: ['rasgueado' as const] })),
    };
    const { strokes } = new Planner(tagged, fretboard, hand).plan(new Map());
    expect(strokes.map(({ order }) => order.join(''))).toEqual(['ami', 'i', 'ami', 'i']);
  });
  it('nothing is planted before a strum that comes between', () => {
    const score = scoreOrThrow(
      barXml(
        [
          { midi: 64, onset: 0, length: 2, voice: 1 },
          ...chord(2, 2, 50, 57, 62, 66),
          { midi: 59, onset: 4, length: 2, voice: 1 },
        ],
        60,
      ),
    );
    const brushed = score.notes.map((note) =>
      note.onsetTicks === score.notes[1]!.onsetTicks ? { ...note, tags: ['brushDown' as const] } : note,
    );
    const script = new Planner({ ...score, notes: brushed }, fretboard, hand).strokeScript(new Map());
    expect(script.filter(({ kind }) => kind !== 'reopen').map(({ kind }) => kind)).toEqual([
      'stroke',
      'strum',
      'stroke',
    ]);
  });
  it('after a brush the fingers must find their strings: at once it costs, later it does not', () => {
    const next = (gap: number) => strummed('<technical><down-bow/></technical>', gap).strokes[1]!.effort;
    expect(next(2)).toBeGreaterThan(next(8));
  });
});

describe('slurs', () => {
  const weak = line([64, 65, 67, 68], 1, { 2: slur('start'), 3: slur('stop') });
  it('those that the music asks for are played where they can be', () => {
    expect(planOf(weak, 120).findings.filter(({ code }) => code === 'slurFault')).toEqual([]);
  });
  it('one over two strings is named, with the way out', () => {
    const planner = plannerOf(line([64, 66, 67], 1, { 0: slur('start'), 1: slur('stop') }), 120);
    const ink = new Map([
      ['n1', { finger: 0, string: 1, pluck: null }],
      ['n2', { finger: 4, string: 2, pluck: null }],
    ]);
    const [finding] = planner.plan(ink).findings.filter(({ code }) => code === 'slurFault');
    expect(finding).toMatchObject({ fault: 'strings', uids: ['n2', 'n1'] });
    expect(finding).toHaveProperty(
      'remedies.0',
      expect.objectContaining({ attribute: 'slur', value: false }),
    );
  });
  it('a proposed one saves what it says, and is not proposed again when it is refused', () => {
    const notes = line([...C_SCALE, ...C_SCALE], 1);
    const planner = plannerOf(notes, 260, { school: 'strict-im' });
    const free = planner.plan(new Map());
    const [best] = planner.slurs(new Map());
    expect(best).toBeDefined();
    const at = free.notes.findIndex(({ uid }) => uid === best!.toUid);
    const taken = planOf(
      notes.map((note, k) =>
        k === at - 1 ? { ...note, extra: slur('start') } : k === at ? { ...note, extra: slur('stop') } : note,
      ),
      260,
      { school: 'strict-im' },
    );
    expect(taken.cost).toBeLessThanOrEqual(free.cost - best!.saves + 15);
    const refusing = new Planner(scoreOrThrow(barXml(notes, 260)), fretboard, hand, 'balanced', {
      style: { ...PLAIN_STYLE, school: 'strict-im' },
      schoolOfBar: () => null,
      refusedSlurs: new Set([best!.toUid]),
    });
    expect(refusing.slurs(new Map()).map(({ toUid }) => toUid)).not.toContain(best!.toUid);
  });
});

describe('ways to play a passage', () => {
  it('strict alternation crosses where the crossing-free school does not, and both are counted', () => {
    const planner = plannerOf(line(TRIAD), 160);
    const ways = planner.ways(new Map(), 0, TRIAD.length - 1);
    const by = (school: string) => ways.find((way) => way.school === school)!.measure;
    expect(ways[0]).toMatchObject({ formula: null, school: null });
    expect(by('strict-im').crossings).toBeGreaterThan(by('crossing-free').crossings);
    expect(by('strict-im').displacementMm).toBeGreaterThan(0);
    expect(by('balanced').strokes).toBe(TRIAD.length);
  });
  it('a formula is dealt to a passage and kept by the plan', () => {
    const planner = plannerOf(ARPEGGIO, 120);
    const formula = FORMULAS.find(({ id }) => id === 'pami')!;
    const ink = planner.withFormula(new Map(), 0, 3, formula);
    expect(lettersIn(planner.plan(ink)).slice(0, 4)).toEqual(['p', 'a', 'm', 'i']);
  });
});

describe('the script of the right hand', () => {
  const scriptOf = (notes: readonly TestNote[], style: Partial<RightStyle> = {}) =>
    plannerOf(notes, 90, style).strokeScript(new Map());
  const up = [0, 4].flatMap((start) =>
    [45, 57, 60, 64].map((midi, k) => ({ midi, onset: start + k, length: 1, voice: k === 0 ? 2 : 1 })),
  );
  const down = [0, 4].flatMap((start) =>
    [45, 64, 60, 57].map((midi, k) => ({ midi, onset: start + k, length: 1, voice: k === 0 ? 2 : 1 })),
  );
  it('plants all fingers at once on the way up, one after the other on the way down', () => {
    const plants = (notes: readonly TestNote[]) =>
      scriptOf(notes)
        .filter(({ kind, momentIndex }) => kind === 'plant' && momentIndex < 4)
        .map(({ letters }) => letters.join(''));
    expect(plants(up)[0]).toBe('ima');
    expect(plants(down).slice(0, 3)).toEqual(['a', 'm', 'i']);
  });
  it('opens only the next finger on the stroke of p, or all together', () => {
    const opened = (reopening: RightStyle['reopening']) =>
      scriptOf(down, { reopening }).find(({ kind, momentIndex }) => kind === 'reopen' && momentIndex === 4)!
        .letters;
    expect(opened('oneByOne')).toEqual(['a']);
    expect([...opened('together')].sort()).toEqual(['a', 'i', 'm']);
  });
});
