import { describe, expect, it } from 'vitest';
import { barXml, scoreOrThrow, type TestNote } from '../../../../tests/helpers/music';
import { readScore } from '../../formats/musicxml/readScore';
import { DEFAULT_PLAYER } from '../../instrument/hands';
import { applyOperations, setAttribute } from '../edition/operation';
import { correctionsOf, inkOf, type Registers } from '../edition/registers';
import { Planner } from '../planner';
import type { Finding } from './plan';
import type { Remedy } from './remedies';

const { hand, fretboard } = DEFAULT_PLAYER;

function findingsUnder(xml: string, registers: Registers): readonly Finding[] {
  const read = readScore(xml, { corrections: correctionsOf(registers) });
  if (!read.ok) throw new Error(read.error.code);
  return new Planner(read.value.score, fretboard, hand).plan(inkOf(registers)).findings;
}

const chord = (...midi: number[]): TestNote[] => midi.map((one) => ({ midi: one, onset: 0, length: 4 }));
const remediesIn = (findings: readonly Finding[], code: Finding['code']): readonly Remedy[] =>
  findings.flatMap((finding) => (finding.code === code && 'remedies' in finding ? finding.remedies : []));

/** The remedy as an operation, and what the finding is then. */
function accepted(xml: string, { target, attribute, value }: Remedy) {
  const operation = setAttribute(new Map(), target, attribute, value as never);
  const result = applyOperations(new Map(), [operation!]);
  if (result.kind !== 'applied') throw new Error('conflict');
  return findingsUnder(xml, result.registers);
}

describe('impossible music', () => {
  // Two notes that only the sixth string has.
  const xml = barXml([...chord(40, 42, 64), { midi: 62, onset: 4, length: 2 }]);
  const findings = new Planner(scoreOrThrow(xml), fretboard, hand).plan(new Map()).findings;

  it('comes with ways out, each tried, and each one as an operation takes the finding away', () => {
    const remedies = remediesIn(findings, 'unplayable');
    expect(remedies.map(({ kind }) => kind)).toContain('leaveOut');
    expect(remedies.map(({ kind }) => kind)).toContain('octaveUp');
    for (const remedy of remedies) {
      const left = accepted(xml, remedy).filter((finding) => finding.code === 'unplayable');
      expect(left, `${remedy.kind} ${remedy.target} ${String(remedy.value)}`).toEqual([]);
    }
  });

  it('names an inner note before the bass, and the bass before the melody', () => {
    const seven = new Planner(scoreOrThrow(barXml(chord(40, 45, 50, 55, 59, 64, 67))), fretboard, hand);
    const kinds = remediesIn(seven.plan(new Map()).findings, 'unplayable').filter(
      ({ kind }) => kind === 'leaveOut',
    );
    expect(['n2', 'n3', 'n4', 'n5', 'n6']).toContain(kinds[0]!.target);
    expect(kinds.at(-1)!.target).toBe('n7');
  });

  it('is never changed unasked', () => {
    expect(findings.filter((finding) => finding.code === 'unplayable')).toHaveLength(1);
  });
});

describe('a note that is let go', () => {
  it('can be written as short as it sounds', () => {
    const xml = barXml([
      { midi: 41, onset: 0, length: 8, voice: 2 },
      { midi: 60, onset: 0, length: 4 },
      { midi: 81, onset: 4, length: 4 },
    ]);
    const findings = new Planner(scoreOrThrow(xml), fretboard, hand).plan(new Map()).findings;
    const [letGo] = remediesIn(findings, 'cut');
    expect(letGo).toMatchObject({
      kind: 'letGo',
      target: 'n1',
      attribute: 'length',
      value: '2',
      quarters: 2,
    });
    expect(remediesIn(accepted(xml, letGo!), 'cut')).toEqual([]);
  });
});

describe('contradictory ink', () => {
  it('can be given back, the marks that are there', () => {
    const planner = new Planner(scoreOrThrow(barXml(chord(48, 52, 60))), fretboard, hand);
    const mark = { finger: 2, string: null, pluck: null };
    const ink = new Map([
      ['n1', mark],
      ['n2', mark],
    ]);
    const remedies = remediesIn(planner.plan(ink).findings, 'inkContradicts');
    expect(remedies).toHaveLength(1);
    expect(remedies[0]).toMatchObject({ kind: 'pencil', attribute: 'finger', value: null });
  });
});
