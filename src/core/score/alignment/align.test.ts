import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { documentXml, noteXml, scoreOrThrow } from '../../../../tests/helpers/music';
import { alignScores } from './align';
import { uidsOfNextVersion } from './nextUids';

/** A bar as its notes: pitch and length in eighths. */
type Bar = readonly { readonly midi: number; readonly length: number; readonly id: number }[];

const barXml = (bar: Bar) =>
  bar.map(({ midi, length }) => noteXml({ midi, onset: 0, length })).join('') ||
  '<note><rest/><duration>8</duration></note>';

const scoreOf = (bars: readonly Bar[]) => scoreOrThrow(documentXml(bars.map(barXml)));

/** Uids by the notes' own identities, in document order. */
const uidsById = (bars: readonly Bar[]) => new Map(bars.flat().map((note, k) => [note.id, `n${k + 1}`]));

let lastId = 0;
const barArbitrary = fc
  .array(fc.record({ midi: fc.integer({ min: 45, max: 76 }), length: fc.constantFrom(1, 2) }), {
    minLength: 3,
    maxLength: 8,
  })
  .map((notes): Bar => notes.map((note) => ({ ...note, id: ++lastId })));

const piece = fc.array(barArbitrary, { minLength: 4, maxLength: 14 });
const mutations = fc.array(
  fc.record({
    kind: fc.constantFrom('insert', 'remove', 'pitch'),
    at: fc.nat(),
    bar: barArbitrary,
    note: fc.nat(),
  }),
  { minLength: 1, maxLength: 4 },
);

function mutated(
  bars: readonly Bar[],
  steps: readonly { kind: string; at: number; bar: Bar; note: number }[],
) {
  let result = [...bars];
  for (const step of steps) {
    const at = step.at % result.length;
    if (step.kind === 'insert') result.splice(at, 0, step.bar);
    else if (step.kind === 'remove' && result.length > 2) result.splice(at, 1);
    else {
      const note = step.note % result[at]!.length;
      const changed = result[at]!.map((one, k) =>
        k === note ? { ...one, midi: one.midi + 13 > 80 ? one.midi - 13 : one.midi + 13, id: ++lastId } : one,
      );
      result = result.map((bar, k) => (k === at ? changed : bar));
    }
  }
  return result;
}

