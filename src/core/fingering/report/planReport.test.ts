import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { barXml, scoreOrThrow } from '../../../../tests/helpers/music';
import type { Pluck } from '../../score/model';
import { CONCERT_FRETBOARD } from '../../instrument/fretboard';
import { ADULT_MEDIUM } from '../../instrument/hands';
import type { Ink } from '../problem/ink';
import { JointPlanner } from '../dual/planBoth';
import { LeftPlanner } from '../left/lattice/planLeft';
import { PlanReport } from './planReport';
import { problemOf } from '../problem/problem';
import { rightSettingOf } from '../right/rules/setting';
import { PLAIN_STYLE } from '../right/rules/style';

const folder = new URL('../../../../demo/', import.meta.url);
const pieces = readdirSync(folder).filter(
  (name) => name.endsWith('.musicxml') && !/^(rain-on-tin|scaffold)/.test(name),
);

const LETTERS: readonly Pluck[] = ['i', 'm', 'a', 'p'];

/** Edit upon edit, some of them taken back: fingers, then letters, which can contradict each other. */
function edits(uids: readonly string[]): readonly Ink[] {
  const inks: Ink[] = [new Map()];
  for (let n = 0; n < 24; n++) {
    const ink = new Map(n % 5 === 4 ? inks.at(-4) : inks.at(-1));
    const uid = uids[(n * 37) % uids.length]!;
    const neighbour = uids[((n * 37) % uids.length) + 1] ?? uid;
    if (n % 3 === 0) ink.set(uid, { finger: 1 + (n % 4), string: null, pluck: null });
    else
      for (const one of [uid, neighbour])
        ink.set(one, { finger: null, string: null, pluck: LETTERS[n % 4]! });
    inks.push(ink);
  }
  return inks;
}

describe.each(pieces)('the report of %s', (name) => {
  const score = scoreOrThrow(readFileSync(new URL(name, folder), 'utf8'));
  const problem = problemOf(score, CONCERT_FRETBOARD, ADULT_MEDIUM);

  it.each(['lines', 'melody'] as const)(
    'carried over edit after edit says what a new one says (rest strokes: %s)',
    (restStrokes) => {
      const style = { ...PLAIN_STYLE, restStrokes };
      const setting = rightSettingOf(score, problem, style);
      const hands = new JointPlanner(problem, new LeftPlanner(problem), setting);
      const kept = new PlanReport(problem, setting, score);
      const changes = edits(score.notes.map(({ uid }) => uid)).map((ink) => {
        const found = hands.plan(ink);
        const report = kept.of(found, ink);
        expect(report).toEqual(new PlanReport(problem, setting, score).of(found, ink));
        return JSON.stringify(report.notes);
      });
      expect(new Set(changes).size).toBeGreaterThan(12);
    },
  );
});

describe('a rest stroke', () => {
  it('is one no more when the note after it is no longer of its line', () => {
    const xml = barXml([69, 67].map((midi, k) => ({ midi, onset: k, length: 1 })));
    const score = scoreOrThrow(xml);
    const problem = problemOf(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
    const setting = rightSettingOf(score, problem, { ...PLAIN_STYLE, restStrokes: 'lines' });
    const hands = new JointPlanner(problem, new LeftPlanner(problem), setting);
    const kept = new PlanReport(problem, setting, score);
    const [first, second] = score.notes;
    const onString = (string: number): Ink =>
      new Map([
        [first!.uid, { finger: 4, string: 1, pluck: 'i' }],
        [second!.uid, { finger: 1, string, pluck: 'm' }],
      ]);
    // From string 1 to string 3 no line goes on.
    const told = [onString(1), onString(3), onString(1)].map((ink) => {
      const found = hands.plan(ink);
      const { strokes } = kept.of(found, ink);
      expect(strokes).toEqual(new PlanReport(problem, setting, score).of(found, ink).strokes);
      return JSON.stringify(strokes[0]);
    });
    expect(told[0]).not.toBe(told[1]);
    expect(told[2]).toBe(told[0]);
  });
});
