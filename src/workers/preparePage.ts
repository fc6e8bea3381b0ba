/** What the server makes ready for the first paint of the desk: the engraved page with its score. */
import type { EngravedPage } from '../core/engraving/page';
import { correctionsOf } from '../core/fingering/edition/registers';
import type { Role } from '../core/fingering/problem/strike';
import { strikesOf } from '../core/fingering/problem/strikes';
import type { Score } from '../core/score/model';
import { engrave } from './engrave';
import { type DocumentInput, readInput, registersOf } from './readInput';

export type Roles = readonly (readonly [string, Role])[];

/** Everything that the first paint of the desk needs besides the marks. */
export interface PreparedPage {
  readonly page: EngravedPage;
  readonly score: Score;
  readonly roles: Roles;
}

export const rolesOfScore = (score: Score): Roles =>
  strikesOf(score).flatMap((strike) => strike.uids.map((uid) => [uid, strike.role] as const));

export async function preparePage(input: DocumentInput): Promise<PreparedPage> {
  const { text, document } = readInput(input);
  const page = await engrave(text, document, correctionsOf(registersOf(input)));
  return { page, score: document.score, roles: rolesOfScore(document.score) };
}
