/** What comes again is made once: but only what is really alike. Each piece repeats itself with one thing changed. */
import { describe, expect, it } from 'vitest';
import { dualCheck } from '../../../../../tests/helpers/dualCheck';
import { barXml, documentXml, noteXml, problemFrom, type TestNote } from '../../../../../tests/helpers/music';
import { LeftPlanner } from './planLeft';

const PATTERN = [60, 62, 60, 62, 60, 62];
const tune = (extra: (k: number) => string | undefined = () => undefined): TestNote[] =>
  PATTERN.map((midi, k) => {
    const more = extra(k);
    return { midi, onset: k, length: 1, voice: 1, ...(more ? { extra: more } : {}) };
  });
const slur = (type: 'start' | 'stop') => `<notations><slur type="${type}" number="1"/></notations>`;

describe('layers that are shared', () => {
  it('are made once for equal steps', () => {
    const planner = new LeftPlanner(problemFrom(barXml(tune())));
    const rows = new Set(planner.layers.map((layer) => layer.rows));
    expect(rows.size).toBeLessThan(planner.layers.length / 2 + 1);
    dualCheck(planner);
  });
  it('not where a held note has less of its length left', () => {
    const bass: TestNote = { midi: 41, onset: 0, length: 6, voice: 2 };
    dualCheck(new LeftPlanner(problemFrom(barXml([...tune(), bass]))));
  });
  it('not where of notes that have lasted as long one goes on for longer', () => {
    const bar = (length: number) =>
      `<sound tempo="60"/>${PATTERN.map((midi) => noteXml({ midi, onset: 0, length: 1 })).join('')}<backup><duration>6</duration></backup>${noteXml({ midi: 41, onset: 0, length, voice: 2 })}<forward><duration>${6 - length}</duration></forward>`;
    dualCheck(new LeftPlanner(problemFrom(documentXml([bar(6), bar(3), bar(6), bar(2)]))));
  });
  it('not where one of them is slurred', () => {
    const slurred = tune((k) => (k === 2 ? slur('start') : k === 3 ? slur('stop') : undefined));
    const planner = new LeftPlanner(problemFrom(barXml(slurred)));
    expect(planner.problem.strikes.some((strike) => strike.slurredFrom !== null)).toBe(true);
    dualCheck(planner);
  });
  it('not where the tempo or the time before differs', () => {
    const bar = (tempo: number, length: number) =>
      `<sound tempo="${tempo}"/>${[60, 67, 60, 67].map((midi) => noteXml({ midi, onset: 0, length })).join('')}`;
    dualCheck(new LeftPlanner(problemFrom(documentXml([bar(60, 2), bar(60, 2), bar(180, 2), bar(60, 1)]))));
  });
  it('not where another mark came with the file', () => {
    const marks = `<notations><technical><fingering>4</fingering></technical></notations>`;
    dualCheck(new LeftPlanner(problemFrom(barXml(tune((k) => (k === 4 ? marks : undefined))))));
  });
});
