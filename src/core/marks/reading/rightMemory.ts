/** What a reading student's right hand remembers, and the letters that it would play. */
import type { Pluck } from '../../score/model';
import { MEMORY_BARS } from './leftMemory';
import { figurePlaces, readLetters, type Struck } from './readLetter';
import type { WrittenNote } from './writtenNote';

/** A stroke: what is struck at once and where, lowest string first. */
export interface ReadStroke {
  readonly struck: readonly Struck[];
  readonly measure: number;
}

/** Those of a moment's notes that are plucked, on the strings where they have been found. */
export function strokeOf(
  moment: readonly WrittenNote[],
  stringOf: (uid: string) => number | null,
): ReadStroke | null {
  const struck = moment
    .flatMap((note): readonly (Struck & { measure: number })[] => {
      const string = stringOf(note.uid);
      const { uid, role, texture, measure } = note;
      return note.plucked && string !== null ? [{ uid, string, role, texture, measure }] : [];
    })
    .sort((a, b) => b.string - a.string);
  return struck.length === 0 ? null : { struck, measure: struck[0]!.measure };
}

export class RightMemory {
  private lastFinger: Pluck | null = null;
  private otherFinger: Pluck | null = null;
  private beforeLast: Pluck | null = null;
  private sinceThumb = 0;
  private stringsBefore: readonly number[] = [];
  private readonly figures = new Map<
    string,
    { readonly letters: readonly Pluck[]; readonly measure: number }
  >();

  /** What would be played, note by note of the stroke. */
  read({ struck, measure }: ReadStroke): readonly Pluck[] {
    const known = this.placesOf(struck).map((place) => this.figures.get(place));
    const figure = known.find((one) => one && measure - one.measure < MEMORY_BARS)?.letters ?? null;
    return readLetters(struck, { lastFinger: this.lastFinger, otherFinger: this.otherFinger, figure });
  }

  /** What was played. */
  play({ struck, measure }: ReadStroke, letters: readonly Pluck[]): void {
    for (const place of this.placesOf(struck)) this.figures.set(place, { letters, measure });
    this.stringsBefore = struck.map(({ string }) => string);
    this.sinceThumb = letters.includes('p') ? 0 : this.sinceThumb + 1;
    const fingers = letters.filter((letter) => letter !== 'p');
    if (fingers.length !== 1) return;
    const [finger] = fingers;
    const isTurn = finger === this.beforeLast && finger !== this.lastFinger;
    this.otherFinger = isTurn ? this.lastFinger : null;
    this.beforeLast = this.lastFinger;
    this.lastFinger = finger!;
  }

  private placesOf = (struck: readonly Struck[]) => figurePlaces(struck, this.stringsBefore, this.sinceThumb);
}
