import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { CLEF_8, documentXml, noteXml, scoreOrThrow } from '../../../../tests/helpers/music';
import { readMusicXmlText, writeMusicXmlBytes } from './bytes';
import { type ReadOptions, readScore } from './readScore';

const quarter = (midi: number, extra = '') => noteXml({ midi, onset: 0, length: 2, extra });
const notations = (inner: string) => `<notations>${inner}</notations>`;
const technical = (inner: string) => notations(`<technical>${inner}</technical>`);
const documentOf = (xml: string, options: ReadOptions = {}) => {
  const result = readScore(xml, options);
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};
const partOf = (xml: string) => xml.slice(xml.indexOf('<part id="P1">'), xml.indexOf('</score-partwise>'));
/** Two documents of one part as one of two. */
const joined = (first: string, second: string, name: string) =>
  first
    .replace('</part-list>', `<score-part id="P2"><part-name>${name}</part-name></score-part></part-list>`)
    .replace('</score-partwise>', `${partOf(second).replace('P1', 'P2')}</score-partwise>`);

const TAB_CLEF = '<clef><sign>TAB</sign><line>5</line></clef>';

describe('several parts', () => {
  const line = documentXml([quarter(64) + quarter(65)]);
  const guitar = documentXml([quarter(60)], CLEF_8);
  it('the guitar is taken by its name', () => {
    const violinFirst = joined(line.replace('>Guitar<', '>Violin<'), guitar, 'Guitarra');
    const { score, partIndex } = documentOf(violinFirst);
    expect([partIndex, score.partName, score.notes.length]).toEqual([1, 'Guitarra', 1]);
    expect(score.assumptions).toContainEqual({ code: 'part', name: 'Guitarra', count: 2 });
  });
  it('without a name, by its clef', () => {
    const plain = line
      .replace('>Guitar<', '>One<')
      .replace(CLEF_8, '<clef><sign>G</sign><line>2</line></clef>');
    expect(documentOf(joined(plain, guitar, 'Two')).partIndex).toBe(1);
  });
  it('another one when asked, and none that is not there', () => {
    const both = joined(line, guitar, 'Two');
    expect(documentOf(both, { partIndex: 1 }).score.notes).toHaveLength(1);
    expect(readScore(both, { partIndex: 2 })).toEqual({
      ok: false,
      error: { code: 'noSuchPart', wanted: 3, count: 2 },
    });
  });
  it('percussion beside a guitar is left alone', () => {
    const drums = line.replace(/<pitch>.*?<\/pitch>/g, '<unpitched/>');
    expect(documentOf(joined(drums.replace('>Guitar<', '>Drums<'), guitar, 'Guitar')).partIndex).toBe(1);
  });
});

describe('tablature', () => {
  const staves = `<staves>2</staves>${CLEF_8.replace('<clef>', '<clef number="1">')}${TAB_CLEF.replace('<clef>', '<clef number="2">')}`;
  const tabbed = (midi: number, string: number, fret: number) =>
    quarter(midi, `<staff>2</staff>${technical(`<string>${string}</string><fret>${fret}</fret>`)}`);
  it('on a second staff prints strings on the notes of the first', () => {
    const upper = quarter(60, '<staff>1</staff>') + quarter(64, '<staff>1</staff>');
    const xml = documentXml(
      [`${upper}<backup><duration>4</duration></backup>${tabbed(60, 3, 5)}${tabbed(64, 2, 5)}`],
      staves,
    );
    const { score } = documentOf(xml);
    expect(score.notes.map((note) => note.printed.string)).toEqual([3, 2]);
    expect(score.assumptions).toContainEqual({ code: 'tablature', count: 2 });
  });
  it('in a part of its own does the same, in other ticks and an octave apart', () => {
    const upper = documentXml([quarter(72) + quarter(76)], '<clef><sign>G</sign><line>2</line></clef>');
    const sixths = (midi: number, string: number, fret: number) =>
      noteXml({
        midi,
        onset: 0,
        length: 6,
        extra: technical(`<string>${string}</string><fret>${fret}</fret>`),
      });
    const tab = documentXml([sixths(60, 3, 5) + sixths(64, 2, 5)], TAB_CLEF, 6);
    const { score, partIndex } = documentOf(joined(upper, tab, 'Guitar TAB'));
    expect(partIndex).toBe(0);
    expect(score.notes.map((note) => note.printed.string)).toEqual([3, 2]);
  });
  it('alone is the music itself, and its frets say which octave is meant', () => {
    const xml = documentXml([tabbed(72, 3, 5).replace('<staff>2</staff>', '')], TAB_CLEF);
    const { score } = documentOf(xml);
    expect(score.notes[0]).toMatchObject({ soundingMidi: 60, printed: { string: 3 } });
    expect(score.assumptions).toContainEqual({ code: 'octave', reading: 'frets' });
  });
});

