import { strToU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import { documentXml, noteXml } from '../../../../tests/helpers/music';
import { readMusicXmlText, writeMusicXmlBytes, zipScore } from './bytes';
import { readScore, type ScoreDocument } from './readScore';
import { applySplices } from './splice';
import { fingeringSplices, type NoteFingering } from './writeFingering';

const read = (text: string): ScoreDocument => {
  const result = readScore(text);
  if (!result.ok) throw new Error(result.error.code);
  return result.value;
};
const marks: NoteFingering = { finger: 3, string: 5, fret: 3, pluck: 'p' };
const note = (extra = '') => noteXml({ midi: 48, onset: 0, length: 2, extra });
const fingered = (text: string) => applySplices(text, fingeringSplices(read(text), new Map([['n1', marks]])));

const TECHNICAL = '<fingering>3</fingering><pluck>p</pluck><string>5</string><fret>3</fret>';

describe('fingering in the imported text', () => {
  it('goes into new notations before the lyrics', () => {
    const out = fingered(documentXml([note('<lyric><text>la</text></lyric>')]));
    expect(out).toContain(`<notations><technical>${TECHNICAL}</technical></notations><lyric>`);
  });
  it('goes into notations that are there', () => {
    const out = fingered(documentXml([note('<notations><slur type="start"/></notations>')]));
    expect(out).toContain(`<slur type="start"/><technical>${TECHNICAL}</technical></notations>`);
  });
  it('goes into technical marks that are there and does not repeat them', () => {
    const out = fingered(
      documentXml([note('<notations><technical><fingering>3</fingering></technical></notations>')]),
    );
    expect(out.match(/<fingering>/g)).toHaveLength(1);
    expect(out).toContain('<fingering>3</fingering><pluck>p</pluck>');
  });
  it('does not repeat a stroke of the plectrum, and is read back as one', () => {
    const down = (text: string) =>
      applySplices(
        text,
        fingeringSplices(read(text), new Map([['n1', { ...marks, pluck: 'down' as const }]])),
      );
    const out = down(documentXml([note('<notations><technical><down-bow/></technical></notations>')]));
    expect(out.match(/<down-bow\/>/g)).toHaveLength(1);
    expect(down(documentXml([note()]))).toContain('<technical><down-bow/><fingering>3</fingering>');
    expect(read(down(documentXml([note()]))).score.notes[0]!.printed.pluck).toBe('down');
  });
  it('passes over self-closing notations', () => {
    expect(fingered(documentXml([note('<notations/>')]))).toContain(
      `<notations/><notations><technical>${TECHNICAL}`,
    );
  });
  it('is read back as printed fingering', () => {
    expect(read(fingered(documentXml([note()]))).score.notes[0]!.printed).toEqual({
      finger: 3,
      string: 5,
      pluck: 'p',
    });
  });
  it('only inserts: without the insertions the text is the original, whatever line ends it has', () => {
    const text = documentXml([note(), note('<lyric/>')])
      .replace(/></g, '>\r\n\t<')
      .replace('Guitar', 'Gitarre ♯ <!-- 𝄞 -->');
    const document = read(text);
    const splices = fingeringSplices(
      document,
      new Map([
        ['n1', marks],
        ['n2', marks],
      ]),
      [{ fromUid: 'n1', toUid: 'n2', label: 'C V' }],
    );
    expect(splices.length).toBe(4);
    expect(splices.every((splice) => splice.remove === 0)).toBe(true);
    let out = applySplices(text, splices);
    for (const splice of splices) out = out.replace(splice.insert, '');
    expect(out).toBe(text);
  });
  it('refuses splices that overlap', () => {
    const splice = { at: 2, remove: 3, insert: 'x' };
    expect(() => applySplices('abcdefgh', [splice, { ...splice, at: 4 }])).toThrow(RangeError);
  });
});

describe('bytes', () => {
  const text = documentXml([note()]);
  it('keep a byte order mark', () => {
    const source = readMusicXmlText(strToU8(`\uFEFF${text}`));
    if (!source.ok) throw new Error();
    expect(source.value.text).toBe(text);
    expect(writeMusicXmlBytes(source.value, text)).toEqual(strToU8(`\uFEFF${text}`));
  });
  it('go into a compressed score and come out again', () => {
    const source = readMusicXmlText(zipScore(strToU8(text)));
    if (!source.ok) throw new Error();
    expect(source.value.text).toBe(text);
    const again = readMusicXmlText(writeMusicXmlBytes(source.value, text.replace('Guitar', 'Other')));
    expect(again.ok && again.value.text).toContain('Other');
  });
  it('are refused when empty, broken, not UTF-8 or an archive without a score', () => {
    const codeOf = (bytes: Uint8Array) => {
      const result = readMusicXmlText(bytes);
      return result.ok ? null : result.error.code;
    };
    expect(codeOf(new Uint8Array())).toBe('empty');
    expect(codeOf(Uint8Array.of(0x50, 0x4b, 1, 2, 3))).toBe('notZip');
    expect(codeOf(Uint8Array.of(0x3c, 0xff, 0xfe, 0x41))).toBe('encoding');
    expect(codeOf(zipScore(strToU8(text)).slice(0, 60))).toBe('notZip');
    expect(codeOf(new Uint8Array(21 * 1024 * 1024))).toBe('tooLarge');
  });
});
