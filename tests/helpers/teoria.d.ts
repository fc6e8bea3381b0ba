/** The music-theory library has no types of its own; these are the calls that the tests make. */
declare module 'teoria' {
  interface Note {
    midi(): number;
  }
  const teoria: { note(name: string): Note };
  export default teoria;
}
