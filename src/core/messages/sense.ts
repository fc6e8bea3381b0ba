/** Why a mark cannot be, in words. */
import type { Refusal } from '../fingering/edition/sense';

/** @param finger what was pressed, where it was a finger */
export function refusalText(why: Refusal, name: string, finger: number | null): string {
  switch (why.code) {
    case 'onlyOpen':
      return `${name} is only an open string here: no finger ${finger ?? ''} can stop it. Nothing was changed.`;
    case 'neverOpen':
      return `No open string sounds ${name}: it has to be stopped. Nothing was changed.`;
    case 'belowString':
      return `${name} lies below string ${why.string}. Nothing was changed.`;
    case 'aboveString':
      return `${name} would be fret ${why.fret} of string ${why.string}, and the neck ends before. Nothing was changed.`;
  }
}
