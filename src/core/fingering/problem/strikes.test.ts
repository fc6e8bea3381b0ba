/** What stands at the notes, as the planner gets it. */
import { describe, expect, it } from 'vitest';
import { barXml, CLEF_8, documentXml, noteXml, randomNotes } from '../../../../tests/helpers/music';
import { readScore } from '../../formats/musicxml/readScore';
import { CONCERT_FRETBOARD, fretDistanceMm, withCapo } from '../../instrument/fretboard';
import { ADULT_MEDIUM } from '../../instrument/hands';
import { type Corrections, NO_CORRECTIONS } from '../../score/corrections';
import { Planner } from '../planner';
import { LeftPlanner } from '../left/lattice/planLeft';
import { type FingeringProblem, problemOf } from './problem';

const quarter = (midi: number, extra = '') => noteXml({ midi, onset: 0, length: 2, extra });
const grace = (midi: number, slur = '') =>
  `<note><grace/>${noteXml({ midi, onset: 0, length: 1, extra: slur }).replace('<note>', '').replace('<duration>1</duration>', '')}`;
const notations = (inner: string) => `<notations>${inner}</notations>`;

function scoreOf(xml: string, corrections: Corrections = NO_CORRECTIONS) {
  const document = readScore(xml, { corrections });
  if (!document.ok) throw new Error(JSON.stringify(document.error));
  return document.value.score;
}
const problemFrom = (xml: string, corrections?: Corrections) =>
  problemOf(scoreOf(xml, corrections), CONCERT_FRETBOARD, ADULT_MEDIUM);
const planFrom = (xml: string, corrections?: Corrections) =>
  new Planner(scoreOf(xml, corrections), CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map());

describe('grace notes', () => {
  const xml = documentXml([quarter(60) + grace(65) + grace(67) + quarter(64)]);
  it('come before the beat one after the other and shorten what stood there', () => {
    const { strikes, ticksPerQuarter } = problemFrom(xml);
    expect(
      strikes.map((strike) => [
        strike.midi,
        strike.onsetTicks / ticksPerQuarter,
        strike.endTicks / ticksPerQuarter,
      ]),
    ).toEqual([
      [60, 0, 0.75],
      [65, 0.75, 0.875],
      [67, 0.875, 1],
      [64, 1, 2],
    ]);
  });
  it('are fingered, and leave nothing cut', () => {
    const plan = planFrom(xml);
    expect(plan.notes).toHaveLength(4);
    expect(plan.notes.every((note) => note.string !== null)).toBe(true);
    expect(plan.findings).toEqual([]);
  });
  it('slurred to their main note are played by the left hand', () => {
    const slurred = documentXml([
      grace(65, notations('<slur type="start"/>')) + quarter(64, notations('<slur type="stop"/>')),
    ]);
    const { strikes } = problemFrom(slurred);
    expect(strikes[1]!.slurredFrom).toBe(0);
    expect(planFrom(slurred).notes[1]!.pluck).toBeNull();
  });
});

describe('short and long', () => {
  it('staccato frees the hand halfway, unless the note must ring', () => {
    const xml = documentXml([
      quarter(60, notations('<articulations><staccato/></articulations>')) + quarter(62),
    ]);
    expect(problemFrom(xml).strikes[0]!.endTicks).toBe(1);
    const ring = { ...NO_CORRECTIONS, notes: new Map([['n1', { mustRing: true }]]) };
    expect(problemFrom(xml, ring).strikes[0]!).toMatchObject({ endTicks: 2, mustRing: true });
  });

  it('let ring holds to the end of the bar or until the pitch comes again', () => {
    const ringing = notations('<tied type="let-ring"/>');
    const xml = documentXml([quarter(48, ringing) + quarter(64) + quarter(67, ringing) + quarter(67)]);
    const { strikes } = problemFrom(xml);
    expect(strikes.map((strike) => strike.endTicks)).toEqual([8, 4, 6, 8]);
  });

  it('a note that must ring is kept wherever a hand can keep it', () => {
    let [cut, kept] = [0, 0];
    for (let seed = 1; seed <= 240; seed++) {
      const xml = barXml(randomNotes(seed, 8), 120);
      const lost = (corrections?: Corrections) =>
        planFrom(xml, corrections).findings.flatMap((finding) =>
          finding.code === 'cut' ? finding.uids : [],
        );
      const uid = lost()[0];
      if (!uid) continue;
      cut++;
      const ringing: Corrections = { ...NO_CORRECTIONS, notes: new Map([[uid, { mustRing: true }]]) };
      if (!lost(ringing).includes(uid)) kept++;
      else expect(canBeHeld(problemFrom(xml, ringing), uid), `seed ${seed}`).toBe(false);
    }
    expect(cut).toBeGreaterThan(5);
    expect(kept).toBeGreaterThan(0);
  });
});

/** Whether a hand has a way through the piece on which the note lies as long as it is written. */
function canBeHeld(problem: FingeringProblem, uid: string): boolean {
  const strike = problem.strikes.find(({ uids }) => uids.includes(uid))!;
  return new LeftPlanner(problem).layers.every((layer, k) => {
    const { tick } = problem.moments[k]!;
    const sounds = tick >= strike.onsetTicks && tick < strike.writtenEndTicks;
    return !sounds || layer.states.some(({ strikes }) => strikes.includes(strike.index));
  });
}

describe('harmonics', () => {
  const harmonic = (midi: number) =>
    quarter(midi, notations('<technical><harmonic><natural/></harmonic></technical>'));
  it('lie where they can be touched and ring on like open strings', () => {
    const plan = planFrom(documentXml([harmonic(76) + quarter(48) + quarter(50)]));
    const first = plan.notes.find((note) => note.uid === 'n1')!;
    expect([12, 7, 5]).toContain(first.fret);
    expect(first.soundsUntilTicks).toBeGreaterThanOrEqual(6);
    expect(plan.findings).toEqual([]);
  });
});

describe('a capo', () => {
  it('leaves the frets as written and makes them narrower', () => {
    const board = withCapo(CONCERT_FRETBOARD, 2);
    const above = fretDistanceMm(4, 650) - fretDistanceMm(2, 650);
    expect(fretDistanceMm(2, board.scaleLengthMm)).toBeCloseTo(above, 6);
    expect(board.frets).toBe(17);
    expect(() => withCapo(CONCERT_FRETBOARD, 13)).toThrow(RangeError);
  });
  it('does not move the notes of a plan in first position', () => {
    const xml = documentXml([[60, 62, 64, 65].map((midi) => quarter(midi)).join('')], CLEF_8);
    const places = (corrections?: Corrections) =>
      planFrom(xml, corrections).notes.map((note) => [note.string, note.fret]);
    expect(places({ ...NO_CORRECTIONS, piece: { capo: 2 } })).toEqual(places());
  });
});
