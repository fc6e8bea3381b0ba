/** What a reading student's left hand remembers: what sounds, and where each pitch and each bar was played. */
import type { Place, Reading } from './readNote';
import type { WrittenNote } from './writtenNote';

/** So long what was played is remembered, in bars. */
export const MEMORY_BARS = 2;

/** What is known before a note, but for the position of the hand. */
export type Surroundings = Omit<Reading, 'position'>;

interface Played extends Place {
  readonly note: WrittenNote;
}

export class LeftMemory {
  private readonly lastOf = new Map<number, Played>();
  private readonly placeOf = new Map<string, Place>();
  private sounding: readonly Played[] = [];
  private played: Played[] = [];

  /** To be called at each moment, before its notes are read. */
  begin(ticks: number): void {
    for (const one of this.played) this.lastOf.set(one.note.midi, one);
    const struck = new Set(this.played.map(({ string }) => string));
    this.sounding = [...this.sounding.filter(({ string }) => !struck.has(string)), ...this.played].filter(
      ({ note }) => note.endTicks > ticks,
    );
    this.played = [];
  }

  /** @param barre the fret of a barre that is marked over the moment */
  around(note: WrittenNote, barre: number | null): Surroundings {
    const known = this.lastOf.get(note.midi);
    const twin = note.twin === null ? undefined : this.placeOf.get(note.twin);
    return {
      barre,
      busy: [...this.sounding, ...this.played].filter(({ fret }) => fret > 0),
      taken: new Set(this.played.map(({ string }) => string)),
      shared: this.played.find(({ note: other }) => isUnison(other, note)) ?? null,
      before: twin ?? (known && note.measure - known.note.measure < MEMORY_BARS ? known : null),
    };
  }

  play(note: WrittenNote, { string, fret, finger }: Place): void {
    this.placeOf.set(note.uid, { string, fret, finger });
    this.played.push({ string, fret, finger, note });
  }

  /** What the moment has placed so far. */
  get here(): readonly Place[] {
    return this.played;
  }
}

/** Two voices that write one pitch at once share one sound; two noteheads of one voice do not. */
const isUnison = (a: WrittenNote, b: WrittenNote) => a.midi === b.midi && a.voice !== b.voice;
