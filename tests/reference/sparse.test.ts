/**
 * The fewest marks: what a student reads from them by the stated rule is the plan, and no smaller set would do. The
 * second is checked against every subset of signs of small pieces (an oracle that shares only the reader with the search).
 */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { Planner } from '../../src/core/fingering/planner';
import type { FingeringPlan, PlannedNote } from '../../src/core/fingering/report/plan';
import type { Role } from '../../src/core/fingering/problem/strike';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import { openMidi, STRINGS, tuningOrThrow } from '../../src/core/instrument/tuning';
import { inkedMarks, isShown, type PlainMarks, plainMarks } from '../../src/core/marks/marksOf';
import { showing, shownMarks, sparseSigns } from '../../src/core/marks/shown';
import { decode } from '../../src/core/marks/sparse/decode';
import { NOTHING_FORCED } from '../../src/core/marks/sparse/fewest';
import type { Signs } from '../../src/core/marks/sparse/signs';
import type { Pluck, Score } from '../../src/core/score/model';
import { barXml, documentXml, noteXml, randomFrom, randomNotes, scoreOrThrow } from '../helpers/music';

interface Planned {
  readonly score: Score;
  readonly plan: FingeringPlan;
  readonly roles: ReadonlyMap<string, Role>;
}

function planned(xml: string): Planned {
  const score = scoreOrThrow(xml);
  const planner = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
  const roles = new Map(
    planner.problem.strikes.flatMap((strike) => strike.uids.map((uid) => [uid, strike.role] as const)),
  );
  return { score, plan: planner.plan(new Map()), roles };
}

const plainOf = ({ score, plan, roles }: Planned): PlainMarks => plainMarks(score, plan, roles);

const sparseOf = (plain: PlainMarks) => sparseSigns(plain, plain.sourceFor(new Map()), () => NOTHING_FORCED);

/** Notes that are read otherwise than they were planned. */
function misread(plain: PlainMarks, signs: Signs): readonly string[] {
  const { notes } = plain.plan;
  const silent = new Set(notes.filter(({ string }) => string === null).map(({ uid }) => uid));
  const { places, letters } = decode(plain.written, signs, silent);
  return notes
    .filter(({ uid, string, fret, finger, pluck }) => {
      if (string === null) return false;
      const place = places.get(uid);
      return (
        place?.string !== string ||
        place.fret !== fret ||
        place.finger !== finger ||
        (pluck !== null && letters.get(uid) !== pluck)
      );
    })
    .map(({ uid }) => uid);
}

describe('the fewest marks', () => {
  it('give back the whole fingering of 300 random pieces', () => {
    for (let seed = 1; seed <= 300; seed++) {
      const plain = plainOf(planned(barXml(randomNotes(seed, 5))));
      expect({ seed, misread: misread(plain, sparseOf(plain).signs) }).toEqual({ seed, misread: [] });
    }
  });

  it('are those that are printed, and are counted so', () => {
    for (const seed of [3, 14, 15, 92, 65]) {
      const plain = plainOf(planned(barXml(randomNotes(seed, 8))));
      const printed = shownMarks(plain, new Map(), showing('sparse'));
      const questions = printed.filter(({ kind }) => kind === 'unplanned').length;
      expect(printed.length - questions).toBe(sparseOf(plain).count);
    }
  });

  it('are what a guitarist would leave: nothing in first position', () => {
    const inFirst = [48, 50, 52, 53].map((midi, onset) => ({ midi, onset, length: 1 }));
    const plain = plainOf(planned(barXml(inFirst, 100)));
    expect(shownMarks(plain, new Map(), showing('sparse')).filter(({ kind }) => kind === 'finger')).toEqual(
      [],
    );
  });
});

/** Any fingering that the strings can give, sensible or not: harder to write down than a plan. */
function refingered({ plan, score, roles }: Planned, random: () => number): Planned {
  const tuning = tuningOrThrow(score.tuningId);
  const midiOf = new Map(score.notes.map(({ uid, soundingMidi }) => [uid, soundingMidi]));
  const pick = <T>(from: readonly T[]) => from[Math.floor(random() * from.length)]!;
  const taken = new Map<number, Set<number>>();
  const notes = plan.notes.map((note): PlannedNote => {
    if (note.string === null) return note;
    const busy = taken.get(note.momentIndex) ?? new Set();
    taken.set(note.momentIndex, busy);
    const strings = STRINGS.filter((string) => {
      const fret = midiOf.get(note.uid)! - openMidi(tuning, string);
      return fret >= 0 && fret <= 14 && !busy.has(string);
    });
    if (strings.length === 0) return { ...note, string: null, fret: null, finger: null };
    const string = pick(strings);
    busy.add(string);
    const fret = midiOf.get(note.uid)! - openMidi(tuning, string);
    const pluck: Pluck | null = note.pluck && pick(['p', 'i', 'm', 'a'] as const);
    return { ...note, string, fret, finger: fret === 0 ? 0 : 1 + Math.floor(random() * 4), pluck };
  });
  return { score, roles, plan: { ...plan, notes, barres: [] } };
}