describe('the alignment of a newer score', () => {
  it('never loses more inked notes than were changed (random files, random changes)', () => {
    fc.assert(
      fc.property(piece, mutations, fc.nat(), (bars, steps, seed) => {
        const next = mutated(bars, steps);
        const oldIds = uidsById(bars);
        const nextIds = uidsById(next);
        const inkedIds = [...oldIds.keys()].filter((id) => (id * 7919 + seed) % 3 === 0);
        const inked = new Set(inkedIds.map((id) => oldIds.get(id)!));
        const alignment = alignScores(scoreOf(bars), scoreOf(next), inked);
        // Found for certain, or found and asked about.
        const found = new Set([...alignment.notes.values(), ...alignment.doubtful.map(({ from }) => from)]);
        const unchangedInked = inkedIds.filter((id) => nextIds.has(id)).length;
        expect([...inked].filter((uid) => found.has(uid)).length).toBeGreaterThanOrEqual(unchangedInked);
        expect(found.size).toBe(alignment.notes.size + alignment.doubtful.length);
      }),
      { numRuns: 300 },
    );
  });

  it('pairs each note with itself when bars differ from each other', () => {
    const bars = Array.from({ length: 12 }, (_, k): Bar =>
      [0, 4, 7, 12].map((step, j) => ({ midi: 45 + k + step, length: 2, id: 1000 + k * 10 + j })),
    );
    const inserted: Bar = [40, 41, 42, 43].map((midi, j) => ({ midi, length: 2, id: 5000 + j }));
    const next = [...bars.slice(0, 3), inserted, ...bars.slice(3, 7), ...bars.slice(8)];
    const alignment = alignScores(scoreOf(bars), scoreOf(next), new Set());
    const oldIds = uidsById(bars);
    for (const [id, uid] of uidsById(next)) {
      expect(alignment.notes.get(uid)).toBe(oldIds.get(id));
    }
    expect(alignment.added).toHaveLength(4);
    expect(alignment.lost).toHaveLength(4);
  });

  it('lets the ink of a bar that is gone go with it, however like the next one is', () => {
    const bar = (midis: readonly number[], id: number): Bar =>
      midis.map((midi, k) => ({ midi, length: 2, id: id + k }));
    const bars = [
      bar([52, 55, 59, 64], 1),
      bar([52, 57, 60, 64], 11),
      bar([52, 57, 60, 65], 21),
      bar([50, 57, 62, 65], 31),
    ];
    // The second bar goes; all but one of its notes are in the third, too.
    const next = [bars[0]!, bars[2]!, bars[3]!];
    const oldIds = uidsById(bars);
    const inked = new Set([11, 12, 13, 14].map((id) => oldIds.get(id)!));
    const alignment = alignScores(scoreOf(bars), scoreOf(next), inked);
    expect([...alignment.notes.values()].filter((uid) => inked.has(uid))).toEqual([]);
    for (const [id, uid] of uidsById(next)) expect(alignment.notes.get(uid)).toBe(oldIds.get(id));
  });

  it('of equal bars of which one goes, keeps those with ink', () => {
    const bar = (id: number): Bar => [
      { midi: 60, length: 2, id },
      { midi: 64, length: 2, id: id + 1 },
    ];
    const bars = [bar(1), bar(3), bar(5)];
    for (const inked of [
      ['n1', 'n4'],
      ['n3', 'n6'],
      ['n2', 'n5'],
    ]) {
      const alignment = alignScores(scoreOf(bars), scoreOf(bars.slice(1)), new Set(inked));
      expect(alignment.lost.some((uid) => inked.includes(uid))).toBe(false);
    }
  });

  describe('asks about the ink of a note that was found', () => {
    const XML = (notes: readonly string[]) => documentXml([notes.join(''), notes.join('')]);
    const plain = [60, 64, 67, 72].map((midi) => noteXml({ midi, onset: 0, length: 2 }));
    const old = scoreOrThrow(XML(plain));
    const doubtsOf = (notes: readonly string[]) =>
      alignScores(old, scoreOrThrow(documentXml([notes.join(''), plain.join('')])), new Set(['n2']));
    const lengths = [2, 3, 1, 2].map((length, k) =>
      noteXml({ midi: [60, 64, 67, 72][k]!, onset: 0, length }),
    );
    const swapped = [plain[0]!, plain[2]!, plain[1]!, plain[3]!];
    const otherVoice = plain.map((note, k) => (k === 1 ? note.replace('<voice>1', '<voice>2') : note));
    const otherBar = [61, 64, 66, 70].map((midi) => noteXml({ midi, onset: 0, length: 2 }));
    it.each([
      ['of another length', lengths, 'length'],
      ['at another place', swapped, 'place'],
      ['in another voice', otherVoice, 'voice'],
      ['in a bar of which it alone is left', otherBar, 'bar'],
    ])('%s', (_name, notes, doubt) => {
      const { doubtful, notes: pairs, lost } = doubtsOf(notes);
      expect(doubtful).toEqual([{ from: 'n2', to: expect.stringMatching(/^n[23]$/) as unknown, doubt }]);
      expect([...pairs.values()]).not.toContain('n2');
      expect(lost).not.toContain('n2');
    });

    it('and not where voices have only got other numbers', () => {
      const two = [
        ...plain.slice(0, 2),
        ...plain.slice(2).map((note) => note.replace('<voice>1', '<voice>2')),
      ];
      const renumbered = two.map((note) => note.replace('<voice>2', '<voice>5'));
      const all = new Set(['n1', 'n2', 'n3', 'n4']);
      const { doubtful } = alignScores(scoreOrThrow(XML(two)), scoreOrThrow(XML(renumbered)), all);
      expect(doubtful).toEqual([]);
    });
  });

  it('finds a piece that another program wrote an octave apart, in other ticks, with a bar cut in two', () => {
    const notes = [60, 62, 64, 65, 67, 69, 71, 72];
    const one = scoreOrThrow(
      documentXml([notes.map((midi) => noteXml({ midi, onset: 0, length: 1 })).join('')]),
    );
    const half = (part: readonly number[]) =>
      part.map((midi) => noteXml({ midi: midi + 12, onset: 0, length: 3 })).join('');
    const plain =
      '<clef><sign>G</sign><line>2</line></clef><transpose><octave-change>-1</octave-change></transpose>';
    const two = scoreOrThrow(documentXml([half(notes.slice(0, 4)), half(notes.slice(4))], plain, 6));
    const alignment = alignScores(one, two, new Set());
    expect(alignment.lost).toEqual([]);
    expect([...alignment.notes].every(([next, old]) => next === old)).toBe(true);
  });

  it('gives a changed pitch a new name and keeps all others', () => {
    const bars: Bar[] = [[60, 62, 64].map((midi, k) => ({ midi, length: 2, id: k }))];
    const next: Bar[] = [[60, 63, 64].map((midi, k) => ({ midi, length: 2, id: k }))];
    const alignment = alignScores(scoreOf(bars), scoreOf(next), new Set(['n2']));
    expect(alignment.lost).toEqual(['n2']);
    const uids = uidsOfNextVersion(alignment, 3, 1, ['b1'], { nextNote: 4, nextBar: 2 });
    expect(uids).toEqual({ notes: ['n1', 'n4', 'n3'], bars: ['b1'], nextNote: 5, nextBar: 2 });
  });
});
