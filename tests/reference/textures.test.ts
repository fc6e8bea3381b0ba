/**
 * What the right hand does in each texture (handbook 13, common practice), on invented music in three keys and at three
 * tempi: what no teacher would write does not come.
 */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { TEXTURED } from '../helpers/textures/corpus';
import type { Texture } from '../../src/core/figures/texture';
import { isFigure as isFigureTexture } from '../../src/core/fingering/problem/pace';
import type { FingeringPlan } from '../../src/core/fingering/report/plan';
import { NO_WISHES, Planner } from '../../src/core/fingering/planner';
import { RightPlanner } from '../../src/core/fingering/right/lattice/planRight';
import { type RightSchoolId, RIGHT_SCHOOL_IDS } from '../../src/core/fingering/right/rules/schools';
import { plainSetting } from '../../src/core/fingering/right/rules/setting';
import { placedOn } from '../../src/core/fingering/right/rules/strokes';
import { PLAIN_STYLE } from '../../src/core/fingering/right/rules/style';
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import { DEFAULT_PLAYER } from '../../src/core/instrument/hands';
import { strokeReasonText } from '../../src/core/messages/strokes';
import { barXml, problemFrom, scoreOrThrow, type TestNote } from '../helpers/music';

const { hand, fretboard } = DEFAULT_PLAYER;
const plannerOf = (
  notes: readonly TestNote[],
  tempo: number,
  school: RightSchoolId = 'balanced',
  textureOf?: (uid: string) => Texture | null,
) =>
  new Planner(scoreOrThrow(barXml(notes, tempo)), fretboard, hand, 'balanced', {
    ...NO_WISHES,
    style: { ...PLAIN_STYLE, school },
    ...(textureOf ? { textureOf } : {}),
  });
const planOf = (...args: Parameters<typeof plannerOf>) => plannerOf(...args).plan(new Map());

/** The letters of one voice, or of all; chords from the lowest string up. */
const lettersOf = ({ notes }: FingeringPlan, voices: readonly number[] = []) =>
  notes.filter((_note, k) => voices.length === 0 || voices.includes(k)).map(({ pluck }) => pluck);

const row = (midis: readonly number[], voice = 1, each = 1, at = 0): TestNote[] =>
  midis.map((midi, k) => ({ midi, onset: at + k * each, length: each, voice }));
const up = (notes: readonly TestNote[], semitones: number): TestNote[] =>
  notes.map((note) => ({ ...note, midi: note.midi + semitones }));

/** Three keys at three tempi. */
const CASES = [0, 1, 3].flatMap((semitones) => [0.75, 1, 1.4].map((pace) => [semitones, pace] as const));

describe.each(CASES)('%i semitones up, at %f of the tempo', (semitones, pace) => {
  const plan = (notes: readonly TestNote[], tempo: number) => planOf(up(notes, semitones), tempo * pace);

  it('a melody in eighths is i m, not m a', () => {
    const tune = [64, 65, 67, 65, 64, 62, 64, 65, 67, 69, 67, 65, 64, 62, 60, 62];
    const letters = lettersOf(plan(row(tune), 120));
    letters.forEach((letter, k) => {
      expect(['i', 'm']).toContain(letter);
      expect(letter).not.toBe(letters[k + 1]);
    });
  });
  it('a chromatic scale on one string is i m', () => {
    const letters = lettersOf(plan(row([64, 65, 66, 67, 68, 69, 70, 71, 72]), 170));
    expect(letters.join('')).toMatch(/^(im)+i?$|^(mi)+m?$/);
  });
  it('quick p i m a m i stays what it is, to its last stroke', () => {
    const chords = [
      [45, 57, 60, 64],
      [50, 57, 62, 65],
      [43, 55, 59, 67],
      [45, 57, 60, 64],
    ];
    const roll = chords.flatMap((chord, n) =>
      [0, 1, 2, 3, 2, 1].map((which, k) => ({
        midi: chord[which]!,
        onset: n * 6 + k,
        length: which === 0 ? 6 : 1,
        voice: which === 0 ? 2 : 1,
      })),
    );
    expect(lettersOf(plan(roll, 260)).join('')).toBe('pimami'.repeat(4));
  });
  it('tremolo is p a m i', () => {
    const notes = [45, 52, 57, 52].flatMap((bass, n) => [
      { midi: bass, onset: 4 * n, length: 4, voice: 2 },
      ...row([64, 64, 64], 1, 1, 4 * n + 1),
    ]);
    expect(lettersOf(plan(notes, 220)).join('')).toBe('pami'.repeat(4));
  });
  it('chords of four are p i m a', () => {
    const chords = [
      [48, 55, 60, 64],
      [50, 57, 62, 66],
      [45, 57, 60, 64],
    ];
    const notes = chords.flatMap((chord, n) =>
      chord.map((midi, k) => ({ midi, onset: 2 * n, length: 2, voice: k === 0 ? 2 : 1 })),
    );
    expect(lettersOf(plan(notes, 80)).join('')).toBe('pima'.repeat(3));
  });
  it('a scale carries no p in its middle', () => {
    const scale = [48, 50, 52, 53, 55, 57, 59, 60, 62, 64, 65, 67];
    const letters = lettersOf(plan(row([...scale, ...[...scale].reverse().slice(1)]), 180));
    expect(letters.slice(1, -1)).not.toContain('p');
    letters.slice(1, -2).forEach((letter, k) => expect(letter).not.toBe(letters[k + 2]));
  });
  it('afterbeats that are written stem-down belong to i m', () => {
    const bars = [
      [45, 57, 60],
      [50, 57, 62],
      [40, 56, 62],
      [45, 57, 60],
    ];
    const notes = bars.flatMap(([bass, ...chord], n) => [
      { midi: bass!, onset: 4 * n, length: 2, voice: 2 },
      ...chord.map((midi) => ({ midi, onset: 4 * n + 2, length: 2, voice: 2 })),
      { midi: 65 + 2 * (n % 2), onset: 4 * n, length: 4, voice: 1 },
    ]);
    const { strokes } = plan(notes, 120);
    for (const { letters } of strokes.filter(({ ticks }) => ticks > 0))
      expect(letters.filter((letter) => letter === 'p').length).toBeLessThanOrEqual(1);
    const after = strokes.filter((_stroke, k) => k % 2 === 1);
    for (const { letters } of after) expect(letters.join('')).toBe('im');
  });
});

