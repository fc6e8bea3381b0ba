/** The engraved page and the marks on it: nothing touches, nothing is lost, nothing but drawing gets through. */
import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { bottom, overlaps, right } from '../../src/core/engraving/page';
import type { Box, EngravedPage } from '../../src/core/engraving/page';
import type { PlacedMark } from '../../src/core/engraving/placeMarks';
import { sheetOf } from '../../src/core/engraving/sheet';
import type { Mark, MarkKind } from '../../src/core/marks/mark';
import { readEngravedPage } from '../../src/core/engraving/readPage';
import { marksOf } from '../../src/core/marks/marksOf';
import { Planner } from '../../src/core/fingering/planner';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import type { Score } from '../../src/core/score/model';
import { NO_CORRECTIONS } from '../../src/core/score/corrections';
import { engrave, maybeEngraveBeginning } from '../../src/workers/engrave';
import { engraveCopy } from '../../src/workers/prepareCopy';
import { documentXml, noteXml, randomFrom } from '../helpers/music';
import { type WholePage, wholePage } from '../helpers/wholePage';

const folder = new URL('../../demo/', import.meta.url);

/** Marks with what they touch: noteheads, stems, beams, words, other marks, in whatever system. */
function touching({ systems, marks }: WholePage) {
  const solid = systems.flatMap(({ obstacles, tempos }) => [...obstacles, ...tempos.map(({ box }) => box)]);
  const whole = ({ box, lineTo }: PlacedMark): Box =>
    lineTo === null ? box : { ...box, width: lineTo - box.x };
  return marks.flatMap((mark) => {
    const met = [
      ...solid.filter((box) => overlaps(box, mark.box)),
      ...marks.filter((other) => other !== mark && overlaps(whole(other), whole(mark))),
    ];
    return met.map((what) => ({ mark: mark.id, what }));
  });
}

/** Numerals further than two staff spaces from their notes; rows further than they have to be with what is there. */
function farOff({ notes, marks, staffSpace }: WholePage) {
  const noteOf = new Map(notes.map((note) => [note.uid, note]));
  return marks.filter(({ kind, uid, box }) => {
    if (kind !== 'finger' && kind !== 'unplanned') return false;
    const note = noteOf.get(uid)!;
    const dx = Math.max(0, note.x - right(box), box.x - right(note));
    const dy = Math.max(0, note.y - bottom(box), box.y - bottom(note));
    return Math.hypot(dx, dy) > 2 * staffSpace + 1e-6;
  });
}

/** Long runs take more. */
const PAGES = Number(process.env['OCULON_PAGES'] ?? 20);

describe('dense pages', () => {
  const random = randomFrom(19);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  const chord = (size: number) => {
    const start = 40 + Math.floor(random() * 20);
    return Array.from({ length: size }, (_, k) => start + 4 * k + Math.floor(random() * 3));
  };
  const barOf = () =>
    Array.from({ length: pick([2, 4, 8]) }, (_, k, all = 8) =>
      chord(1 + Math.floor(random() * 4))
        .map((midi, n) => noteXml({ midi, onset: k, length: all > 4 ? 1 : 2 }, n > 0))
        .join(''),
    ).join('');
  const xmlOf = () => {
    const tempo =
      '<direction placement="above"><direction-type><words>Andante con moto</words></direction-type></direction>';
    return documentXml(Array.from({ length: 10 }, (_, k) => (k % 4 === 0 ? tempo : '') + barOf()));
  };
  const kinds: readonly (readonly [MarkKind, string])[] = [
    ['finger', '3'],
    ['pluck', 'm'],
    ['string', '4'],
  ];
  /** Every note has a finger, a letter and a string; barres begin anywhere and go on over some notes. */
  const everyMark = (score: Score): readonly Mark[] => [
    ...score.notes.flatMap(({ uid }) =>
      kinds.map(([kind, text]): Mark => ({
        id: `${kind}:${uid}`,
        kind,
        uid,
        toUid: uid,
        text,
        state: 'pencil',
        below: random() < 0.4,
        causes: [],
        departs: null,
      })),
    ),
    ...score.notes
      .filter((_, k) => k % 11 === 0)
      .map(({ uid }, k, all): Mark => ({
        id: `barre:${uid}`,
        kind: 'barre',
        uid,
        toUid: all[k + 1]?.uid ?? uid,
        text: 'C VII',
        state: 'pencil',
        below: false,
        causes: [],
        departs: null,
      })),
  ];

  it('no label touches anything, also across systems, and room that was given stays', async () => {
    for (let round = 0; round < PAGES; round++) {
      const text = xmlOf();
      const document = readScore(text);
      if (!document.ok) throw new Error(document.error.code);
      const { score } = document.value;
      const engraved = await engrave(text, document.value);
      const marks = everyMark(score);
      const sheet = sheetOf(engraved, marks);
      const whole = wholePage(sheet);
      expect(whole.marks).toHaveLength(marks.length);
      expect(touching(whole)).toEqual([]);
      // Fewer marks on the same page: no system moves.
      const fewer = sheetOf(
        engraved,
        marks.filter(({ kind }) => kind !== 'string'),
        { before: sheet },
      );
      wholePage(fewer).systems.forEach(({ staffTop }, k) =>
        expect(staffTop).toBeCloseTo(whole.systems[k]!.staffTop, 6),
      );
    }
  });
});

