/** What the reader decided, and what it noticed: the codes; their wording is in the message catalogue. */

/** How the octave of the file was understood (handbook: clef with an 8, transposition, both or neither). */
export type OctaveReading =
  'frets' | 'clef' | 'transposition' | 'both-applied' | 'both-clef' | 'written' | 'sounding' | 'corrected';

/** What Oculon decided where the file left it open. */
export type Assumption =
  | { readonly code: 'part'; readonly name: string; readonly count: number }
  | { readonly code: 'octave'; readonly reading: OctaveReading }
  | { readonly code: 'tempo'; readonly quartersPerMinute: number }
  | { readonly code: 'tempoWord'; readonly word: string; readonly quartersPerMinute: number }
  | { readonly code: 'tuning'; readonly tuningId: string }
  | { readonly code: 'capo'; readonly fret: number }
  | { readonly code: 'phraseSlurs'; readonly count: number }
  | { readonly code: 'cueNotes'; readonly count: number }
  | { readonly code: 'hidden'; readonly count: number }
  | { readonly code: 'unpitched'; readonly count: number }
  | { readonly code: 'ornaments'; readonly count: number }
  | { readonly code: 'harmonics'; readonly count: number }
  | { readonly code: 'tablature'; readonly count: number }
  | { readonly code: 'converted'; readonly from: 'abc' | 'mei' };

/** Something in the file that the teacher should know of; the bar was read nevertheless. */
export type Notice =
  | {
      readonly code: 'overfull' | 'underfull';
      readonly measureIndex: number;
      readonly measure: string;
      readonly voice: string;
      readonly line: number;
      readonly hasQuarters: number;
      readonly wantsQuarters: number;
    }
  | {
      readonly code: 'ambiguousSlurs';
      readonly measureIndex: number;
      readonly measure: string;
      readonly count: number;
    }
  /** Notes that no string has: kept, and not played. */
  | {
      readonly code: 'outside';
      readonly measureIndex: number;
      readonly measure: string;
      readonly count: number;
    };
