/** The pages of a copy from a stored document: planned, engraved for its paper and composed. */
import { composeCopy, type CopyPage } from '../core/copy/compose';
import { copySource, densityOfCopy, type Imprint } from '../core/copy/copySource';
import type { NaturalBar } from '../core/copy/breakLines';
import { PAPER_LETTERING } from '../core/copy/lettering';
import { type CopyOptions, sheetOfPaper } from '../core/copy/paper';
import type { EngravedPage } from '../core/engraving/page';
import { correctionsOf, inkOf, lensOf } from '../core/fingering/edition/registers';
import { barKinds } from '../core/survey/sameMusic';
import { phrasesOf } from '../core/survey/phrases';
import type { ScoreDocument } from '../core/formats/musicxml/readScore';
import type { Corrections } from '../core/score/corrections';
import type { Score } from '../core/score/model';
import { engraveForPaper } from './engrave';
import { plannerFor } from './preparePlan';
import { type DocumentInput, readInput, registersOf } from './readInput';
import { rolesOfScore } from './roles';

export interface CopyAsk extends Imprint {
  readonly input: DocumentInput;
  readonly options: CopyOptions;
  readonly countedBars: string;
}

/** @throws Error for a document that was not imported before: a bug */
export async function prepareCopy({
  input,
  options,
  countedBars,
  ...imprint
}: CopyAsk): Promise<readonly CopyPage[]> {
  const registers = registersOf(input);
  const { text, document } = readInput(input);
  const { score } = document;
  const planner = plannerFor(score, registers);
  const ink = inkOf(registers);
  const plan = planner.plan(ink);
  const script = options.include.includes('hotSpots') ? planner.script(ink) : [];
  const engraved = await engraveCopy({ text, document, corrections: correctionsOf(registers) }, options);
  const roles = new Map(rolesOfScore(score));
  const source = copySource(
    { score, plan, roles, registers, board: lensOf(registers).player.fretboard, script },
    options,
    imprint,
  );
  const density = densityOfCopy(registers, options);
  return composeCopy(engraved, source, { options, density, countedBars, lettering: PAPER_LETTERING });
}

export interface EngravedDocument {
  readonly text: string;
  readonly document: ScoreDocument;
  readonly corrections: Corrections;
}

/** The engraving alone: the same for every density. */
export async function engraveCopy(
  { text, document, corrections }: EngravedDocument,
  options: Pick<CopyOptions, 'paper' | 'orientation' | 'staff'>,
): Promise<EngravedPage> {
  const sheet = sheetOfPaper(options);
  return engraveForPaper(text, document, corrections, {
    // The engraver counts in tenths of what it draws in.
    pageWidth: Math.round((sheet.right - sheet.left) / 10),
    endsOf: endsOf(document.score),
  });
}

/** Where the music ends: a double bar, a repeat, a phrase. */
function endsOf(score: Score): (bar: number) => NaturalBar['ends'] {
  const phraseEnds = new Set(phrasesOf(score, barKinds(score), new Map()).map(({ toBar }) => toBar));
  return (bar) => {
    const measure = score.measures[bar];
    if (measure?.sectionEnd || measure?.repeatEnd) return 'section';
    return phraseEnds.has(bar) ? 'phrase' : null;
  };
}