describe('what stands at notes and bars', () => {
  it('grace notes keep their order before their main note, over the bar line too', () => {
    const grace = (midi: number, extra = '') =>
      noteXml({ midi, onset: 0, length: 1 })
        .replace('<note>', `<note><grace${extra}/>`)
        .replace('<duration>1</duration>', '');
    const score = scoreOrThrow(
      documentXml([
        grace(62) + grace(63) + quarter(64) + quarter(65).repeat(3) + grace(66, ' slash="yes"'),
        quarter(67),
      ]),
    );
    const graces = score.notes.filter((note) => note.grace);
    const { ticksPerQuarter } = score;
    expect(graces.map((note) => [note.soundingMidi, note.onsetTicks / ticksPerQuarter, note.grace])).toEqual([
      [62, 0, { beforeMain: 2, slashed: false }],
      [63, 0, { beforeMain: 1, slashed: false }],
      [66, 4, { beforeMain: 1, slashed: true }],
    ]);
  });

  it('articulations, ornaments, rolls, let ring, harmonics and slides', () => {
    const score = scoreOrThrow(
      documentXml([
        quarter(60, notations('<articulations><staccato/><accent/></articulations><fermata/>')) +
          quarter(62, notations('<ornaments><trill-mark/></ornaments><arpeggiate direction="down"/>')) +
          quarter(64, notations('<tied type="let-ring"/><slide type="start"/>')) +
          quarter(
            76,
            notations('<slide type="stop"/><technical><harmonic><natural/></harmonic></technical>'),
          ),
      ]),
    );
    expect(score.notes.map((note) => note.tags)).toEqual([
      ['fermata', 'staccato', 'accent'],
      ['rollDown', 'trill'],
      ['letRing'],
      [],
    ]);
    expect(score.notes[3]!.harmonic).toBe('natural');
    expect(score.slides).toEqual([{ fromUid: 'n3', toUid: 'n4' }]);
  });

  it('let ring by a pedal line to its end, by words to the end of the bar', () => {
    const direction = (inner: string) => `<direction><direction-type>${inner}</direction-type></direction>`;
    const score = scoreOrThrow(
      documentXml([
        quarter(60) +
          direction('<pedal type="start"/>') +
          quarter(62) +
          quarter(64) +
          direction('<pedal type="stop"/>') +
          quarter(65),
        direction('<words>let ring</words>') + quarter(60).repeat(4),
        quarter(60).repeat(4),
      ]),
    );
    expect(score.notes.map((note) => (note.tags.includes('letRing') ? 1 : 0)).join('')).toBe('011011110000');
  });

  it('endings, counts of repeats, jumps by sound and by words', () => {
    const barline = (inner: string) => `<barline location="right">${inner}</barline>`;
    const words = (text: string) =>
      `<direction><direction-type><words>${text}</words></direction-type></direction>`;
    const score = scoreOrThrow(
      documentXml([
        quarter(60) + barline('<ending number="1" type="stop"/><repeat direction="backward" times="3"/>'),
        `<direction><sound segno="s"/></direction>${quarter(60)}${words('Fine')}`,
        quarter(60) + words('D.S. al Fine') + barline('<bar-style>light-heavy</bar-style>'),
      ]),
    );
    expect(score.measures[0]).toMatchObject({ repeatEnd: true, repeatTimes: 3, endingStops: true });
    expect(score.measures[1]!.jumps).toMatchObject({ segno: true, fine: true, daCapo: false });
    expect(score.measures[2]).toMatchObject({ sectionEnd: true, jumps: { dalSegno: true } });
  });

  it('words, dynamics, rehearsal letters, chord symbols and changes of tempo with their places', () => {
    const direction = (inner: string) => `<direction><direction-type>${inner}</direction-type></direction>`;
    const score = scoreOrThrow(
      documentXml([
        direction('<rehearsal>B</rehearsal>') +
          direction('<dynamics><mf/></dynamics>') +
          '<harmony><root><root-step>F</root-step><root-alter>1</root-alter></root><kind>minor-seventh</kind></harmony>' +
          quarter(60) +
          '<sound tempo="60"/>' +
          quarter(60) +
          direction('<words>rit.</words>') +
          '<sound tempo="48"/>' +
          quarter(60),
      ]),
    );
    expect(score.directions).toEqual([
      { tick: 0, kind: 'rehearsal', text: 'B' },
      { tick: 0, kind: 'dynamic', text: 'mf' },
      { tick: 0, kind: 'chord', text: 'F♯m7' },
      { tick: 4, kind: 'words', text: 'rit.' },
    ]);
    expect(score.tempos.map((mark) => [mark.tick, mark.quartersPerMinute])).toEqual([
      [0, 60],
      [4, 48],
    ]);
  });

  it('tempo words where no number stands, and numbers over words', () => {
    const words = (text: string, sound = '') =>
      `<direction><direction-type><words>${text}</words></direction-type>${sound}</direction>`;
    const score = scoreOrThrow(
      documentXml([
        words('Andante con moto') + quarter(60).repeat(4),
        words('Allegro', '<sound tempo="100"/>') + quarter(60).repeat(4),
        words('rit.') + quarter(60).repeat(4),
        words('Presto') + quarter(60).repeat(4),
      ]),
    );
    expect(score.tempos).toEqual([
      { tick: 0, quartersPerMinute: 76, assumed: true },
      { tick: 8, quartersPerMinute: 100, assumed: false },
      { tick: 24, quartersPerMinute: 172, assumed: true },
    ]);
    expect(score.assumptions.filter((one) => one.code === 'tempoWord')).toEqual([
      { code: 'tempoWord', word: 'Andante con moto', quartersPerMinute: 76 },
      { code: 'tempoWord', word: 'Presto', quartersPerMinute: 172 },
    ]);
  });

  it('a tuning of its own and a capo', () => {
    const tuned = [
      ['D', 2],
      ['A', 2],
      ['D', 3],
      ['G', 3],
      ['A', 3],
      ['D', 4],
    ]
      .map(
        ([step, octave], k) =>
          `<staff-tuning line="${k + 1}"><tuning-step>${step}</tuning-step><tuning-octave>${octave}</tuning-octave></staff-tuning>`,
      )
      .join('');
    const score = scoreOrThrow(
      documentXml(
        [quarter(50)],
        `${CLEF_8}<staff-details><staff-lines>6</staff-lines>${tuned}<capo>3</capo></staff-details>`,
      ),
    );
    expect([score.tuningId, score.capo]).toEqual(['custom:62,57,55,50,45,38', 3]);
  });

  it('bars with too much or too little are taken as they are, and said with voice and line', () => {
    const full = quarter(60).repeat(4);
    const score = scoreOrThrow(
      documentXml([full, `\n${quarter(60).repeat(5)}`, quarter(60).repeat(2), full]),
    );
    expect(score.notices).toMatchObject([
      { code: 'overfull', measure: '2', voice: '1', line: 3, hasQuarters: 5, wantsQuarters: 4 },
      { code: 'underfull', measure: '3', hasQuarters: 2, wantsQuarters: 4 },
    ]);
    expect(score.measures.map((measure) => measure.startTicks)).toEqual([0, 8, 18, 22]);
  });

  it('an upbeat, a bar in two halves and a last short bar are no faults', () => {
    const repeat = '<barline location="right"><repeat direction="backward"/></barline>';
    const score = scoreOrThrow(
      documentXml([
        quarter(60),
        quarter(60).repeat(4),
        quarter(60).repeat(2) + repeat,
        quarter(60).repeat(2),
        quarter(60).repeat(3),
      ]),
    );
    expect(score.notices).toEqual([]);
  });

  it('hidden and cue notes are counted, not read', () => {
    const score = scoreOrThrow(
      documentXml([
        quarter(60) +
          quarter(61).replace('<note>', '<note print-object="no">') +
          quarter(62).replace('<note>', '<note><cue/>'),
      ]),
    );
    expect(score.notes).toHaveLength(1);
    expect(score.assumptions).toEqual(
      expect.arrayContaining([
        { code: 'hidden', count: 1 },
        { code: 'cueNotes', count: 1 },
      ]),
    );
  });
});

