/** Numbers as they are said everywhere. */

/** Efforts are kept in tenths of a point and said in points: "3.4". */
export const points = (tenths: number): string => (tenths / 10).toFixed(1);

/** "bar 3, beat 2.5". */
export const barAndBeat = ({ bar, beat }: { readonly bar: string; readonly beat: string }): string =>
  `bar ${bar}, beat ${beat}`;

/** "1 note", "3 notes". */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;
