import { describe, expect, it } from 'vitest';
import { documentXml, noteXml, problemFrom } from '../../../../tests/helpers/music';

const bar = (midi: number, before = '', after = '') =>
  `${before}${noteXml({ midi, onset: 0, length: 4 })}${noteXml({ midi: midi + 2, onset: 0, length: 4 })}${after}`;
const START = '<barline location="left"><repeat direction="forward"/></barline>';
const END = '<barline location="right"><repeat direction="backward"/></barline>';
const ending = (number: number, type: string) =>
  `<barline location="${type === 'start' ? 'left' : 'right'}"><ending number="${number}" type="${type}"/>${number === 1 && type === 'stop' ? '<repeat direction="backward"/>' : ''}</barline>`;

describe('how often what is played', () => {
  it('everything once in music without repeats', () => {
    const { passes } = problemFrom(documentXml([bar(60), bar(62)]));
    expect(passes).toEqual({ plays: [1, 1, 1, 1], steps: [0, 1, 1, 1], returns: [] });
  });
  it('a repeat plays its bars twice and goes back once', () => {
    const { passes } = problemFrom(documentXml([bar(60), bar(62, START, END), bar(64)]));
    expect(passes.plays).toEqual([1, 1, 2, 2, 1, 1]);
    expect(passes.steps).toEqual([0, 1, 1, 2, 1, 1]);
    expect(passes.returns).toEqual([{ from: 3, to: 2, times: 1, tick: 16 }]);
  });
  it('endings are played in turn: the first goes back, the second comes from before it', () => {
    const { passes } = problemFrom(
      documentXml([
        bar(60, START),
        bar(62, ending(1, 'start'), ending(1, 'stop')),
        bar(64, ending(2, 'start'), ending(2, 'stop')),
      ]),
    );
    expect(passes.plays).toEqual([2, 2, 1, 1, 1, 1]);
    // From the first ending nobody goes on to the second.
    expect(passes.steps).toEqual([0, 2, 1, 1, 0, 1]);
    expect(passes.returns.map(({ from, to, times }) => [from, to, times])).toEqual([
      [3, 0, 1],
      [1, 4, 1],
    ]);
  });
});
