/** Marks of small pieces: what is printed at each density, why, and in which form. */
import { describe, expect, it } from 'vitest';
import { Planner } from '../fingering/planner';
import { type Ink, NO_INK } from '../fingering/problem/ink';
import { CONCERT_FRETBOARD } from '../instrument/fretboard';
import { ADULT_MEDIUM } from '../instrument/hands';
import { causeText, markText } from '../messages/marks';
import { barreLabel } from './barreLabel';
import { inkedMarks, isShown, marksOf, plainMarks } from './marksOf';
import { type MarkStyle, PLAIN_MARKS } from './style';
import { barXml, documentXml, noteXml, scoreOrThrow } from '../../../tests/helpers/music';

function marked(xml: string, ink: Ink = new Map(), style: MarkStyle = PLAIN_MARKS) {
  const score = scoreOrThrow(xml);
  const planner = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
  const plan = planner.plan(ink);
  const roles = new Map(
    planner.problem.strikes.flatMap((strike) => strike.uids.map((uid) => [uid, strike.role] as const)),
  );
  return { plan, marks: marksOf(score, plan, roles, { ink, style }) };
}

/** A scale that has to leave first position, there and back again. */
const SCALE = barXml(
  [64, 65, 67, 69, 71, 72, 71, 69].map((midi, onset) => ({ midi, onset, length: 1 })),
  100,
);

describe('teaching marks', () => {
  const { plan, marks } = marked(SCALE);
  const shown = marks.filter((mark) => isShown(mark, 'teaching'));

  it('are fewer than all, each with a cause that can be said', () => {
    expect(shown.length).toBeLessThan(marks.length);
    for (const mark of shown)
      for (const cause of mark.causes) expect(causeText(cause, mark.kind)).toMatch(/^[a-z]/);
    for (const mark of marks) expect(markText(mark)).not.toBe('');
  });

  it('print every shift, with its finger', () => {
    expect(plan.shifts.length).toBeGreaterThan(0);
    for (const { toUid } of plan.shifts)
      expect(shown.find(({ kind, uid }) => kind === 'finger' && uid === toUid)?.causes).toContainEqual(
        expect.objectContaining({ code: 'shift' }),
      );
    expect(shown.some(({ kind }) => kind === 'position')).toBe(true);
  });
});

describe('ink', () => {
  const { plan } = marked(SCALE);
  const score = scoreOrThrow(SCALE);

  it('is shown before the plan knows of it, and changes no other mark', () => {
    const plain = plainMarks(score, plan, new Map());
    const other = plan.notes[3]!.finger === 4 ? 3 : 4;
    const before = inkedMarks(plain, new Map());
    const after = inkedMarks(plain, new Map([['n4', { ...NO_INK, finger: other }]]));
    expect(after.find(({ id }) => id === 'finger:n4')).toMatchObject({ text: String(other), state: 'ink' });
    const kept = new Set(before);
    expect(after.filter((mark) => mark.kind === 'finger' && !kept.has(mark))).toHaveLength(1);
  });
});

describe('a repeated bar', () => {
  const bar = [48, 64, 67, 72, 67, 64, 67, 72]
    .map((midi, onset) => noteXml({ midi, onset, length: 1 }))
    .join('');
  const { marks } = marked(documentXml([bar, bar, bar]));

  it('is marked once', () => {
    const inBar = (n: number) =>
      marks.filter(
        (mark) =>
          mark.kind === 'finger' &&
          isShown(mark, 'teaching') &&
          Math.ceil(Number(mark.uid.slice(1)) / 8) === n,
      ).length;
    expect(inBar(1)).toBeGreaterThan(0);
    expect(inBar(2) + inBar(3)).toBeLessThanOrEqual(inBar(1));
  });
});

describe('a figure of the right hand', () => {
  const bar = [45, 57, 60, 64, 60, 57].map((midi, onset) => noteXml({ midi, onset, length: 1 })).join('');
  const { plan, marks } = marked(documentXml([bar, bar, bar, bar]));

  it('has its letters where it begins, and not again', () => {
    const letters = marks.filter((mark) => mark.kind === 'pluck' && isShown(mark, 'teaching'));
    expect(plan.figures.some(({ formula }) => formula.length > 0) || plan.formulas.length > 0).toBe(true);
    expect(letters[0]!.causes).toContainEqual(expect.objectContaining({ code: 'pattern' }));
    expect(letters.length).toBeGreaterThanOrEqual(4);
    expect(letters.length).toBeLessThan(0.5 * plan.notes.length);
  });
});

describe('what came with the file', () => {
  const printed = SCALE.replace(
    '</note>',
    '<notations><technical><fingering>3</fingering></technical></notations></note>',
  );

  it('stays on the page, and says where the plan departs from it', () => {
    const ink: Ink = new Map([['n1', { ...NO_INK, finger: 0 }]]);
    const { marks } = marked(printed, ink);
    const first = marks.find(({ id }) => id === 'finger:n1')!;
    expect(first).toMatchObject({ text: '0', state: 'ink', departs: '3' });
    expect(isShown(first, 'teaching')).toBe(true);
  });
});

// Source: handbook 2, "Schools differ in the letter; let the teacher choose".
describe('the style of an edition', () => {
  const barre = { fret: 5, firstString: 1, lastString: 3, fromUid: 'n1', toUid: 'n2' };

  it('chooses letter and fraction of a barre', () => {
    expect(barreLabel(barre)).toBe('3/6 C V');
    expect(barreLabel(barre, { barreLetter: 'B', barreFraction: 'halves' })).toBe('½ B V');
    expect(barreLabel({ ...barre, lastString: 6 }, { barreLetter: 'B', barreFraction: 'halves' })).toBe(
      'B V',
    );
  });

  it('puts the letters of the right hand on one side', () => {
    const sides = (pluckSide: MarkStyle['pluckSide']) =>
      new Set(
        marked(SCALE, new Map(), { ...PLAIN_MARKS, pluckSide })
          .marks.filter(({ kind }) => kind === 'pluck')
          .map(({ below }) => below),
      );
    expect(sides('above')).toEqual(new Set([false]));
    expect(sides('below')).toEqual(new Set([true]));
  });
});
