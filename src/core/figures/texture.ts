/** The textures of guitar music: what a passage is, before anybody thinks of fingers. Source: handbook 13. */

/** Rows: what a teacher calls it, and how it is known. */
export const TEXTURES = {
  line: { known: 'one note at a time, stepwise or several to a string' },
  brokenChord: { known: 'one harmony, note after note over different strings' },
  tremolo: { known: 'one pitch struck again quickly between notes of the thumb' },
  chords: { known: 'several notes struck together' },
  afterbeats: { known: 'a low note, then chords or notes above it' },
  pedal: { known: 'one pitch that returns between the notes of a moving voice' },
  parallels: { known: 'thirds, sixths or chords of one form moving together' },
  slowMelody: { known: 'one note at a time, about 400 ms each or longer' },
  strum: { known: 'chords that are marked to be strummed' },
  mixed: { known: 'none of the others clearly enough' },
} as const satisfies Readonly<Record<string, { readonly known: string }>>;

export type Texture = keyof typeof TEXTURES;
export const TEXTURE_IDS = Object.keys(TEXTURES) as Texture[];