describe('the first systems of a long piece', () => {
  const random = randomFrom(4);
  const bars = Array.from({ length: 60 }, () =>
    Array.from({ length: 8 }, () =>
      noteXml({ midi: 52 + Math.floor(20 * random()), onset: 0, length: 1 }),
    ).join(''),
  );
  const documentOf = (text: string) => {
    const document = readScore(text);
    if (!document.ok) throw new Error(document.error.code);
    return document.value;
  };

  it('stand where they stand in the whole, but for the last of them', async () => {
    const text = documentXml(bars);
    const whole = await engrave(text, documentOf(text));
    const beginning = (await maybeEngraveBeginning(text, documentOf(text)))!;
    expect(beginning.notes).toHaveLength(24 * 8);
    const last = beginning.systems.length - 1;
    expect(last).toBeGreaterThan(2);
    const boxOf = new Map(whole.notes.map((note) => [note.uid, note]));
    for (const note of beginning.notes) if (note.system < last) expect(boxOf.get(note.uid)).toEqual(note);
    expect(beginning.systems.slice(0, last)).toEqual(whole.systems.slice(0, last));
  });

  it('are not asked for where the whole comes as soon', async () => {
    const text = documentXml(bars.slice(0, 40));
    expect(await maybeEngraveBeginning(text, documentOf(text))).toBeNull();
  });
});

