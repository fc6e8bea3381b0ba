/** Which part each note of a score has in the music. */
import type { Role } from '../core/fingering/problem/strike';
import { bareStrikesOf } from '../core/fingering/problem/strikes';
import type { Score } from '../core/score/model';

export type Roles = readonly (readonly [string, Role])[];

export const rolesOfScore = (score: Score): Roles =>
  bareStrikesOf(score).flatMap((strike) => strike.uids.map((uid) => [uid, strike.role] as const));
