/**
 * Why a mark is printed. begins: the piece begins. shift: the hand comes to another position. guide: a finger stays on
 * its string through a shift. barre: one finger lies across strings. habit: without it a student would play what is
 * named, or not know. pattern: a figure of the right hand goes round for the first time. twin: the same music is played
 * otherwise elsewhere. column: the other fingers of its chord are printed. touch: a harmonic is found nowhere else.
 * decided: the teacher wants it. file: it came with the file.
 */
export type MarkCause =
  | { readonly code: 'begins' | 'guide' | 'barre' | 'column' | 'touch' | 'decided' | 'file' }
  | { readonly code: 'shift'; readonly position: number }
  | { readonly code: 'habit'; readonly would: string | null }
  | { readonly code: 'pattern'; readonly formula: string }
  | { readonly code: 'twin'; readonly bar: string };
