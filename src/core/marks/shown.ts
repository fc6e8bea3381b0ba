/** What of a fingering is printed, at the density that the edition or a bar of its own has. */
import type { Ink } from '../fingering/problem/ink';
import { NO_INK } from '../fingering/problem/ink';
import type { PlannedNote } from '../fingering/report/plan';
import type { Mark } from './mark';
import { inkedMarks, isShown, type MarkSource, type PlainMarks } from './marksOf';
import { fewestSigns, type Forced } from './sparse/fewest';
import type { Signs } from './sparse/signs';
import { stringMarks, stringsJoin, unlikeHighest } from './stringMarks';
import type { Density } from './style';

export interface Showing {
  readonly density: Density;
  /** Bars with a density of their own. */
  readonly densityOfBar: ReadonlyMap<string, Density>;
  /** Notes whose signs are printed at every density. */
  readonly kept: ReadonlySet<string>;
}

export const showing = (density: Density): Showing => ({
  density,
  densityOfBar: new Map(),
  kept: new Set(),
});

/** @param full all marks, where they have been made already */
export function shownMarks(
  plain: PlainMarks,
  ink: Ink,
  wanted: Showing,
  full: readonly Mark[] = inkedMarks(plain, ink),
): readonly Mark[] {
  const densityAt = densities(plain, wanted);
  const isKept = (mark: Mark) => wanted.kept.has(mark.uid) && KEPT.includes(mark.kind);
  const isSparse = [wanted.density, ...wanted.densityOfBar.values()].includes('sparse');
  if (!isSparse) {
    if (wanted.density === 'full' && wanted.densityOfBar.size === 0) return full;
    return full.filter(
      (mark) => isKept(mark) || isShown(mark, densityAt(mark.uid) as Density & ('full' | 'teaching')),
    );
  }
  return sparseMarks(plain, ink, full, { densityAt, kept: wanted.kept });
}

const KEPT: readonly Mark['kind'][] = ['finger', 'pluck', 'string'];

function densities({ sourceFor }: PlainMarks, { density, densityOfBar }: Showing): (uid: string) => Density {
  if (densityOfBar.size === 0) return () => density;
  const { score } = sourceFor(new Map());
  const barOf = new Map(score.notes.map(({ uid, measureIndex }) => [uid, score.measures[measureIndex]!.uid]));
  return (uid) => densityOfBar.get(barOf.get(uid) ?? '') ?? density;
}

interface Rules {
  readonly densityAt: (uid: string) => Density;
  readonly kept: ReadonlySet<string>;
}

function sparseMarks(plain: PlainMarks, ink: Ink, full: readonly Mark[], rules: Rules): readonly Mark[] {
  const source = plain.sourceFor(ink);
  const says = saysString(source, rules);
  const { signs } = sparseSigns(plain, source, (uid) =>
    forcedAt(plain.planned.get(uid)!, source, rules, says),
  );
  const shown = full.filter((mark) => {
    if (mark.kind === 'string') return false;
    const density = rules.densityAt(mark.uid);
    return isSigned(mark, signs) || (density !== 'sparse' && isShown(mark, density));
  });
  const strings = stringMarks(plain.plan.notes, source, (note) => signs.strings.has(note.uid));
  return [...shown, ...strings];
}

/** The fewest signs of a plan under what is forced, with their number. */
export const sparseSigns = (
  { plan, planned, written, marks }: PlainMarks,
  source: MarkSource,
  forced: (uid: string) => Forced,
) =>
  fewestSigns({
    written,
    planned,
    barres: plan.barres,
    arrivals: arrivalsOf(marks),
    forced,
    joins: (a, b) => stringsJoin(planned.get(a)!, planned.get(b)!, source),
  });

/** Every numeral of the full page, by its note. */
const arrivalsOf = (marks: readonly Mark[]): ReadonlyMap<string, number> =>
  new Map(
    marks
      .filter(({ kind }) => kind === 'position')
      .flatMap(({ uid, causes }) =>
        causes.flatMap((cause) => (cause.code === 'shift' ? [[uid, cause.position] as const] : [])),
      ),
  );

function isSigned({ kind, uid }: Mark, signs: Signs): boolean {
  switch (kind) {
    case 'finger':
      return signs.fingers.has(uid);
    case 'pluck':
      return signs.letters.has(uid);
    case 'position':
      return signs.positions.has(uid);
    case 'barre':
    case 'damp':
    case 'touch':
    case 'expression':
    case 'remark':
    case 'unplanned':
      return true;
    default:
      return false;
  }
}

/** Where another density than sparse says the string. */
function saysString(source: MarkSource, { densityAt }: Rules): (note: PlannedNote) => boolean {
  const atFull = unlikeHighest(source);
  return (note) => {
    const density = densityAt(note.uid);
    if (density === 'sparse' || !atFull(note)) return false;
    return density === 'full' || source.causesOf(note.uid).string.length > 0;
  };
}

/** What another density prints, what is kept, and ink that the plan does not know of yet. */
function forcedAt(
  note: PlannedNote,
  { ink, causesOf }: MarkSource,
  { densityAt, kept }: Rules,
  says: (note: PlannedNote) => boolean,
): Forced {
  const density = densityAt(note.uid);
  const own = ink.get(note.uid) ?? NO_INK;
  const isKept = kept.has(note.uid);
  const nothingInked = own.finger === null && own.string === null && own.pluck === null;
  const causes = causesOf(note.uid);
  const isForced = (attribute: 'finger' | 'string' | 'pluck') => {
    if (own[attribute] !== null && (isKept || own[attribute] !== note[attribute])) return true;
    if (attribute === 'string') return says(note);
    if (isKept && nothingInked) return true;
    return density === 'full' || (density === 'teaching' && causes[attribute].length > 0);
  };
  return { finger: isForced('finger'), string: isForced('string'), pluck: isForced('pluck') };
}
