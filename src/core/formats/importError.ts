import type { Limited } from './limits';

/** Why a file was refused: a code with its place. The wording lives in the message catalogue. */
export type ImportError =
  | { readonly code: 'empty' }
  | { readonly code: 'tooLarge'; readonly megabytes: number }
  /** More of something than any score has; `most`: what is taken. */
  | { readonly code: 'tooMuch'; readonly of: Limited; readonly most: number }
  | { readonly code: 'tookTooLong' }
  | { readonly code: 'encoding' }
  | { readonly code: 'notXml'; readonly line: number; readonly detail: string }
  | { readonly code: 'entities'; readonly line: number }
  | { readonly code: 'wrongRoot'; readonly root: string }
  | { readonly code: 'timewise' }
  | { readonly code: 'notZip' }
  | { readonly code: 'zipWithoutScore' }
  | { readonly code: 'unknownKind'; readonly name: string }
  | { readonly code: 'zipPath'; readonly path: string }
  | { readonly code: 'noSuchPart'; readonly wanted: number; readonly count: number }
  | { readonly code: 'abc'; readonly line: number; readonly detail: string }
  | { readonly code: 'mei'; readonly detail: string }
  | { readonly code: 'edition'; readonly place: string; readonly detail: string }
  | { readonly code: 'anotherPiece'; readonly share: number }
  | { readonly code: 'changedMeanwhile' }
  | { readonly code: 'unknownPiece' }
  | { readonly code: 'noNotes' }
  | { readonly code: 'percussion'; readonly measure: string; readonly voice: string; readonly line: number }
  | { readonly code: 'divisions'; readonly measure: string; readonly line: number; readonly value: string }
  | {
      readonly code: 'duration';
      readonly measure: string;
      readonly voice: string;
      readonly line: number;
      readonly value: string;
    }
  | {
      readonly code: 'pitch';
      readonly measure: string;
      readonly voice: string;
      readonly line: number;
      readonly value: string;
    }
  | { readonly code: 'backup'; readonly measure: string; readonly line: number }
  | {
      readonly code: 'outside';
      readonly measure: string;
      readonly voice: string;
      readonly line: number;
      readonly note: string;
      readonly lowest: string;
      readonly highest: string;
    };
