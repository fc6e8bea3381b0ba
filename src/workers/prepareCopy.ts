/** A stored document as it leaves the desk: planned, engraved for its paper, composed, or written for other programs. */
import type { NaturalBar } from '../core/copy/breakLines';
import { composeCopy, type CopyPage, type Setting } from '../core/copy/compose';
import { copySource, densityOfCopy, type Imprint } from '../core/copy/copySource';
import { PAPER_LETTERING } from '../core/copy/lettering';
import { type CopyOptions, sheetOfPaper } from '../core/copy/paper';
import { composePicture } from '../core/copy/picture';
import { barsNamed } from '../core/copy/rowTexts';
import { saidWords } from '../core/copy/saidWords';
import type { CopySource } from '../core/copy/source';
import type { EngravedPage } from '../core/engraving/page';
import { correctionsOf, inkOf, lensOf } from '../core/fingering/edition/registers';
import type { ScoreDocument } from '../core/formats/musicxml/readScore';
import type { Corrections } from '../core/score/corrections';
import type { Score } from '../core/score/model';
import { barKinds } from '../core/survey/sameMusic';
import { phrasesOf } from '../core/survey/phrases';
import { engraveForPaper } from './engrave';
import { type Exported, exportAs, type FileFormat, sourceOrThrow } from './exports';
import { plannerFor } from './preparePlan';
import { type DocumentInput, readInput, registersOf } from './readInput';
import { rolesOfScore } from './roles';

export interface CopyAsk extends Imprint {
  readonly input: DocumentInput;
  readonly options: CopyOptions;
  /** Printed numbers, "3, 5-8"; empty for all. */
  readonly countedBars: string;
}

/** A document fingered as its edition has it. */
export interface FingeredDocument {
  readonly text: string;
  readonly exported: Exported;
  readonly source: CopySource;
  readonly setting: Setting;
}

/** @throws Error for a document that was not imported before: a bug */
export function prepareFingered({ input, options, countedBars, ...imprint }: CopyAsk): FingeredDocument {
  const registers = registersOf(input);
  const { text, document } = readInput(input);
  const { score } = document;
  const planner = plannerFor(score, registers);
  const ink = inkOf(registers);
  const plan = planner.plan(ink);
  const script = options.include.includes('hotSpots') ? planner.script(ink) : [];
  const roles = new Map(rolesOfScore(score));
  const board = lensOf(registers).player.fretboard;
  const source = copySource({ score, plan, roles, registers, board, script }, options, imprint);
  const density = densityOfCopy(registers, options);
  const { marks } = source;
  const words = saidWords(source, options.include, countedBars);
  return {
    text,
    exported: {
      source: sourceOrThrow(input.bytes),
      document,
      registers,
      planner,
      plan,
      marks,
      density,
      whose: options.whose,
      words,
    },
    source,
    setting: { options, density, countedBars, lettering: PAPER_LETTERING },
  };
}

/** The pages of the copy. */
export async function pagesOf(fingered: FingeredDocument): Promise<readonly CopyPage[]> {
  const engraved = await engraveCopy(engravedDocument(fingered), fingered.setting.options);
  return composeCopy(engraved, fingered.source, fingered.setting);
}

/** @param bars printed numbers, "3-6"; all where none is named, or none that there is */
export async function pictureOf(fingered: FingeredDocument, bars: string): Promise<CopyPage> {
  const named = [...barsNamed(fingered.source.score, bars)];
  const last = fingered.source.score.measures.length - 1;
  const only =
    named.length === 0 ? { from: 0, to: last } : { from: Math.min(...named), to: Math.max(...named) };
  const engraved = await engraveCopy(engravedDocument(fingered), fingered.setting.options, only);
  return composePicture(engraved, fingered.source, fingered.setting, only);
}

export const fileOf = (fingered: FingeredDocument, format: FileFormat): Promise<Uint8Array> =>
  exportAs(format, fingered.exported);

const engravedDocument = ({ text, exported }: FingeredDocument): EngravedDocument => ({
  text,
  document: exported.document,
  corrections: correctionsOf(exported.registers),
});

export interface EngravedDocument {
  readonly text: string;
  readonly document: ScoreDocument;
  readonly corrections: Corrections;
}

/** The engraving alone: the same for every density. */
export async function engraveCopy(
  { text, document, corrections }: EngravedDocument,
  options: Pick<CopyOptions, 'paper' | 'orientation' | 'staff'>,
  only: { readonly from: number; readonly to: number } | null = null,
): Promise<EngravedPage> {
  const sheet = sheetOfPaper(options);
  return engraveForPaper(text, document, corrections, {
    // The engraver counts in tenths of what it draws in.
    pageWidth: Math.round((sheet.right - sheet.left) / 10),
    endsOf: endsOf(document.score),
    only,
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
