/** What a fingered piece can be saved as. */
export const FORMATS = {
  pdf: { extension: 'pdf', type: 'application/pdf', words: 'the copy as PDF' },
  musicxml: {
    extension: 'musicxml',
    type: 'application/vnd.recordare.musicxml+xml',
    words: 'fingered score (MusicXML)',
  },
  mxl: { extension: 'mxl', type: 'application/vnd.recordare.musicxml', words: 'the same, compressed' },
  mei: { extension: 'mei', type: 'application/xml', words: 'fingered score (MEI)' },
  abc: { extension: 'abc', type: 'text/vnd.abc', words: 'fingered score (ABC)' },
  midi: { extension: 'mid', type: 'audio/midi', words: 'MIDI, as written' },
  midiByString: { extension: 'strings.mid', type: 'audio/midi', words: 'MIDI, a channel for each string' },
  notes: { extension: 'notes.csv', type: 'text/csv', words: 'table of the notes (CSV)' },
  hand: { extension: 'hand.csv', type: 'text/csv', words: 'script of the hand (CSV)' },
  svg: { extension: 'svg', type: 'image/svg+xml', words: 'picture of some bars (SVG)' },
  png: { extension: 'png', type: 'image/png', words: 'picture of some bars (PNG)' },
} as const;
export type Format = keyof typeof FORMATS;
export const FORMAT_IDS = Object.keys(FORMATS) as [Format, ...Format[]];

/** Those that show some bars and not the whole piece. */
export const PICTURES: readonly Format[] = ['svg', 'png'];