describe.each(readdirSync(folder))('%s', (name) => {
  it('has a picture of its first line, with everything that stands in it', () => {
    const [, top, height] = /viewBox="0 (-?[\d.]+) [\d.]+ ([\d.]+)"/.exec(engraved.firstLine)!.map(Number);
    for (const box of engraved.systems[0]!.obstacles) {
      expect(box.y).toBeGreaterThan(top!);
      expect(box.y + box.height).toBeLessThan(top! + height!);
    }
    expect(engraved.firstLine.match(/class="system"/g)).toHaveLength(1);
    expect(engraved.firstLine).not.toMatch(/<script|href="http/);
  });

  let score: Score;
  let engraved: EngravedPage;
  let page: WholePage;
  let wanted: readonly Mark[];
  let marks: readonly PlacedMark[];

  beforeAll(async () => {
    const text = readFileSync(new URL(name, folder), 'utf8');
    const document = readScore(text);
    if (!document.ok) throw new Error(document.error.code);
    score = document.value.score;
    engraved = await engrave(text, document.value);
    const planner = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
    const roles = new Map(
      planner.problem.strikes.flatMap((strike) => strike.uids.map((uid) => [uid, strike.role] as const)),
    );
    wanted = marksOf(score, planner.plan(new Map()), roles);
    page = wholePage(sheetOf(engraved, wanted));
    ({ marks } = page);
  });

  it('lays out and draws again only the systems in which something has changed', () => {
    const all = sheetOf(engraved, wanted);
    const changed = wanted.map((mark) =>
      mark.id === `finger:${score.notes[0]!.uid}` ? { ...mark, state: 'ink' as const } : mark,
    );
    const after = sheetOf(engraved, changed, { before: all });
    const drawnAgain = after.systems.filter((system, k) => system !== all.systems[k]);
    expect(drawnAgain.map(({ index }) => index)).toEqual([0]);
  });

  it('draws no system again that only moves down', () => {
    const before = sheetOf(engraved, wanted);
    const more = before.systems[0]!.notes.flatMap(({ uid }) =>
      ['x', 'y', 'z'].map((id): Mark => ({ ...wanted[0]!, id: id + uid, kind: 'string', uid, below: true })),
    );
    const after = sheetOf(engraved, [...wanted, ...more], { before });
    expect(after.spread[1]!).toBeGreaterThan(before.spread[1]!);
    // Whoever stands next may get another share of the room between.
    after.systems.slice(2).forEach((system, k) => expect(system).toBe(before.systems[k + 2]));
    expect(after.systems[1]!.layout).toBe(before.systems[1]!.layout);
  });

  it('has a box for every note, inside its system', () => {
    expect(page.notes.map((note) => note.uid).sort()).toEqual(score.notes.map((note) => note.uid).sort());
    for (const note of page.notes) {
      const system = page.systems[note.system]!;
      expect(note.x).toBeGreaterThan(system.left);
      expect(right(note)).toBeLessThan(system.right);
    }
  });

  it('shows a finger for every note and a letter for every plucked one', () => {
    expect(marks.filter((mark) => mark.kind === 'finger')).toHaveLength(score.notes.length);
    const letters = marks.filter((mark) => mark.kind === 'pluck').length;
    expect(letters).toBeGreaterThan(0.9 * score.notes.length);
    expect(letters).toBeLessThanOrEqual(score.notes.length);
  });

  it('has no mark that touches anything, of its own system or of another', () => {
    expect(touching(page)).toEqual([]);
  });

  it('touches nothing on paper either, at every size of the music', async () => {
    const text = readFileSync(new URL(name, folder), 'utf8');
    const document = readScore(text);
    if (!document.ok) throw new Error(document.error.code);
    for (const staff of ['normal', 'largest'] as const) {
      const paper = { paper: 'a4', orientation: 'portrait', staff } as const;
      const printed = await engraveCopy(
        { text, document: document.value, corrections: NO_CORRECTIONS },
        paper,
      );
      expect(touching(wholePage(sheetOf(printed, wanted)))).toEqual([]);
      expect(printed.bars).toHaveLength(score.measures.length);
      const last = printed.bars.filter(({ system }) => system === printed.systems.length - 1);
      expect(last.at(-1)!.right - last[0]!.left).toBeGreaterThan(0.5 * printed.width);
    }
  });

  it('has no mark far from what it belongs to, and words above all of it', () => {
    expect(farOff(page)).toEqual([]);
    for (const [k, { tempos, staffTop }] of page.systems.entries())
      for (const { box } of tempos) {
        expect(bottom(box)).toBeLessThan(staffTop);
        const below = marks.filter(
          (mark) => mark.system === k && mark.box.x < right(box) && right(mark.box) > box.x,
        );
        for (const mark of below)
          if (mark.box.y < staffTop) expect(bottom(box)).toBeLessThanOrEqual(mark.box.y);
      }
  });

  it('keeps marks of neighbouring systems apart and everything on the page', () => {
    for (const mark of marks) {
      expect(mark.box.y).toBeGreaterThan(0);
      expect(mark.box.y + mark.box.height).toBeLessThan(page.height);
      expect(mark.box.x).toBeGreaterThan(0);
    }
  });

  it('draws no place-keeping accidental', () => {
    const naturals = page.systems.flatMap(({ svg }) => svg.match(/href="#E261/g) ?? []);
    const written = readFileSync(new URL(name, folder), 'utf8').match(/<accidental>natural/g) ?? [];
    expect(naturals.length).toBe(written.length);
  });
});

describe('the page reader', () => {
  it('lets nothing through but drawing', () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg"><desc>x</desc><defs><g id="E0A4-abc"><path d="M0 0"/></g></defs>
      <svg class="definition-scale" viewBox="0 0 100 200"><script>alert(1)</script><style>*{}</style>
      <g class="page-margin" transform="translate(5, 6)" onload="alert(2)"><g class="system"><a href="javascript:alert(3)"><path d="M1 1"/></a>
      <foreignObject><b>hi</b></foreignObject><image href="http://example.test/x.png"/>
      <use href="http://example.test/y.svg#z"/><use href="#E0A4-abc" x="1"/>
      <text onclick="alert(4)" style="background:url(http://example.test)">a &lt;b&gt; &amp; c</text></g></g></svg></svg>`;
    const page = readEngravedPage(svg, new Set());
    const drawn = page.glyphs + page.systems.map(({ svg }) => svg).join('') + page.firstLine;
    expect(drawn).not.toMatch(/script|style|alert|foreignObject|image|example|javascript|onload|onclick|<b>/);
    expect(drawn).toContain('href="#E0A4-abc"');
    expect(drawn).toContain('a &lt;b&gt; &amp; c');
    expect([page.width, page.height]).toEqual([100, 200]);
  });
});
