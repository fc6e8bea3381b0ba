/**
 * The shapes of chords as they are taught: a hand that forms one, or a part of one, at any fret is used to its tension.
 * Source: handbook 13, "Shapes": inside a chord what counts is tension between the fingers, not one finger a fret.
 */
import type { Stand } from './stand';

/** Frets and fingers from the sixth string to the first; x and 0 without a finger. Common practice. */
const TAUGHT: readonly (readonly [name: string, frets: string, fingers: string])[] = [
  ['C', 'x32010', 'x32010'],
  ['C, G on top', 'x32013', 'x32014'],
  ['C7', 'x32310', 'x32410'],
  ['C maj7', 'x32000', 'x32000'],
  ['D', 'xx0232', 'xx0132'],
  ['D, G on top', 'xx0233', 'xx0134'],
  ['D7', 'xx0212', 'xx0213'],
  ['D minor', 'xx0231', 'xx0231'],
  ['D minor, little finger', 'xx0231', 'xx0241'],
  ['E', '022100', '023100'],
  ['E7', '020100', '020100'],
  ['E7, four fingers', '022130', '023140'],
  ['E minor', '022000', '023000'],
  ['E minor, 1 2', '022000', '012000'],
  ['E minor 7', '022033', '012034'],
  ['F maj7', 'xx3210', 'xx3210'],
  ['F, small', 'xx321x', 'xx321x'],
  ['G', '320003', '210003'],
  ['G, 3 2 4', '320003', '320004'],
  ['G over B, 2 3 4', 'x20033', 'x20034'],
  ['G7', '320001', '320001'],
  ['A', 'x02220', 'x01230'],
  ['A, 2 1 3', 'x02220', 'x02130'],
  ['A, 2 3 4', 'x02220', 'x02340'],
  ['A7', 'x02020', 'x02030'],
  ['A minor', 'x02210', 'x02310'],
  ['A minor 7, G on top', 'x02213', 'x02314'],
  ['A minor 7', 'x02010', 'x02010'],
  ['B flat', 'x1333x', 'x1234x'],
  ['B7', 'x21202', 'x21304'],
];

/** Triads in close position on three neighbouring strings, and sixths: shapes that are moved, each as a whole. Common practice. */
const MOVED: typeof TAUGHT = [
  ['major, root below, treble', 'xxx553', 'xxx341'],
  ['minor, root below, treble', 'xxx543', 'xxx321'],
  ['diminished, root below, treble', 'xxx542', 'xxx431'],
  ['diminished, third below, treble', 'xxx434', 'xxx213'],
  ['minor, fifth below, treble', 'xxx231', 'xxx231'],
  ['major, root below, inner', 'xx543x', 'xx321x'],
  ['major, third below, inner', 'xx312x', 'xx312x'],
  ['minor, third below, inner', 'xx212x', 'xx213x'],
  ['minor, third below, inner, 3 1 4', 'xx212x', 'xx314x'],
  ['minor, fifth below, inner', 'xx221x', 'xx231x'],
  ['diminished, root below, inner', 'xx431x', 'xx421x'],
  ['diminished, fifth below, inner', 'xx121x', 'xx132x'],
  ['diminished seventh', 'xx1212', 'xx1324'],
  ['sixths on one fret', 'xx2x2x', 'xx2x3x'],
  ['sixths on one fret, treble', 'xxx2x2', 'xxx2x3'],
  ['sixths on one fret, bass', 'x2x2xx', 'x2x3xx'],
];

const FRETS = 32;
const STRINGS = 8;

/** Of the fingers that are down, as frets from the lowest one up; at most one string to a finger. */
type Form = readonly { readonly finger: number; readonly string: number; readonly fret: number }[];

function codeOf(form: Form): number {
  const lowest = Math.min(...form.map(({ fret }) => fret));
  return form.reduce(
    (code, { finger, string, fret }) =>
      code + (string * FRETS + fret - lowest + 1) * (STRINGS * FRETS) ** (finger - 1),
    0,
  );
}

const formOf = (frets: string, fingers: string): Form =>
  [...fingers].flatMap((finger, k) =>
    Number(finger) > 0 ? [{ finger: Number(finger), string: 6 - k, fret: Number(frets[k]) }] : [],
  );

/** Of two fingers and more. */
const partsOf = (form: Form): readonly Form[] =>
  Array.from({ length: 1 << form.length }, (_, bits) => form.filter((_one, k) => bits & (1 << k))).filter(
    (part) => part.length > 1,
  );

const CODES: ReadonlySet<number> = new Set([
  ...TAUGHT.flatMap(([, frets, fingers]) => partsOf(formOf(frets, fingers)).map(codeOf)),
  ...MOVED.map(([, frets, fingers]) => codeOf(formOf(frets, fingers))),
]);

/** Whether these fingers form a taught shape or a part of one, wherever on the neck. @param shape finger 1 to 4 at 0 to 3 */
export function isTaught(shape: readonly (Stand | null)[]): boolean {
  const form = shape.flatMap((stand, k) =>
    stand
      ? [{ finger: k + 1, string: stand.strings.length > 1 ? 0 : stand.strings[0]!, fret: stand.fret }]
      : [],
  );
  return form.length > 1 && CODES.has(codeOf(form));
}