describe('slurs against phrase marks (handbook, "Notation conventions")', () => {
  const slurred = (midis: readonly number[]) =>
    midis
      .map((midi, k) =>
        quarter(
          midi,
          k === 0
            ? notations('<slur type="start"/>')
            : k === midis.length - 1
              ? notations('<slur type="stop"/>')
              : '',
        ),
      )
      .join('');
  const read = (midis: readonly number[], slurs?: 'ligado' | 'phrase') => {
    const corrections = { notes: new Map(), bars: new Map(), piece: slurs ? { slurs } : {} };
    const { score } = documentOf(documentXml([slurred(midis)]), { corrections });
    return [
      score.ligados.length,
      score.notices.filter((one) => one.code === 'ambiguousSlurs').length,
      score.assumptions.some((one) => one.code === 'phraseSlurs'),
    ];
  };
  it('two notes on one string are a slur', () => expect(read([60, 62])).toEqual([1, 0, false]));
  it('two notes that no string gives together are not', () => expect(read([45, 72])).toEqual([0, 0, false]));
  it('many notes are a phrase', () => expect(read([60, 62, 64, 65, 67, 65])).toEqual([0, 0, true]));
  it('three to five notes are asked about', () => expect(read([60, 62, 64])).toEqual([0, 1, false]));
  it('and are what the teacher says', () => {
    expect(read([60, 62, 64], 'ligado')).toEqual([2, 0, false]);
    expect(read([60, 62, 64], 'phrase')).toEqual([0, 0, false]);
  });
});

