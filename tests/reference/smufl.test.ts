/**
 * Signs by their names in the Standard Music Font Layout (SMuFL 1.40, W3C Music Notation Community Group), read from the
 * table of a rendering library: the code points that are read and drawn, and what stands on an engraved page.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { DAMP_GLYPHS } from '../../src/core/engraving/markSvg';
import { MUSIC_IN_TEXT } from '../../src/core/engraving/readPage';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { engrave } from '../../src/workers/engrave';

const table = readFileSync(
  new URL('../../node_modules/vexflow/build/esm/src/glyphs.js', import.meta.url),
  'utf8',
);
const CODES = new Map(
  [...table.matchAll(/\["(\w+)"\] = "\\u([0-9A-F]{4})"/g)].map(([, name, code]) => [name!, code!]),
);
const codeOf = (name: string): string => {
  const code = CODES.get(name);
  if (code === undefined) throw new Error(`SMuFL has no glyph "${name}"`);
  return code;
};
const charOf = (name: string): string => String.fromCodePoint(parseInt(codeOf(name), 16));

describe('notes inside words', () => {
  it.each([
    ['metNoteHalfUp', '\u{1D15E}'],
    ['noteHalfUp', '\u{1D15E}'],
    ['metNoteQuarterUp', '\u2669'],
    ['noteQuarterUp', '\u2669'],
    ['metNote8thUp', '\u266A'],
    ['note8thUp', '\u266A'],
    ['metAugmentationDot', '.'],
    ['augmentationDot', '.'],
  ])('%s is read', (name, readable) => {
    expect(MUSIC_IN_TEXT[charOf(name)]).toBe(readable);
  });

  it('nothing else is', () => {
    expect(Object.keys(MUSIC_IN_TEXT)).toHaveLength(8);
  });
});

describe('damping signs', () => {
  it('are named as the standard names them', () => {
    expect(charOf(DAMP_GLYPHS.string)).toBe('\uE638');
    expect(charOf(DAMP_GLYPHS.all)).toBe('\uE639');
  });
});

const demo = new URL('../../demo/', import.meta.url);

describe.each(readdirSync(demo))('the page of %s', (file) => {
  it('has the heads, accidentals and clefs that the file says', async () => {
    const text = readFileSync(new URL(file, demo), 'utf8');
    const document = readScore(text);
    if (!document.ok) throw new Error(document.error.code);
    const { systems } = await engrave(text, document.value);
    const drawn = systems.map(({ svg }) => svg).join('');
    const drawnAs = (name: string) => drawn.match(new RegExp(`href="#${codeOf(name)}[-"]`, 'g'))?.length ?? 0;
    const notes = [...text.matchAll(/<note[\s>][\s\S]*?<\/note>/g)]
      .map(([note]) => note)
      .filter((note) => !note.includes('<rest'));
    const written = (...what: string[]) =>
      notes.filter((note) => what.some((one) => note.includes(one)) && !note.includes('<grace')).length;
    expect(drawnAs('noteheadWhole')).toBe(written('<type>whole<'));
    expect(drawnAs('noteheadHalf')).toBe(written('<type>half<'));
    expect(drawnAs('noteheadBlack')).toBe(
      written('<type>quarter<', '<type>eighth<', '<type>16th<', '<type>32nd<'),
    );
    expect(drawnAs('accidentalNatural')).toBe(written('<accidental>natural<'));
    expect(drawnAs('gClef8vb')).toBe(systems.length);
  });
});
