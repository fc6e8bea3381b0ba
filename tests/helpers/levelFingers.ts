/** Fingers on one fret in the integer program: where another finger, or a barre, would do better. */
import { priceOf } from '../../src/core/fingering/left/rules/ledger';
import { WITHOUT_INDEX } from '../../src/core/fingering/left/rules/shares';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import { anyOf, type Column, under } from './integerProgram';
import type { LinearProgram } from './linearProgram';

/** Fingers on one fret with nothing open between: three, two of them side by side, or 1 and another across while all are down. */
export function withoutBarre(
  model: LinearProgram,
  { weights }: FingeringProblem,
  columns: readonly Column[],
  { and, taught }: { readonly and: readonly string[]; readonly taught: readonly string[] },
) {
  const cost = priceOf(weights, 'contraction', 2);
  const pay = (level: readonly Column[], with_: readonly string[], unless: readonly Column[]) => {
    const strings = level.map(({ place }) => place.string);
    const between = under(columns, 0).filter(
      ({ place: { string } }) => string > Math.min(...strings) && string < Math.max(...strings),
    );
    const names = (some: readonly Column[]) => some.map(({ name }) => name);
    model.together(cost, [...names(level), ...with_, ...and], [...taught, ...names([...between, ...unless])]);
  };
  const levelsOf = (fingers: readonly number[]) =>
    fingers
      .reduce<readonly (readonly Column[])[]>(
        (rows, finger) => rows.flatMap((row) => under(columns, finger).map((one) => [...row, one])),
        [[]],
      )
      .filter((row) => row.every(({ place }) => place.fret === row[0]!.place.fret));
  const widthOf = (level: readonly Column[]) => {
    const strings = level.map(({ place }) => place.string);
    return Math.max(...strings) - Math.min(...strings);
  };
  const areNeighbours = (level: readonly Column[]) =>
    level.some((a) => level.some((b) => b.place.string === a.place.string + 1));
  const TRIOS = [
    [1, 2, 3],
    [1, 2, 4],
    [1, 3, 4],
    [2, 3, 4],
  ];
  for (const trio of TRIOS)
    for (const level of levelsOf(trio))
      if (widthOf(level) > 2 && areNeighbours(level)) pay(level, [], trio[0] === 1 ? [] : under(columns, 1));
  for (const other of [2, 3, 4])
    for (const level of levelsOf([1, other])) {
      if (widthOf(level) < 4) continue;
      const rest = [2, 3, 4].filter((finger) => finger !== other).map((finger) => under(columns, finger));
      const onFret = rest.flat().filter(({ place }) => place.fret === level[0]!.place.fret);
      const down = rest.map((some) =>
        anyOf(model, `n_${level.map(({ name }) => name).join('')}_${some[0]?.place.finger}`, some),
      );
      if (rest.every((some) => some.length > 0)) pay(level, down, onFret);
    }
}

/** 2 3 4 on one fret and three neighbouring strings with the index free. */
export function withoutIndex(
  model: LinearProgram,
  { weights }: FingeringProblem,
  columns: readonly Column[],
  and: readonly string[],
) {
  const index = under(columns, 1).map(({ name }) => name);
  const trios = under(columns, 2).flatMap((a) =>
    under(columns, 3).flatMap((b) => under(columns, 4).map((c) => [a, b, c] as const)),
  );
  for (const trio of trios)
    if (
      trio.every(({ place }) => place.fret === trio[0].place.fret) &&
      Math.abs(trio[0].place.string - trio[2].place.string) === 2
    )
      model.together(
        priceOf(weights, 'contraction', WITHOUT_INDEX),
        [...trio.map(({ name }) => name), ...and],
        index,
      );
}
