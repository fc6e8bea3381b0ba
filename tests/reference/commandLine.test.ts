/** The command line as others call it: files in, JSON and exit codes out. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, it } from 'vitest';
import { barXml, documentXml, noteXml } from '../helpers/music';

const root = fileURLToPath(new URL('../../', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'oculon-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const file = (name: string, content: string) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const oculon = (...args: readonly string[]) => {
  const { status, stdout, stderr } = spawnSync(join(root, 'oculon'), args, { encoding: 'utf8' });
  return { status, stdout, stderr };
};

interface Result {
  readonly notes: readonly { readonly string: number; readonly finger: number; readonly midi: number }[];
  readonly cost: number;
}
const resultOf = (name: string) =>
  JSON.parse(readFileSync(join(folder, `${name}.result.json`), 'utf8')) as Result;

const TUNE = 'X:1\nT:Small Gate\nM:4/4\nL:1/4\nK:C clef=treble-8\nCDEF|GABc|]\n';

describe('./oculon', () => {
  it('plan takes ABC; a bad file gets one line and exit code 2, the others go on', () => {
    const { status, stderr } = oculon(
      'plan',
      file('cut.musicxml', '<score-partwise><part'),
      file('gate.abc', TUNE),
      '--out',
      folder,
    );
    expect(status).toBe(2);
    expect(stderr.trim().split('\n')).toHaveLength(1);
    expect(stderr).toMatch(/cut\.musicxml: The file is not well-formed XML: line 1/);
    expect(resultOf('gate').notes.map((note) => note.midi)).toEqual([48, 50, 52, 53, 55, 57, 59, 60]);
  });

  it('check finds its own fingering playable and at the optimum', () => {
    execFileSync(join(root, 'oculon'), ['plan', join(root, 'demo/slow-window.musicxml'), '--out', folder]);
    const { status, stdout } = oculon('check', join(folder, 'slow-window.fingered.musicxml'));
    expect(status).toBe(0);
    const [judged] = JSON.parse(stdout) as {
      playable: boolean;
      cost: number;
      optimum: number;
      unusual: unknown[];
    }[];
    expect(judged).toMatchObject({ playable: true, unusual: [], cost: resultOf('slow-window').cost });
    expect(judged!.cost).toBe(judged!.optimum);
  });

  it('print writes a PDF of the paper that is asked for, and says what it cannot', () => {
    const walk = file(
      'walk.musicxml',
      barXml([64, 62, 60].map((midi, onset) => ({ midi, onset, length: 2 }))),
    );
    const { status } = oculon('print', walk, '--density', 'sparse', '--paper', 'letter', '--out', folder);
    expect(status).toBe(0);
    const pdf = readFileSync(join(folder, 'walk.pdf')).toString('latin1');
    expect(pdf.startsWith('%PDF-')).toBe(true);
    // Points of 1/72 in: letter is 8.5 in by 11 in.
    expect(pdf).toMatch(/\/MediaBox \[0 0 61[12](\.\d+)? 79[12](\.\d+)?\]/);
    const unknown = oculon('print', walk, '--density', 'airy');
    expect(unknown.status).toBe(2);
    expect(unknown.stderr).toMatch(/airy.*full, teaching, sparse/);
    expect(oculon('print').status).toBe(2);
  });

  it('drill writes a drill with the fingering that it prescribes, and names what there is', () => {
    const { status } = oculon('drill', 'finger-pairs', '--pair', '34', '--position', '7', '--out', folder);
    expect(status).toBe(0);
    const fingers = resultOf('finger-pairs').notes.map(({ finger }) => finger);
    expect(new Set(fingers)).toEqual(new Set([3, 4]));
    expect(readFileSync(join(folder, 'finger-pairs.fingered.musicxml'), 'utf8')).toContain(
      '<fingering>4</fingering>',
    );
    const unknown = oculon('drill', 'finger-pairs', '--pair', '99');
    expect([unknown.status, unknown.stderr]).toEqual([2, expect.stringMatching(/no “99”.*12, 23, 34/)]);
    expect(oculon('drill', 'juggling').stderr).toMatch(/one-finger-per-fret/);
    const typed = oculon(
      'drill',
      'chord-patterns',
      '--chords',
      'Am F C G7',
      '--hand',
      'teen',
      '--out',
      folder,
    );
    expect(typed.status).toBe(0);
    expect(oculon('drill', 'chord-patterns', '--chords', 'Am H').stderr).toMatch(
      /no “Am H”.*or up to 16 of C, G/,
    );
    const high = oculon('drill', 'slur-pairs', '--position', '9', '--hand', 'child-half', '--out', folder);
    expect(high.stderr).toMatch(/Not for this hand. It goes up to fret 10/);
  });

  it('drill cuts a passage out of a piece, with the fingering that it has there', () => {
    const piece = fileURLToPath(new URL('../../demo/late-ferry.musicxml', import.meta.url));
    const made = oculon(
      'drill',
      'piece-blocks',
      piece,
      '--from',
      '5',
      '--to',
      '6',
      '--each',
      '2',
      '--out',
      folder,
    );
    expect([made.status, made.stderr]).toEqual([0, '']);
    const notes = resultOf('piece-blocks').notes;
    expect(notes.length).toBeGreaterThan(4);
    expect(oculon('drill', 'piece-blocks', '--from', '5').stderr).toMatch(/Name the piece/);
    expect(oculon('drill', 'piece-blocks', piece, '--from', '99').stderr).toMatch(
      /“99” is no bar of the piece/,
    );
  });

  it('check ends with 1 and names the notes that no hand can play as printed', () => {
    const two = (midi: number) =>
      noteXml({
        midi,
        onset: 0,
        length: 2,
        extra: '<notations><technical><fingering>2</fingering></technical></notations>',
      });
    const chord = two(48) + two(52).replace('<note>', '<note><chord/>');
    const { status, stdout } = oculon('check', file('clash.musicxml', documentXml([chord])));
    expect(status).toBe(1);
    expect(JSON.parse(stdout)).toMatchObject([
      { playable: false, findings: [{ code: 'inkContradicts', notes: [{ measure: '1', voice: '1' }] }] },
    ]);
  });

  it('without a file to check says so', () => expect(oculon('check').status).toBe(2));
});
