import { describe, expect, it } from 'vitest';
import { ASSUMPTIONS, FINDINGS, IMPORT_ERRORS, NOTICES, REASONS } from './en';
import { LEFT_TERMS } from '../fingering/left/rules/terms';

/** A value with every parameter that any message uses. */
const SAMPLE = {
  code: '',
  megabytes: 21,
  line: 7,
  detail: 'unclosed tag',
  root: 'html',
  name: 'a.pdf',
  count: 2,
  measure: '12',
  value: '-1',
  voice: '1',
  note: 'B1',
  lowest: 'E2',
  highest: 'B5',
  reading: 'clef',
  quartersPerMinute: 88,
  tuningId: 'sixth-to-d',
  uids: ['n1'],
  lostQuarters: 0.5,
  end: 'handMoves',
  windowMs: 180,
  neededMs: 240,
  thereMs: 180,
  path: '../score.xml',
  wanted: 3,
  place: 'notes[4]',
  fret: 2,
  word: 'Andante',
  share: 0.1,
  from: 'abc',
  fault: 'strings',
  hasQuarters: 5,
  wantsQuarters: 4,
  of: 'bars',
  most: 2000,
};

const tables = { IMPORT_ERRORS, ASSUMPTIONS, NOTICES, FINDINGS };
const sentences = Object.entries(tables).flatMap(([table, texts]) =>
  Object.entries(texts as unknown as Record<string, (value: typeof SAMPLE) => string>).map(
    ([code, text]) => [`${table}.${code}`, text({ ...SAMPLE, code })] as const,
  ),
);

describe('the message catalogue', () => {
  it.each(sentences)('%s is one clear sentence', (_id, sentence) => {
    expect(sentence).toMatch(/^[A-Z“]/);
    expect(sentence).toMatch(/[^.]\.$/);
    expect(sentence).not.toMatch(/undefined|NaN|\[object|\$\{| {2}|!|oops|please|sorry/i);
    expect(sentence.length).toBeLessThan(220);
  });

  it.each(Object.entries(IMPORT_ERRORS))('import error %s says what to do', (code, text) => {
    const sentence = (text as (value: typeof SAMPLE) => string)({ ...SAMPLE, code });
    expect(sentence).toMatch(/export|choose|use |check|correct/);
  });

  it('has a short reason for each term of the left hand', () => {
    expect(Object.keys(REASONS).sort()).toEqual(Object.keys(LEFT_TERMS).sort());
    for (const reason of Object.values(REASONS)) expect(reason.length).toBeLessThan(40);
  });
});