describe('encodings and archives', () => {
  const xml = documentXml([quarter(60)]).replace('>Guitar<', '>Viola caipira é ♯<');
  const utf16 = (text: string, little: boolean) => {
    const bytes = new Uint8Array(2 * text.length);
    const view = new DataView(bytes.buffer);
    for (let k = 0; k < text.length; k++) view.setUint16(2 * k, text.charCodeAt(k), little);
    return bytes;
  };
  const latin = xml.replace('♯', '').replace('UTF-8', 'ISO-8859-1');
  it.each([
    ['UTF-8 with a mark', strToU8(`\uFEFF${xml}`)],
    ['UTF-16 little-endian', utf16(`\uFEFF${xml}`, true)],
    ['UTF-16 big-endian', utf16(`\uFEFF${xml}`, false)],
    ['UTF-16 without a mark', utf16(xml, true)],
    ['Latin-1', Uint8Array.from(latin, (c) => c.charCodeAt(0))],
    ['mixed line ends', strToU8(xml.replace(/\n/, '\r\n').replace(/<part /, '\r<part '))],
  ])('%s: read, and the same bytes come out', (_name, bytes) => {
    const source = readMusicXmlText(bytes);
    if (!source.ok) throw new Error(source.error.code);
    expect(source.value.text).toContain('Viola caipira é');
    expect(writeMusicXmlBytes(source.value, source.value.text)).toEqual(bytes);
    expect(readScore(source.value.text).ok).toBe(true);
  });

  const container = (path: string) =>
    strToU8(`<container><rootfiles><rootfile full-path="${path}"/></rootfiles></container>`);
  const codeOf = (files: Record<string, Uint8Array>) => {
    const result = readMusicXmlText(zipSync(files));
    return result.ok ? 'ok' : result.error.code;
  };
  it('an archive without a container gives its only score', () => {
    expect(codeOf({ 'score.musicxml': strToU8(xml) })).toBe('ok');
    expect(codeOf({ 'a.xml': strToU8(xml), 'b.xml': strToU8(xml) })).toBe('zipWithoutScore');
  });
  it.each(['../up.xml', '/etc/passwd', 'a/../../b.xml', 'C:\\x.xml', '..\\x.xml'])(
    'a path like %s is refused',
    (path) => {
      expect(codeOf({ 'META-INF/container.xml': container(path), [path]: strToU8(xml) })).toBe('zipPath');
    },
  );
  it('a container that names a file that is not there', () => {
    expect(codeOf({ 'META-INF/container.xml': container('no.xml'), 'a.xml': strToU8(xml) })).toBe(
      'zipWithoutScore',
    );
  });
  it('a bomb is not inflated, whether it states its size or lies about it', () => {
    const bomb = zipSync({ 'score.xml': [new Uint8Array(40 * 1024 * 1024), { level: 9 }] });
    expect(bomb.length).toBeLessThan(200_000);
    expect(readMusicXmlText(bomb)).toMatchObject({ ok: false, error: { code: 'tooLarge', megabytes: 40 } });
    const lying = new Uint8Array(bomb);
    const view = new DataView(lying.buffer);
    for (let at = 0; at + 46 < lying.length; at++) {
      if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 1000, true);
    }
    const before = process.memoryUsage().arrayBuffers;
    expect(readMusicXmlText(lying).ok && false).toBe(false);
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(10 * 1024 * 1024);
  });
  it('entities that grow or read another file are refused with their line', () => {
    const evil = [
      '<!DOCTYPE s [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]>',
      '<!DOCTYPE s [<!ENTITY x SYSTEM "file:///etc/passwd">]>',
      '<!DOCTYPE s [<!ENTITY % p SYSTEM "http://example.invalid/x.dtd"> %p;]>',
    ];
    for (const doctype of evil) {
      expect(readScore(xml.replace('?>', `?>\n${doctype}`))).toMatchObject({
        ok: false,
        error: { code: 'entities', line: 2 },
      });
    }
  });
});
