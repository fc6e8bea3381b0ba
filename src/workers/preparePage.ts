/** What the server makes ready for the first paint of the desk: the engraved page with its score. */
import type { EngravedPage } from '../core/engraving/page';
import { DESK_WIDTH } from '../core/engraving/widths';
import { correctionsOf } from '../core/fingering/edition/registers';
import type { Score } from '../core/score/model';
import { engrave, FIRST_BARS, maybeEngraveBeginning } from './engrave';
import { type Roles, rolesOfScore } from './roles';
import { type DocumentInput, readInput, registersOf } from './readInput';

/** Everything that the first paint of the desk needs besides the marks. */
export interface PreparedPage {
  readonly page: EngravedPage;
  readonly score: Score;
  readonly roles: Roles;
}

export async function preparePage(input: DocumentInput, pageWidth = DESK_WIDTH): Promise<PreparedPage> {
  const { text, document } = readInput(input);
  const page = await engrave(text, document, correctionsOf(registersOf(input)), pageWidth);
  return { page, score: document.score, roles: rolesOfScore(document.score) };
}

/** The first systems of a long piece, which are there before the whole can be; null for others. */
export async function maybePrepareBeginning(
  input: DocumentInput,
  pageWidth = DESK_WIDTH,
  firstBars = FIRST_BARS,
): Promise<PreparedPage | null> {
  const { text, document } = readInput(input);
  const corrections = correctionsOf(registersOf(input));
  const page = await maybeEngraveBeginning(text, document, corrections, pageWidth, firstBars);
  return page && { page, score: document.score, roles: rolesOfScore(document.score) };
}
