/** Sheets of paper and how large music stands on them. */
import { z } from 'zod';
import type { MarkState } from '../marks/mark';

export const PAPERS = {
  a4: { widthMm: 210, heightMm: 297 },
  letter: { widthMm: 215.9, heightMm: 279.4 },
} as const;
export type Paper = keyof typeof PAPERS;
export const PAPER_IDS = Object.keys(PAPERS) as [Paper, ...Paper[]];
export const ORIENTATIONS = ['portrait', 'landscape'] as const;

/** Height of a staff in mm. Source: common practice, 7 mm for parts; the larger two for weak eyes. */
export const STAFF_SIZES = { normal: 6.8, large: 8.2, largest: 9.8 } as const;
export type StaffSize = keyof typeof STAFF_SIZES;

/** What can be printed besides the fingered score. */
export const INCLUDABLE = [
  'tablature',
  'chords',
  'form',
  'counting',
  'remarks',
  'legend',
  'hotSpots',
  'grips',
] as const;
export type Includable = (typeof INCLUDABLE)[number];

/** All marks, what the teacher or the file has decided, or the teacher's alone. */
export const WHOSE = {
  all: ['pencil', 'ink', 'printed'],
  decided: ['ink', 'printed'],
  ink: ['ink'],
} as const satisfies Readonly<Record<string, readonly MarkState[]>>;
export type Whose = keyof typeof WHOSE;
export const WHOSE_IDS = Object.keys(WHOSE) as [Whose, ...Whose[]];

export const copyOptionsSchema = z.strictObject({
  paper: z.enum(PAPER_IDS),
  orientation: z.enum(ORIENTATIONS),
  staff: z.enum(Object.keys(STAFF_SIZES) as [StaffSize, ...StaffSize[]]),
  /** Null is that of the edition, with the bars that have one of their own. */
  density: z.enum(['full', 'teaching', 'sparse']).nullable(),
  /** Whether proposed, decided and printed marks differ in form, or all look decided. */
  looks: z.enum(['told', 'alike']),
  /** Whose marks are on it. */
  whose: z.enum(WHOSE_IDS).default('all'),
  include: z.array(z.enum(INCLUDABLE)).max(INCLUDABLE.length),
});
export type CopyOptions = z.infer<typeof copyOptionsSchema>;

export const PLAIN_COPY: CopyOptions = {
  paper: 'a4',
  orientation: 'portrait',
  staff: 'normal',
  density: null,
  looks: 'told',
  whose: 'all',
  include: ['remarks', 'legend'],
};

/** Of the engraver's units a staff space has so many. */
export const UNITS_IN_A_SPACE = 180;
const MARGINS_MM = { side: 15, top: 14, bottom: 15 } as const;

/** A sheet in the engraver's units: what is drawn is scaled to mm once, at the end. */
export interface Sheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly unitsPerMm: number;
  readonly width: number;
  readonly height: number;
  /** What may be written on. */
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

export function sheetOfPaper({
  paper,
  orientation,
  staff,
}: Pick<CopyOptions, 'paper' | 'orientation' | 'staff'>): Sheet {
  const { widthMm: short, heightMm: long } = PAPERS[paper];
  const [widthMm, heightMm] = orientation === 'portrait' ? [short, long] : [long, short];
  const unitsPerMm = (4 * UNITS_IN_A_SPACE) / STAFF_SIZES[staff];
  return {
    widthMm,
    heightMm,
    unitsPerMm,
    width: widthMm * unitsPerMm,
    height: heightMm * unitsPerMm,
    left: MARGINS_MM.side * unitsPerMm,
    right: (widthMm - MARGINS_MM.side) * unitsPerMm,
    top: MARGINS_MM.top * unitsPerMm,
    bottom: (heightMm - MARGINS_MM.bottom) * unitsPerMm,
  };
}
