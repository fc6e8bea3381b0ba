/**
 * Oculon's own open format: one edition of one piece in a JSON file, with the score that it belongs to. The
 * schema is published in `docs/formats`; every version that there ever was is read.
 */
import { z } from 'zod';
import { type Attribute, ATTRIBUTE_NAMES, fitsTarget, fitsValue } from '../../fingering/edition/attributes';
import { listRegisters, type Registers } from '../../fingering/edition/registers';
import { fraction, fractionText } from '../../music/fraction';
import { pitchName } from '../../music/pitch';
import { fail, ok, type Result } from '../../result';
import { PLUCKS, type Score } from '../../score/model';
import type { ImportError } from '../importError';

export const EDITION_VERSION = 2;

const base64 = z.string().regex(/^[A-Za-z0-9+/]*={0,2}$/);
const noteName = z.string().regex(/^n[1-9]\d{0,6}$/);
const barName = z.string().regex(/^b[1-9]\d{0,5}$/);

const scoreSchema = z.strictObject({
  kind: z.enum(['musicxml', 'abc', 'mei']),
  fileName: z.string().min(1).max(300),
  source: base64.describe('The imported file, unchanged.'),
  document: base64.nullable().describe('The MusicXML that a file of another kind became.'),
  part: z.int().min(0).describe('Which part of the score, from 0.'),
  noteNames: z
    .array(noteName)
    .nullable()
    .describe('Names of the noteheads in document order; null: n1, n2 …'),
  barNames: z.array(barName).nullable().describe('Names of the bars in document order; null: b1, b2 …'),
});

const noteSchema = z.strictObject({
  name: noteName,
  bar: barName,
  onset: z.string().describe('Quarters from the start of the bar, as a fraction.'),
  duration: z.string().describe('Quarters, ties joined.'),
  pitch: z.string().describe('As the file spells it.'),
  soundingMidi: z.int(),
  voice: z.string(),
});

/** Plain, so that it can be written down as JSON Schema; that values fit their attributes is checked after it. */
const markSchema = z.strictObject({
  target: z.string().describe('A note, a bar or "piece".'),
  attribute: z.enum(ATTRIBUTE_NAMES as [Attribute, ...Attribute[]]),
  value: z.union([z.string().max(200), z.number(), z.boolean()]),
});

export const editionSchema = z.strictObject({
  format: z.literal('oculon-edition'),
  version: z.literal(EDITION_VERSION),
  title: z.string(),
  score: scoreSchema,
  notes: z.array(noteSchema).describe('For readers that do not read the score itself.'),
  marks: z.array(markSchema).max(200_000).describe('What the teacher has set.'),
});

export type EditionFile = z.infer<typeof editionSchema>;

/** The first version knew fingering alone, and one kind of file. */
export const editionSchemaV1 = z.strictObject({
  format: z.literal('oculon-edition'),
  version: z.literal(1),
  title: z.string(),
  score: z.strictObject({ fileName: z.string().min(1).max(300), source: base64 }),
  fingering: z.array(
    z.strictObject({
      note: noteName,
      finger: z.int().min(0).max(4).nullable(),
      string: z.int().min(1).max(6).nullable(),
      pluck: z.enum(PLUCKS).nullable(),
    }),
  ),
});

export function upcastEdition(old: z.infer<typeof editionSchemaV1>): EditionFile {
  return {
    format: 'oculon-edition',
    version: EDITION_VERSION,
    title: old.title,
    score: { ...old.score, kind: 'musicxml', document: null, part: 0, noteNames: null, barNames: null },
    notes: [],
    marks: old.fingering.flatMap(({ note, ...marks }) =>
      (['finger', 'string', 'pluck'] as const).flatMap((attribute) => {
        const value = marks[attribute];
        return value === null ? [] : [{ target: note, attribute, value }];
      }),
    ),
  };
}

export interface EditionContent {
  readonly title: string;
  readonly score: EditionFile['score'];
  readonly read: Score;
  readonly registers: Registers;
}

export function editionFile({ title, score, read, registers }: EditionContent): EditionFile {
  const text = (ticks: number) => fractionText(fraction(ticks, read.ticksPerQuarter));
  return {
    format: 'oculon-edition',
    version: EDITION_VERSION,
    title,
    score,
    notes: read.notes.map((note) => {
      const measure = read.measures[note.measureIndex]!;
      return {
        name: note.uid,
        bar: measure.uid,
        onset: text(note.onsetTicks - measure.startTicks),
        duration: text(note.durationTicks),
        pitch: pitchName(note.pitch),
        soundingMidi: note.soundingMidi,
        voice: note.voice,
      };
    }),
    marks: listRegisters(registers).map(({ target, attribute, value }) => ({ target, attribute, value })),
  };
}

/** Reads the text of an edition of any version. The first thing that does not fit is named with its place. */
export function readEditionFile(text: string): Result<EditionFile, ImportError> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    const detail = error instanceof Error ? error.message.slice(0, 80) : 'no JSON';
    return fail({ code: 'edition', place: 'the file is no JSON', detail });
  }
  const head = z.object({ format: z.literal('oculon-edition'), version: z.number() }).safeParse(json);
  if (!head.success) return fail({ code: 'edition', place: 'format', detail: 'it is no edition of Oculon' });
  if (head.data.version > EDITION_VERSION) {
    const detail = `version ${head.data.version} is newer than this Oculon reads (${EDITION_VERSION})`;
    return fail({ code: 'edition', place: 'version', detail });
  }
  const parsed =
    head.data.version === 1
      ? editionSchemaV1.transform(upcastEdition).safeParse(json)
      : editionSchema.safeParse(json);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return fail({
      code: 'edition',
      place: issue.path.join('.') || 'the file',
      detail: lowered(issue.message),
    });
  }
  const wrong = parsed.data.marks.findIndex(
    (mark) => !fitsTarget(mark.attribute, mark.target) || !fitsValue(mark.attribute, mark.value),
  );
  if (wrong >= 0) {
    const { attribute, target, value } = parsed.data.marks[wrong]!;
    const detail = `${target} cannot have ${attribute} ${JSON.stringify(value)}`;
    return fail({ code: 'edition', place: `marks.${wrong}`, detail });
  }
  return ok(parsed.data);
}

const lowered = (message: string) => message.charAt(0).toLowerCase() + message.slice(1);

/** The published schema. Source: JSON Schema 2020-12. */
export const editionJsonSchema = (): object => ({
  ...z.toJSONSchema(editionSchema, { target: 'draft-2020-12' }),
  title: 'An edition of Oculon, version 2',
});