describe('handbook 13, texture by texture (common practice)', () => {
  it('arpeggios over six strings rise with p p p i m a and come down a m i p p', () => {
    const wave = row([40, 47, 52, 55, 59, 64, 59, 55, 52, 47, 40, 47, 52, 55, 59, 64, 59, 55, 52, 47]);
    expect(lettersOf(planOf(wave, 160)).join('')).toBe('pppimamippppp'.slice(0, 10) + 'pppimamipp');
  });
  it('a slow tune on the bass strings is the thumb’s, a run there i m', () => {
    const tune = [52, 50, 48, 47, 45, 47, 48, 50];
    expect(new Set(lettersOf(planOf(row(tune), 30)))).toEqual(new Set(['p']));
    expect(lettersOf(planOf(row(tune), 230)).slice(1, -1)).not.toContain('p');
  });
  it('the pedal keeps a finger, the moving voice is p on any string below it', () => {
    const moving = [57, 56, 57, 59, 57, 56, 53, 52];
    const notes = moving.flatMap((midi, k) => [
      { midi, onset: 2 * k, length: 1, voice: 2 },
      { midi: 64, onset: 2 * k + 1, length: 1, voice: 1 },
    ]);
    const letters = lettersOf(planOf(notes, 150));
    expect(letters.filter((_letter, k) => k % 2 === 0)).toEqual(moving.map(() => 'p'));
    expect(new Set(letters.filter((_letter, k) => k % 2 === 1)).size).toBe(1);
  });
  it('the finger that begins a line pays for its crossings', () => {
    // Two notes a string: going down begin with i, going up with m.
    const down = [67, 64, 62, 59, 57, 55, 52, 50];
    const strings = [1, 1, 2, 2, 3, 3, 4, 4];
    const inkOf = (row: readonly number[]) =>
      new Map(row.map((string, k) => [`n${k + 1}`, { finger: null, string, pluck: null }]));
    const first = (midis: readonly number[], on: readonly number[]) =>
      lettersOf(plannerOf(row(midis), 250, 'balanced', () => 'line').plan(inkOf(on)))[0];
    expect(first(down, strings)).toBe('i');
    expect(first([...down].reverse(), [...strings].reverse())).toBe('m');
  });
});

describe('from free playing to stations', () => {
  it('a finger that has opened a slow tune is not asked for another string at once', () => {
    const xml = readFileSync(new URL('../../demo/slow-window.musicxml', import.meta.url), 'utf8');
    const planner = new Planner(scoreOrThrow(xml), fretboard, hand);
    const { notes } = planner.plan(new Map());
    const first = notes.filter(
      ({ momentIndex, pluck }) => momentIndex < 8 && pluck !== null && pluck !== 'p',
    );
    let compared = 0;
    for (const note of first) {
      const next = first.filter(({ momentIndex }) => momentIndex === note.momentIndex + 1);
      for (const other of next) {
        compared++;
        expect(other.pluck === note.pluck && other.string !== note.string).toBe(false);
      }
    }
    expect(compared).toBeGreaterThan(2);
  });
});

