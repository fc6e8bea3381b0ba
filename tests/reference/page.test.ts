/** The engraved page and the marks on it: nothing touches, nothing is lost, nothing but drawing gets through. */
import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { overlaps, right } from '../../src/core/engraving/page';
import type { EngravedPage } from '../../src/core/engraving/page';
import { placeMarks, type PlacedMark } from '../../src/core/engraving/placeMarks';
import { readEngravedPage } from '../../src/core/engraving/readPage';
import { marksOf } from '../../src/core/marks/marksOf';
import { Planner } from '../../src/core/fingering/planner';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import type { Score } from '../../src/core/score/model';
import { engrave, maybeEngraveBeginning } from '../../src/workers/engrave';
import { documentXml, noteXml, randomFrom } from '../helpers/music';

const folder = new URL('../../demo/', import.meta.url);

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
    const [, top, height] = /viewBox="0 (-?[\d.]+) [\d.]+ ([\d.]+)"/.exec(page.firstLine)!.map(Number);
    for (const box of page.systems[0]!.obstacles) {
      expect(box.y).toBeGreaterThan(top!);
      expect(box.y + box.height).toBeLessThan(top! + height!);
    }
    expect(page.firstLine.match(/class="system"/g)).toHaveLength(1);
    expect(page.firstLine).not.toMatch(/<script|href="http/);
  });

  let score: Score;
  let page: EngravedPage;
  let marks: readonly PlacedMark[];

  beforeAll(async () => {
    const text = readFileSync(new URL(name, folder), 'utf8');
    const document = readScore(text);
    if (!document.ok) throw new Error(document.error.code);
    score = document.value.score;
    page = await engrave(text, document.value);
    const planner = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
    const roles = new Map(
      planner.problem.strikes.flatMap((strike) => strike.uids.map((uid) => [uid, strike.role] as const)),
    );
    marks = placeMarks(page, marksOf(score, planner.plan(new Map()), new Map(), roles));
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

  it('has no mark that touches a note, stem, beam, accidental or another mark', () => {
    const touching = marks.flatMap((mark) => {
      const solid = page.systems[mark.system]!.obstacles.filter((box) => overlaps(box, mark.box));
      const others = marks.filter((other) => other !== mark && overlaps(other.box, mark.box));
      return [...solid, ...others].map((what) => ({ mark: mark.id, what }));
    });
    expect(touching).toEqual([]);
  });

  it('keeps marks of neighbouring systems apart and everything on the page', () => {
    for (const mark of marks) {
      expect(mark.box.y).toBeGreaterThan(0);
      expect(mark.box.y + mark.box.height).toBeLessThan(page.height);
      expect(mark.box.x).toBeGreaterThan(0);
    }
  });

  it('draws no place-keeping accidental', () => {
    const naturals = page.svg.match(/href="#E261/g) ?? [];
    const written = readFileSync(new URL(name, folder), 'utf8').match(/<accidental>natural/g) ?? [];
    expect(naturals.length).toBe(written.length);
  });
});

describe('the page reader', () => {
  it('lets nothing through but drawing', () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg"><desc>x</desc><defs><g id="E0A4-abc"><path d="M0 0"/></g></defs>
      <svg class="definition-scale" viewBox="0 0 100 200"><script>alert(1)</script><style>*{}</style>
      <g class="page-margin" transform="translate(5, 6)" onload="alert(2)"><a href="javascript:alert(3)"><path d="M1 1"/></a>
      <foreignObject><b>hi</b></foreignObject><image href="http://example.test/x.png"/>
      <use href="http://example.test/y.svg#z"/><use href="#E0A4-abc" x="1"/>
      <text onclick="alert(4)" style="background:url(http://example.test)">a &lt;b&gt; &amp; c</text></g></svg></svg>`;
    const page = readEngravedPage(svg, new Set());
    expect(page.svg).not.toMatch(
      /script|style|alert|foreignObject|image|example|javascript|onload|onclick|<b>/,
    );
    expect(page.svg).toContain('href="#E0A4-abc"');
    expect(page.svg).toContain('a &lt;b&gt; &amp; c');
    expect([page.width, page.height]).toEqual([100, 200]);
  });
});
