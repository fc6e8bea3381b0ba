/** What the server makes ready for the desk: the engraved page with its score, and the plan of both hands. */
import {
  type Registers,
  correctionsOf,
  inkOf,
  lensOf,
  listRegisters,
} from '../core/fingering/edition/registers';
import type { EngravedPage } from '../core/engraving/page';
import type { FingeringPlan } from '../core/fingering/report/plan';
import { Planner } from '../core/fingering/planner';
import type { Role } from '../core/fingering/problem/problem';
import { strikesOf } from '../core/fingering/problem/strikes';
import { readMusicXmlText } from '../core/formats/musicxml/bytes';
import type { KnownUids } from '../core/formats/musicxml/readEvents';
import { readScore, type ScoreDocument } from '../core/formats/musicxml/readScore';
import type { Score } from '../core/score/model';
import { engrave } from './engrave';

/** A document with everything that decides how it is read. */
export interface DocumentInput {
  readonly bytes: Uint8Array;
  readonly partIndex: number;
  readonly uids: KnownUids | null;
  readonly convertedFrom: 'abc' | 'mei' | null;
  /** Entries of the edition's registers. */
  readonly registers: readonly (readonly [string, string | number | boolean])[];
}

export type Roles = readonly (readonly [string, Role])[];

/** Everything that the first paint of the desk needs besides the marks. */
export interface PreparedPage {
  readonly page: EngravedPage;
  readonly score: Score;
  readonly roles: Roles;
}

export const registersOf = (input: DocumentInput): Registers => new Map(input.registers) as Registers;

/** @throws Error for a document that was not imported before: a bug */
export function readInput(input: DocumentInput): { readonly text: string; readonly document: ScoreDocument } {
  const source = readMusicXmlText(input.bytes);
  const corrections = correctionsOf(registersOf(input));
  const document = source.ok ? readScore(source.value.text, { ...input, corrections }) : source;
  if (!source.ok || !document.ok) throw new Error('a stored document cannot be read');
  return { text: source.value.text, document: document.value };
}

export const rolesOfScore = (score: Score): Roles =>
  strikesOf(score).flatMap((strike) => strike.uids.map((uid) => [uid, strike.role] as const));

export async function preparePage(input: DocumentInput): Promise<PreparedPage> {
  const { text, document } = readInput(input);
  const page = await engrave(text, document, correctionsOf(registersOf(input)));
  return { page, score: document.score, roles: rolesOfScore(document.score) };
}

/** A planner for whoever the piece is fingered for. */
export function plannerFor(score: Score, registers: Registers): Planner {
  const { player, school, right, schoolOfBar, textureOf } = lensOf(registers);
  return new Planner(score, player.fretboard, player.hand, school, {
    style: right,
    schoolOfBar: (bar) => schoolOfBar.get(bar) ?? null,
    textureOf: (note) => textureOf.get(note) ?? null,
    refusedSlurs: new Set(
      listRegisters(registers)
        .filter(({ attribute, value }) => attribute === 'slur' && value === false)
        .map(({ target }) => target),
    ),
  });
}

export function preparePlan(input: DocumentInput): { readonly plan: FingeringPlan; readonly score: Score } {
  const { document } = readInput(input);
  const planner = plannerFor(document.score, registersOf(input));
  return { plan: planner.plan(inkOf(registersOf(input))), score: document.score };
}

/** Changes with the planner or its weights: part of the key of what is stored. */
export const PLANNING = 'plan-12';