describe('tempo', () => {
  /** Times at which the handbook's rules begin to count. */
  const THRESHOLDS = [180, 220, 240, 250, 350, 400, 600];
  /** Those of a line's strings and fingers: the colour of open strings, and between the paces that the hand knows. */
  const OF_LINES = [177, 250, 350, 354, 707];
  const crosses = (gapMs: number, factor: number, thresholds: readonly number[] = THRESHOLDS) =>
    thresholds.some((at) => gapMs < at !== gapMs / factor < at);

  it.each([0.6, 0.8, 1.25, 1.6])(
    'letters on the same strings are the same at %f of it, but for thresholds',
    (factor) => {
      let compared = 0;
      for (const { notes, tempo, name } of TEXTURED) {
        const problem = problemFrom(barXml(notes, tempo));
        const gaps = problem.moments.slice(1).map(({ timeMs }, k) => timeMs - problem.moments[k]!.timeMs);
        if (gaps.some((gap) => crosses(gap, factor))) continue;
        const { states } = new LeftPlanner(problem).plan(new Map());
        const at = (pace: number) => {
          const own = problemFrom(barXml(notes, tempo * pace));
          return new RightPlanner(own, plainSetting(own)).plan(placedOn(own, states), new Map()).plucks;
        };
        expect(at(factor), name).toEqual(at(1));
        compared++;
      }
      expect(compared).toBeGreaterThan(10);
    },
  );
  it.each([0.6, 0.8, 1.25, 1.6])(
    'strings and fingers of the left hand are the same at %f of it, but for thresholds of lines',
    (factor) => {
      const at = (notes: readonly TestNote[], tempo: number) => {
        const problem = problemFrom(barXml(notes, tempo));
        const { figures } = problem.reading;
        return { problem, figures, read: figures.map(({ texture, fromMoment }) => [texture, fromMoment]) };
      };
      const placed = ({ problem }: ReturnType<typeof at>) =>
        new LeftPlanner(problem).plan(new Map()).placements;
      let [figures, lines] = [0, 0];
      for (const { notes, tempo, name } of TEXTURED) {
        const [usual, other] = [at(notes, tempo), at(notes, tempo * factor)];
        // A line that has become a slow melody, or a pedal that has become a tremolo, is another texture.
        if (JSON.stringify(usual.read) !== JSON.stringify(other.read)) continue;
        const isFigure = usual.figures.every(({ texture }) => isFigureTexture(texture));
        const { moments } = usual.problem;
        const gaps = moments.slice(1).map(({ timeMs }, k) => timeMs - moments[k]!.timeMs);
        if (!isFigure && gaps.some((gap) => crosses(gap, factor, OF_LINES))) continue;
        expect(placed(other), name).toEqual(placed(usual));
        if (isFigure) figures++;
        else lines++;
      }
      expect(figures).toBeGreaterThan(15);
      expect(lines).toBeGreaterThan(0);
    },
  );
  it('no string is paid for a taste of the right hand: both hands together lie where the left one would', () => {
    /** A taste decides between strings that are nearly the same to the left hand; in tenths of a point. */
    const [FAULT, NEARLY_SAME] = [20, 15];
    let [asWished, moved] = [0, 0];
    for (const { notes, tempo, name } of TEXTURED) {
      const planner = plannerOf(notes, tempo);
      const { problem, setting } = planner;
      const alone = new LeftPlanner(problem).plan(new Map());
      const both = planner.plan(new Map());
      const strings = problem.strikes.map(
        ({ uids }) => both.notes.find(({ uid }) => uid === uids[0])!.string,
      );
      if (strings.every((string, k) => string === alone.placements[k]!.string)) {
        asWished++;
        continue;
      }
      moved++;
      const forced = new RightPlanner(problem, setting).plan(placedOn(problem, alone.states), new Map());
      const avoided = forced.cost - both.rightCost;
      if (both.leftCost - alone.cost > NEARLY_SAME) expect(avoided, name).toBeGreaterThanOrEqual(FAULT);
    }
    expect(asWished).toBeGreaterThan(10 * moved);
  });
  it('and with both hands, but where the right one begins to mind a finger twice on one string', () => {
    const placesOf = ({ notes }: FingeringPlan) =>
      notes.map(({ string, fret, finger }) => [string, fret, finger]);
    let compared = 0;
    for (const { notes, tempo, name } of TEXTURED) {
      const { moments, reading } = problemFrom(barXml(notes, tempo));
      if (!reading.figures.every(({ texture }) => isFigureTexture(texture))) continue;
      const gaps = moments.slice(1).map(({ timeMs }, k) => timeMs - moments[k]!.timeMs);
      for (const factor of [0.6, 1.6]) {
        if (gaps.some((gap) => crosses(gap, factor, [180, 250]))) continue;
        expect(placesOf(planOf(notes, tempo * factor)), name).toEqual(placesOf(planOf(notes, tempo)));
        compared++;
      }
    }
    expect(compared).toBeGreaterThan(10);
  });
  it('a broken chord has the same letters at every tempo, thresholds or not', () => {
    let compared = 0;
    for (const { notes, tempo, name } of TEXTURED.filter((one) =>
      one.notes.every(({ texture }) => texture === 'brokenChord'),
    )) {
      const problem = problemFrom(barXml(notes, tempo));
      const { states } = new LeftPlanner(problem).plan(new Map());
      // A finger twice on one string with nothing between is another matter: below 250 ms it costs.
      const placed = placedOn(problem, states);
      if (
        placed.some(
          ([one], k) => placed[k]!.length === 1 && one!.place.string === placed[k - 1]?.[0]?.place.string,
        )
      )
        continue;
      const at = (pace: number) => {
        const own = problemFrom(barXml(notes, tempo * pace));
        return new RightPlanner(own, plainSetting(own)).plan(placed, new Map()).plucks;
      };
      compared++;
      for (const pace of [0.6, 1.3, 1.6]) expect(at(pace), name).toEqual(at(1));
    }
    expect(compared).toBeGreaterThan(8);
  });
});

