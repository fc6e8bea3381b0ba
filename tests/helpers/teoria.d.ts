/** The music-theory library has no types of its own; these are the calls that the tests make. */
declare module 'teoria' {
  interface Note {
    midi(): number;
    /** Pitch class, 0 = C. */
    chroma(): number;
    accidentalValue(): number;
    interval(name: string): Note;
    /** "C#4". */
    scientific(): string;
    scale(name: string): { notes(): readonly Note[]; simple(): readonly string[] };
  }
  const teoria: { note(name: string): Note; chord(name: string): { notes(): readonly Note[] } };
  export default teoria;
}
