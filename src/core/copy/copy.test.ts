/** Parts of a copy that need neither engraver nor planner. */
import { describe, expect, it } from 'vitest';
import type { Mark } from '../marks/mark';
import { barXml, documentXml, noteXml, scoreOrThrow } from '../../../tests/helpers/music';
import { csvOf } from '../formats/csv/csv';
import { copyFileName, imprintOf } from './fileName';
import { differencesOf } from './copyMark';
import { legendOf } from './legend';
import { withMusic, withSigns, wrapped } from './lettering';
import { PAPERS, sheetOfPaper } from './paper';
import { barsNamed, syllable } from './rowTexts';

const mark = (kind: Mark['kind'], uid: string, text: string, state: Mark['state'] = 'pencil'): Mark => ({
  id: `${kind}:${uid}`,
  kind,
  uid,
  toUid: uid,
  text,
  state,
  below: false,
  causes: [],
  departs: null,
});

const bar = (midis: readonly number[]) =>
  midis.map((midi, onset) => noteXml({ midi, onset, length: 1 })).join('');
const three = scoreOrThrow(
  documentXml([bar([64, 65, 67, 69]), bar([71, 72, 71, 69]), bar([67, 65, 64, 62])]),
);

describe('paper', () => {
  it('has the sizes of ISO 216 and ANSI Y14.1', () => {
    // Source: ISO 216:2007, A4 is 210 mm × 297 mm; ANSI Y14.1, size A is 8.5 in × 11 in.
    expect(PAPERS.a4).toEqual({ widthMm: 210, heightMm: 297 });
    expect(PAPERS.letter.widthMm).toBeCloseTo(8.5 * 25.4, 6);
    expect(PAPERS.letter.heightMm).toBeCloseTo(11 * 25.4, 6);
  });

  it('lies across, and has room for fewer notes where the music is larger', () => {
    const across = sheetOfPaper({ paper: 'a4', orientation: 'landscape', staff: 'normal' });
    expect([across.widthMm, across.heightMm]).toEqual([297, 210]);
    const large = sheetOfPaper({ paper: 'a4', orientation: 'portrait', staff: 'largest' });
    const normal = sheetOfPaper({ paper: 'a4', orientation: 'portrait', staff: 'normal' });
    expect(large.width).toBeLessThan(normal.width);
  });
});

describe('a legend', () => {
  it('explains the signs that are there and no others', () => {
    const { rows, reading } = legendOf(
      [mark('finger', 'n1', '1'), mark('barre', 'n1', 'C V')],
      'teaching',
      'told',
    );
    expect(rows.map(({ sign }) => sign)).toEqual(['1 2 3 4', 'C V']);
    expect(reading).toBeNull();
  });

  it('tells states apart only where there are several and they look different', () => {
    const marks = [mark('finger', 'n1', '1'), mark('finger', 'n2', '2', 'ink')];
    expect(legendOf(marks, 'sparse', 'told').rows.map(({ sign }) => sign)).toEqual([
      '1 2 3 4',
      'slanted',
      'bold',
    ]);
    expect(legendOf(marks, 'sparse', 'alike').rows.map(({ sign }) => sign)).toEqual(['1 2 3 4']);
    expect(legendOf(marks, 'sparse', 'told').reading).toMatch(/one finger per fret/);
  });
});

describe('what has changed since a copy', () => {
  it('is listed bar by bar: written, taken away, another', () => {
    const before = [mark('finger', 'n1', '1'), mark('finger', 'n5', '2'), mark('pluck', 'n9', 'm')];
    const now = [mark('finger', 'n1', '1'), mark('finger', 'n5', '3'), mark('string', 'n2', '4')];
    expect(differencesOf(before, now, three)).toEqual([
      { kind: 'string', uid: 'n2', bar: '1', was: null, is: '4' },
      { kind: 'finger', uid: 'n5', bar: '2', was: '2', is: '3' },
      { kind: 'pluck', uid: 'n9', bar: '3', was: 'm', is: null },
    ]);
    expect(differencesOf(now, now, three)).toEqual([]);
  });

  it('names notes that are gone last', () => {
    const gone = differencesOf([mark('finger', 'n99', '1')], [mark('finger', 'n9', '1')], three);
    expect(gone.map(({ bar }) => bar)).toEqual(['3', null]);
  });
});

describe('words', () => {
  it('bars are named by number and range; all where nothing is', () => {
    expect([...barsNamed(three, '')]).toEqual([0, 1, 2]);
    expect([...barsNamed(three, '1, 3')]).toEqual([0, 2]);
    expect([...barsNamed(three, '2-3, 7')]).toEqual([1, 2]);
  });

  it('count a bar as it is counted aloud', () => {
    const score = scoreOrThrow(barXml([{ midi: 60, onset: 0, length: 8 }]));
    const quarter = score.ticksPerQuarter;
    const said = [0, 0.25, 0.5, 0.75, 1, 1.5].map((beats) => syllable(score, beats * quarter, 0));
    expect(said).toEqual(['1', 'e', '&', 'a', '2', '&']);
  });

  it('are broken within their width, and sharps are signs', () => {
    const lines = wrapped('one two three four five six seven', 10, 60);
    expect(lines.every((line) => line.length <= 12)).toBe(true);
    expect(lines.join(' ')).toBe('one two three four five six seven');
    expect(withSigns('F#m7/C#')).toBe('F♯m7/C♯');
    expect(withSigns('Bbm')).toBe('B♭m');
    expect(withMusic('♩ = 88', { music: 'Music' })).toBe('<tspan font-family="Music">♩</tspan> = 88');
  });

  it('name a file that every system takes, and the state of the edition', () => {
    const date = new Date('2026-11-29T10:00:00Z');
    expect(copyFileName('A/B: "C"?', 'sparse', date, 'pdf')).toBe('A B C, fewest marks, 2026-11-29.pdf');
    expect(imprintOf(date, 12)).toBe('29 November 2026, change 12');
    expect(imprintOf(date, null)).toBe('29 November 2026');
  });

  it('stand in tables as RFC 4180 has them, and never as formulas', () => {
    expect(
      csvOf(
        ['a', 'b'],
        [
          ['x, "y"', 3],
          ['=1+1', null],
        ],
      ),
    ).toBe('a,b\r\n"x, ""y""",3\r\n\'=1+1,\r\n');
  });
});