describe('borders between textures', () => {
  it.each(TEXTURED.filter(({ name }) => name.includes('then')).map((one) => [one.name, one] as const))(
    'moved by one moment they change no plan wildly: %s',
    (_name, { notes, tempo }) => {
      const usual = planOf(notes, tempo);
      const upper = usual.figures.filter(({ voice, rule }) => voice === '1' && rule !== 'withUpper');
      upper.slice(1).forEach((figure, k) => {
        const [last, first] = [upper[k]!, figure];
        const word = (uid: string) => (uid === first.uids[0] ? last.texture : null);
        const moved = planOf(notes, tempo, 'balanced', word);
        // One move of the hand, one change of mode and back.
        expect(Math.abs(moved.rightCost - usual.rightCost)).toBeLessThanOrEqual(60);
      });
    },
  );
});

describe('schools stay themselves', () => {
  const scale = row([60, 62, 64, 65, 67, 69, 71, 72, 71, 69, 67, 65, 64, 62, 60]);
  const roll = [0, 6].flatMap((at) =>
    [45, 57, 60, 64, 60, 57].map((midi, k) => ({ midi, onset: at + k, length: 1, voice: k === 0 ? 2 : 1 })),
  );
  const tremolo = [45, 52, 57, 52].flatMap((bass, n) => [
    { midi: bass, onset: 4 * n, length: 4, voice: 2 },
    ...row([64, 64, 64], 1, 1, 4 * n + 1),
  ]);
  it('stations: each string its finger in a line, too', () => {
    const stations: Readonly<Record<number, string>> = { 1: 'a', 2: 'm', 3: 'i' };
    for (const { letters, strings } of planOf(scale, 140, 'stations').strokes)
      letters.forEach((letter, k) => expect(letter).toBe(stations[strings[k]!] ?? 'p'));
  });
  it.each(['strict-im', 'strict-ma', 'strict-ia'] as const)(
    '%s takes turns in a broken chord and a tremolo',
    (school) => {
      for (const notes of [roll, tremolo]) {
        const fingers = lettersOf(planOf(notes, 200, school)).filter((letter) => letter !== 'p');
        for (const letter of fingers) expect(school.slice(-2)).toContain(letter);
        expect(new Set(fingers).size).toBe(2);
      }
    },
  );
  it('three fingers go round in a line and play a tremolo as a cycle', () => {
    expect('amiamiamiamiamiamiami').toContain(lettersOf(planOf(scale, 140, 'three-finger')).join(''));
    expect(lettersOf(planOf(tremolo, 220, 'three-finger')).join('')).toBe('pami'.repeat(4));
  });
  it('a tremolo is a cycle in every school but the strict ones and the plectrum', () => {
    for (const school of RIGHT_SCHOOL_IDS.filter(
      (id) => !id.startsWith('strict') && !id.startsWith('plectrum'),
    ))
      expect(lettersOf(planOf(tremolo, 220, school)).join(''), school).toBe('pami'.repeat(4));
  });
  it('a plectrum goes strictly down and up, or sweeps where the string changes', () => {
    const strings = [4, 3, 2, 1, 2, 3, 4, 3];
    const ink = new Map(strings.map((string, k) => [`n${k + 1}`, { finger: null, string, pluck: null }]));
    const notes = row([50, 55, 59, 64, 59, 55, 50, 55]);
    const strict = lettersOf(plannerOf(notes, 100, 'plectrum-strict').plan(ink));
    expect(strict).toEqual(strings.map((_string, k) => (k % 2 === 0 ? 'down' : 'up')));
    const sweeping = lettersOf(plannerOf(notes, 100, 'plectrum').plan(ink));
    expect(sweeping).not.toEqual(strict);
    expect(sweeping.slice(0, 3)).toEqual(['down', 'down', 'down']);
  });
});