/** The least number of left-hand signs of all subsets that give the plan back. Source: the definition. */
function leastOfAll(plain: PlainMarks): number {
  const { notes } = plain.plan;
  const placed = notes.filter(({ string }) => string !== null);
  const numerals = plain.marks
    .filter(({ kind }) => kind === 'position')
    .flatMap(({ uid, causes }) =>
      causes.flatMap((cause) => (cause.code === 'shift' ? [[uid, cause.position] as const] : [])),
    );
  const letters = new Map(notes.flatMap(({ uid, pluck }) => (pluck ? [[uid, pluck] as const] : [])));
  const bits = 2 * placed.length + numerals.length;
  let least = Infinity;
  for (let set = 0; set < 1 << bits; set++) {
    const has = (k: number) => ((set >> k) & 1) === 1;
    const fingers = new Map(
      placed.flatMap(({ uid, finger }, k) => (has(2 * k) ? [[uid, finger!] as const] : [])),
    );
    const strings = new Map(
      placed.flatMap(({ uid, string }, k) => (has(2 * k + 1) ? [[uid, string!] as const] : [])),
    );
    const positions = new Map(numerals.filter((_, k) => has(2 * placed.length + k)));
    const signs = fingers.size + linesOf(plain, strings) + positions.size;
    if (signs >= least) continue;
    if (misread(plain, { fingers, strings, positions, letters, touches: new Map(), barres: [] }).length === 0)
      least = signs;
  }
  return least;
}

/** Circles that these strings are printed with: one for notes of a voice that follow each other on one string. */
function linesOf({ plan, written }: PlainMarks, strings: ReadonlyMap<string, number>): number {
  const voiceOf = new Map(written.moments.flat().map(({ uid, voice }) => [uid, voice]));
  const last = new Map<string, number | undefined>();
  return plan.notes.filter(({ uid, string }) => {
    if (string === null) return false;
    const voice = voiceOf.get(uid)!;
    const begins = strings.has(uid) && last.get(voice) !== string;
    last.set(voice, strings.get(uid));
    return begins;
  }).length;
}

describe('no smaller set', () => {
  it('of signs of the left hand gives back any of 60 fingerings', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = randomFrom(seed);
      const notes = randomNotes(1000 + seed, 3).slice(0, 5);
      const plain = plainOf(refingered(planned(barXml(notes)), random));
      const { signs, count } = sparseOf(plain);
      expect({ seed, misread: misread(plain, signs) }).toEqual({ seed, misread: [] });
      expect({ seed, signs: count - signs.letters.size }).toEqual({ seed, signs: leastOfAll(plain) });
    }
  });

  it('of letters does: without any of them something else is played', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const plain = plainOf(refingered(planned(barXml(randomNotes(seed, 6))), randomFrom(seed)));
      const { signs } = sparseOf(plain);
      for (const uid of signs.letters.keys()) {
        const letters = new Map([...signs.letters].filter(([own]) => own !== uid));
        expect(misread(plain, { ...signs, letters })).toContain(uid);
      }
    }
  });
});

describe('a density of its own', () => {
  const bar = [48, 64, 67, 72, 67, 64, 67, 72]
    .map((midi, onset) => noteXml({ midi, onset, length: 1 }))
    .join('');
  const piece = planned(documentXml([bar, bar, bar, bar]));
  const plain = plainOf(piece);
  const barOf = new Map(piece.score.notes.map(({ uid, measureIndex }) => [uid, measureIndex]));
  const inBar = (marks: readonly { readonly uid: string }[], k: number) =>
    marks.filter(({ uid }) => barOf.get(uid) === k).length;

  it('holds for its bars alone, and a kept note stays', () => {
    const second = piece.score.measures[1]!.uid;
    const sparse = shownMarks(plain, new Map(), showing('sparse'));
    const mixed = shownMarks(plain, new Map(), {
      ...showing('sparse'),
      densityOfBar: new Map([[second, 'full']]),
    });
    const full = inkedMarks(plain, new Map());
    expect(inBar(mixed, 1)).toBe(inBar(full, 1));
    expect(inBar(sparse, 2)).toBe(0);
    expect(inBar(mixed, 2)).toBe(0);
    const uid = piece.score.notes.find(({ measureIndex }) => measureIndex === 3)!.uid;
    const kept = shownMarks(plain, new Map(), { ...showing('sparse'), kept: new Set([uid]) });
    expect(kept.filter((mark) => mark.uid === uid).map(({ kind }) => kind)).toEqual(['finger', 'pluck']);
    const teaching = shownMarks(plain, new Map(), { ...showing('teaching'), kept: new Set([uid]) });
    expect(teaching.length).toBeGreaterThan(full.filter((mark) => isShown(mark, 'teaching')).length);
  });
});

describe('demo pieces', () => {
  const folder = new URL('../../demo/', import.meta.url);
  it.each(readdirSync(folder))('%s is read back whole from at most a third of its marks', (name) => {
    const plain = plainOf(planned(readFileSync(new URL(name, folder), 'utf8')));
    const { signs, count } = sparseOf(plain);
    expect(misread(plain, signs)).toEqual([]);
    expect(count).toBeLessThan(inkedMarks(plain, new Map()).length / 3);
  });
});
