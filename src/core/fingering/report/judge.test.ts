import { describe, expect, it } from 'vitest';
import { documentXml, noteXml, scoreOrThrow } from '../../../../tests/helpers/music';
import { CONCERT_FRETBOARD } from '../../instrument/fretboard';
import { ADULT_MEDIUM } from '../../instrument/hands';
import { judge } from './judge';
import { Planner } from '../planner';

const marked = (midi: number, marks: string) =>
  noteXml({ midi, onset: 0, length: 2, extra: `<notations><technical>${marks}</technical></notations>` });
function judged(xml: string) {
  const score = scoreOrThrow(xml);
  return judge(score, new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM));
}
const finger = (n: number, string?: number) =>
  `<fingering>${n}</fingering>${string ? `<string>${string}</string>` : ''}`;

describe('a printed fingering', () => {
  it('that is what a guitarist plays costs what the best one costs', () => {
    const scale = [
      [60, 1, 2],
      [62, 3, 2],
      [64, 0, 1],
      [65, 1, 1],
    ] as const;
    const result = judged(
      documentXml([scale.map(([midi, n, string]) => marked(midi, finger(n, string))).join('')]),
    );
    expect(result).toMatchObject({ printed: 4, playable: true, unusual: [] });
    expect(result.cost).toBe(result.optimum);
  });
  it('with one finger in two places at once is not playable, and says where', () => {
    const chord = marked(48, finger(2)) + marked(52, finger(2)).replace('<note>', '<note><chord/>');
    const result = judged(documentXml([chord]));
    expect(result.playable).toBe(false);
    expect(result.findings[0]).toMatchObject({ code: 'inkContradicts' });
  });
  it('that goes far for nothing is unusual, with what would be better and why', () => {
    const line = [marked(64, finger(0, 1)), marked(65, finger(4, 4)), marked(64, finger(0, 1))];
    const result = judged(documentXml([line.join('')]));
    expect(result.playable).toBe(true);
    expect(result.cost).toBeGreaterThan(result.optimum);
    expect(result.unusual[0]).toMatchObject({ uid: 'n2', better: { string: 1, fret: 1 } });
    expect(result.unusual[0]!.reasons.length).toBeGreaterThan(0);
  });
  it('without marks is nothing to judge', () => {
    expect(judged(documentXml([noteXml({ midi: 60, onset: 0, length: 2 })]))).toMatchObject({
      printed: 0,
      playable: true,
      unusual: [],
    });
  });
});