describe('strings do not pay for letters’ tastes', () => {
  it('the strings are those of the left hand alone, in every texture', () => {
    let moved = 0;
    for (const { notes, tempo } of TEXTURED) {
      const planner = plannerOf(notes, tempo);
      const { placements } = new LeftPlanner(planner.problem).plan(new Map());
      const other = planner
        .plan(new Map())
        .notes.filter(({ strike, string }) => placements[strike]?.string !== string);
      if (other.length > 0) moved++;
    }
    // A fault may be avoided by another string; a taste never is.
    expect(moved).toBeLessThanOrEqual(TEXTURED.length * 0.05);
  });
});

describe('words', () => {
  it('name the texture and the formula of the best letter', () => {
    const place = () => ({ bar: '1', beat: '1' });
    const wordsOf = (notes: readonly TestNote[], tempo: number, uid: string) => {
      const planner = plannerOf(notes, tempo);
      planner.plan(new Map());
      return planner
        .choices(new Map(), uid)!
        .right[0]!.words.map((one) => strokeReasonText(one, place as never));
    };
    expect(wordsOf(row([64, 65, 67, 65, 64, 62, 64, 65]), 140, 'n3')).toEqual(['i m: a line']);
    const roll = [0, 6].flatMap((at) =>
      [45, 57, 60, 64, 60, 57].map((midi, k) => ({ midi, onset: at + k, length: 1, voice: k === 0 ? 2 : 1 })),
    );
    expect(wordsOf(roll, 140, 'n3')).toEqual(['p i m a m i: a broken chord']);
  });
});

describe('after a strum the landing is planned', () => {
  const strummed = (mark: string, gap: number, tempo = 200) =>
    planOf(
      [
        ...[50, 57, 62, 66].map((midi) => ({
          midi,
          onset: 0,
          length: 2,
          voice: 1,
          extra: `<notations>${mark}</notations>`,
        })),
        { midi: 64, onset: gap, length: 1, voice: 1 },
        { midi: 59, onset: gap + 1, length: 1, voice: 1 },
      ],
      tempo,
    );
  it('the fingers of the next notes land together, with the time there and the time needed', () => {
    const [landing] = strummed('<technical><down-bow/></technical>', 4).landings;
    expect(landing!.fingers.map(({ string }) => string).sort()).toEqual([1, 2]);
    expect(landing!.neededMs).toBe(260);
    expect(landing!.thereMs).toBe(600 - 36);
  });
  it('a spare finger is named as reference only where it silences nothing', () => {
    const [landing] = strummed('<technical><down-bow/></technical>', 4).landings;
    expect(landing!.reference).not.toBeNull();
    expect(landing!.fingers.map(({ string }) => string)).not.toContain(landing!.reference!.string);
    // Every string still sounds when the hand comes down at once.
    const ringing = strummed('<technical><down-bow/></technical>', 1).landings[0];
    expect(ringing!.reference === null || ringing!.reference.string > 4).toBe(true);
  });
  it('what comes too soon is a finding', () => {
    const findings = strummed('<technical><down-bow/></technical>', 2, 260).findings;
    expect(findings.map(({ code }) => code)).toContain('landingTooFast');
    expect(strummed('<technical><down-bow/></technical>', 6).findings.map(({ code }) => code)).not.toContain(
      'landingTooFast',
    );
  });
  it('a roll asks for less time than a brush', () => {
    expect(strummed('<arpeggiate/>', 4).landings[0]!.neededMs).toBeLessThan(
      strummed('<technical><down-bow/></technical>', 4).landings[0]!.neededMs,
    );
  });
});
