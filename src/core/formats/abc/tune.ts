/** The parts of a parsed ABC tune that music is made of, as the ABC reader hands them over. */
import { z } from 'zod';

const pitch = z.object({
  pitch: z.number(),
  accidental: z.string().optional(),
  startTie: z.unknown().optional(),
  endTie: z.unknown().optional(),
  startSlur: z.array(z.object({ label: z.number() })).optional(),
  endSlur: z.array(z.number()).optional(),
});

const key = z.object({
  accidentals: z.array(z.object({ acc: z.string(), note: z.string() })).optional(),
  root: z.string().optional(),
  mode: z.string().optional(),
});

const metre = z.object({
  type: z.string(),
  value: z.array(z.object({ num: z.string(), den: z.string().optional() })).optional(),
});

const element = z.object({
  el_type: z.string(),
  type: z.string().optional(),
  duration: z.union([z.number(), z.array(z.number())]).optional(),
  bpm: z.number().optional(),
  pitches: z.array(pitch).optional(),
  gracenotes: z
    .array(pitch.extend({ duration: z.number().optional(), acciaccatura: z.boolean().optional() }))
    .optional(),
  rest: z.object({ type: z.string(), text: z.number().optional() }).optional(),
  startTriplet: z.number().optional(),
  tripletMultiplier: z.number().optional(),
  endTriplet: z.boolean().optional(),
  decoration: z.array(z.string()).optional(),
  chord: z.array(z.object({ name: z.string(), position: z.string().optional() })).optional(),
  lyric: z.array(z.object({ syllable: z.string() })).optional(),
  startEnding: z.string().optional(),
  endEnding: z.boolean().optional(),
  ...key.shape,
  value: metre.shape.value,
});

export const tuneSchema = z.object({
  metaText: z.object({
    title: z.string().optional(),
    tempo: z.object({ duration: z.array(z.number()).optional(), bpm: z.number().optional() }).optional(),
  }),
  lines: z.array(
    z.object({
      staff: z
        .array(
          z.object({
            clef: z.object({ type: z.string() }).optional(),
            key: key.optional(),
            meter: metre.optional(),
            title: z.array(z.string().nullish()).optional(),
            voices: z.array(z.array(element)),
          }),
        )
        .optional(),
    }),
  ),
});

export type AbcTune = z.infer<typeof tuneSchema>;
export type AbcElement = z.infer<typeof element>;
export type AbcKey = z.infer<typeof key>;
export type AbcMetre = z.infer<typeof metre>;
