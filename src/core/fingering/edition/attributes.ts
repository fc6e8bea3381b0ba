/** What an operation can set: each attribute with the things it belongs to and the values it takes. */
import { z } from 'zod';
import { TEXTURE_IDS, type Texture } from '../../figures/texture';
import { maybePlayer } from '../../instrument/hands';
import { LEFT_SCHOOL_IDS, type LeftSchoolId } from '../left/rules/schools';
import { maybeTuning } from '../../instrument/tuning';
import { maybeFraction } from '../../music/fraction';
import { maybePitch } from '../../music/pitchText';
import { DAMPS } from '../../marks/dampMarks';
import { type ExpressionId, EXPRESSIONS } from '../../marks/expressions';
import { BARRE_FRACTIONS, BARRE_LETTERS, DENSITIES, MARK_SIZES, PLUCK_SIDES } from '../../marks/style';
import { EFFECT_TAGS, PLUCKS } from '../../score/model';
import { RIGHT_SCHOOL_IDS, type RightSchoolId } from '../right/rules/schools';
import { REOPENINGS, REST_STROKES } from '../right/rules/style';
import { TREMOLO_IDS, type TremoloId } from '../right/rules/tremolo';

export type TargetKind = 'note' | 'bar' | 'piece';

const expression = (id: ExpressionId) => z.enum(Object.keys(EXPRESSIONS[id].values) as [string, ...string[]]);

const name = (most: number) => z.string().trim().min(1).max(most);

/** Rows: attribute, its kind of target, its values. Null always means that nothing is set. */
export const ATTRIBUTES = {
  finger: { target: 'note', value: z.int().min(0).max(4) },
  string: { target: 'note', value: z.int().min(1).max(6) },
  pluck: { target: 'note', value: z.enum(PLUCKS) },
  pitch: { target: 'note', value: z.string().refine((text) => maybePitch(text) !== null, 'no pitch') },
  tie: { target: 'note', value: z.boolean() },
  voice: { target: 'note', value: name(20) },
  length: { target: 'note', value: z.string().refine((text) => maybeFraction(text) !== null, 'no length') },
  mustRing: { target: 'note', value: z.literal(true) },
  staccato: { target: 'note', value: z.boolean() },
  leftOut: { target: 'note', value: z.literal(true) },
  /** Slurred from the note before in its voice; false plucks it, or refuses a proposal. */
  slur: { target: 'note', value: z.boolean() },
  effect: { target: 'note', value: z.enum(EFFECT_TAGS) },
  chord: { target: 'bar', value: name(16) },
  form: { target: 'bar', value: name(8) },
  /** A school of the right hand for this bar alone. */
  strokeSchool: { target: 'bar', value: z.enum(RIGHT_SCHOOL_IDS as [RightSchoolId, ...RightSchoolId[]]) },
  tuning: { target: 'piece', value: z.string().refine((text) => maybeTuning(text) !== null, 'no tuning') },
  capo: { target: 'piece', value: z.int().min(0).max(12) },
  tempo: { target: 'piece', value: z.number().min(20).max(400) },
  octave: { target: 'piece', value: z.int().min(-24).max(24) },
  /** Semitones by which the piece itself is put at another pitch, key and all. */
  transpose: { target: 'piece', value: z.int().min(-12).max(12) },
  slurs: { target: 'piece', value: z.enum(['ligado', 'phrase']) },
  hand: { target: 'piece', value: z.string().refine((id) => maybePlayer(id) !== null, 'no hand') },
  school: { target: 'piece', value: z.enum(LEFT_SCHOOL_IDS as [LeftSchoolId, ...LeftSchoolId[]]) },
  rightSchool: { target: 'piece', value: z.enum(RIGHT_SCHOOL_IDS as [RightSchoolId, ...RightSchoolId[]]) },
  startFinger: { target: 'piece', value: z.enum(['i', 'm', 'a']) },
  tremolo: { target: 'piece', value: z.enum(TREMOLO_IDS as [TremoloId, ...TremoloId[]]) },
  restStrokes: { target: 'piece', value: z.enum(REST_STROKES) },
  reopening: { target: 'piece', value: z.enum(REOPENINGS) },
  /** The texture that the note belongs to, where it is not what was read. */
  texture: { target: 'note', value: z.enum(TEXTURE_IDS as [Texture, ...Texture[]]) },
  littleFinger: { target: 'piece', value: z.literal(true) },
  /** How the page is marked; see `MarkStyle`. */
  density: { target: 'piece', value: z.enum(DENSITIES) },
  barreLetter: { target: 'piece', value: z.enum(BARRE_LETTERS) },
  barreFraction: { target: 'piece', value: z.enum(BARRE_FRACTIONS) },
  pluckSide: { target: 'piece', value: z.enum(PLUCK_SIDES) },
  markSize: { target: 'piece', value: z.enum(MARK_SIZES) },
  barDensity: { target: 'bar', value: z.enum(DENSITIES) },
  /** What is to be stopped after the note. */
  damp: { target: 'note', value: z.enum(DAMPS) },
  /** What the teacher says of a bar: printed under the copy. */
  remark: { target: 'bar', value: name(400) },
  /** How a note is to sound; see `EXPRESSIONS`. */
  dynamic: { target: 'note', value: expression('dynamic') },
  articulation: { target: 'note', value: expression('articulation') },
  gesture: { target: 'note', value: expression('gesture') },
  colour: { target: 'note', value: expression('colour') },
  attack: { target: 'note', value: expression('attack') },
  /** The note's signs are printed at every density. */
  alwaysPrint: { target: 'note', value: z.literal(true) },
} as const satisfies Readonly<Record<string, { readonly target: TargetKind; readonly value: z.ZodType }>>;

export type Attribute = keyof typeof ATTRIBUTES;
export type ValueOf<A extends Attribute> = z.infer<(typeof ATTRIBUTES)[A]['value']> | null;
export type Value = string | number | boolean | null;

export const ATTRIBUTE_NAMES = Object.keys(ATTRIBUTES) as readonly Attribute[];

/** Fingering is the teacher's ink; the lens is whose hand the piece is planned for; the style is how it is marked; everything else corrects. */
export const INK_ATTRIBUTES = ['finger', 'string', 'pluck'] as const satisfies readonly Attribute[];
export const LENS_ATTRIBUTES = [
  'hand',
  'school',
  'rightSchool',
  'strokeSchool',
  'startFinger',
  'tremolo',
  'restStrokes',
  'reopening',
  'littleFinger',
  'texture',
] as const satisfies readonly Attribute[];
export const STYLE_ATTRIBUTES = [
  'density',
  'barreLetter',
  'barreFraction',
  'pluckSide',
  'markSize',
  'barDensity',
  'remark',
  'damp',
  'dynamic',
  'articulation',
  'gesture',
  'colour',
  'attack',
  'alwaysPrint',
] as const satisfies readonly Attribute[];

const TARGETS: Readonly<Record<TargetKind, RegExp>> = {
  note: /^n[1-9]\d{0,6}$/,
  bar: /^b[1-9]\d{0,5}$/,
  piece: /^piece$/,
};

export const PIECE = 'piece';

export const fitsTarget = (attribute: Attribute, target: string): boolean =>
  TARGETS[ATTRIBUTES[attribute].target].test(target);

export const fitsValue = (attribute: Attribute, value: unknown): boolean =>
  value === null || ATTRIBUTES[attribute].value.safeParse(value).success;
