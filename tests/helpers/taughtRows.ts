/** The taught shapes of the integer program: which of them the fingers that are down form. */
import { isTaught } from '../../src/core/fingering/left/rules/taughtShapes';
import { maybeStandAt, standOn } from '../../src/core/fingering/left/rules/stand';
import { placeId } from '../../src/core/fingering/left/rules/place';
import type { Moment } from '../../src/core/fingering/problem/problem';
import { type Column, sum } from './integerProgram';
import type { LinearProgram } from './linearProgram';

/** One column for each place of a finger, whichever note it stops. */
type Form = readonly Column[];

/** Names of binaries of which one may be 1 where the fingers form such a shape, no finger more and none less. */
export function taughtShape(
  model: LinearProgram,
  moment: Moment,
  columns: readonly Column[],
): readonly string[] {
  const stopped = columns.filter(({ place }) => place.finger > 0);
  return formsOf(stopped).map((form, n) => {
    const name = `t_${moment.index}_${n}`;
    model.binaries.add(name);
    for (const one of form) model.row([[1, name], ...sum(stopped.filter(alike(one)), -1)], '<=', 0);
    for (const other of stopped) if (!form.some(alike(other))) model.notBoth(name, other.name);
    return name;
  });
}

const alike = (a: Column) => (b: Column) => placeId(a.place) === placeId(b.place);

function formsOf(stopped: readonly Column[]): readonly Form[] {
  let forms: Form[] = [[]];
  for (let finger = 1; finger <= 4; finger++) {
    const places = stopped.filter(
      (one, k) => one.place.finger === finger && stopped.findIndex(alike(one)) === k,
    );
    forms = [...forms, ...forms.flatMap((form) => places.map((one) => [...form, one]))];
  }
  return forms.filter((form) =>
    isTaught(
      [1, 2, 3, 4].map((finger) => {
        const column = form.find(({ place }) => place.finger === finger);
        return column ? maybeStandAt(standOn(placeId(column.place))) : null;
      }),
    ),
  );
}
