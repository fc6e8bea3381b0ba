/**
 * What is planted and what opens on each stroke of an order that goes round. Source: handbook 6, "Script of the hand":
 * fingers that go up the strings one after the other are planted at once, on the thumb's stroke before them; going down,
 * each as the one before it plays. A finger that has played is closed until it opens: on the thumb's stroke all of
 * them, or each only when it goes back.
 */
import type { Pluck } from '../score/model';

export type Reopening = 'oneByOne' | 'together';

export interface Plan {
  readonly letter: Pluck;
  /** Put on their strings while this stroke sounds, in the order in which they will play. */
  readonly plants: readonly Pluck[];
  /** That had closed after their strokes and go back on this one. */
  readonly opens: readonly Pluck[];
}

const RANK: Readonly<Record<string, number>> = { i: 0, m: 1, a: 2 };

/** @param rounds how often the order is played */
export function plantingScript(
  order: readonly Pluck[],
  rounds: number,
  reopening: Reopening,
): readonly Plan[] {
  const strokes = Array.from({ length: rounds }, () => order).flat();
  const planted = new Set<Pluck>();
  const closed = new Set<Pluck>();
  return strokes.map((letter, k): Plan => {
    planted.delete(letter);
    if (letter !== 'p') closed.add(letter);
    const plants = comingUp(strokes, k).filter((finger) => finger !== letter && !planted.has(finger));
    const opens = fingersThatOpen(letter, plants, closed, reopening);
    opens.forEach((finger) => closed.delete(finger));
    plants.forEach((finger) => planted.add(finger));
    return { letter, plants, opens };
  });
}

/** After p the whole ascending run; else the next finger alone. The thumb finds its own string. */
function comingUp(strokes: readonly Pluck[], k: number): readonly Pluck[] {
  const next = strokes[k + 1];
  if (next === undefined || next === 'p') return [];
  if (strokes[k] !== 'p') return [next];
  const run: Pluck[] = [next];
  for (let n = k + 2; n < strokes.length && strokes[n] !== 'p'; n++) {
    if (RANK[strokes[n]!]! <= RANK[run.at(-1)!]!) break;
    run.push(strokes[n]!);
  }
  return run;
}

function fingersThatOpen(
  letter: Pluck,
  plants: readonly Pluck[],
  closed: ReadonlySet<Pluck>,
  reopening: Reopening,
): readonly Pluck[] {
  if (reopening === 'together')
    return letter === 'p' ? [...closed] : plants.filter((finger) => closed.has(finger));
  return plants.filter((finger) => closed.has(finger));
}
