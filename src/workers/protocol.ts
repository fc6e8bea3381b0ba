/**
 * What crosses between the desk and its workers: plain records. A generation names the opened piece, an
 * operation number the state of its edition; answers that carry old numbers are dropped by whoever gets them.
 */
import type { EngravedPage } from '../core/engraving/page';
import type { HandAction } from '../core/fingering/left/explain/handScript';
import type { InkMarks } from '../core/fingering/problem/ink';
import type { FingeringPlan, NoteChoices } from '../core/fingering/report/plan';
import type { ExportKind } from '../core/formats/musicxml/exportFingered';
import type { ImportError } from '../core/formats/importError';
import type { Way } from '../core/fingering/formulas/compare';
import type { StrokeAction } from '../core/fingering/right/explain/strokeScript';
import type { SlurSuggestion } from '../core/fingering/slurs/suggest';
import type { Pluck, Score } from '../core/score/model';
import type { DocumentInput } from './readInput';
import type { Roles } from './preparePage';

export type InkEntries = readonly (readonly [string, InkMarks])[];

interface Tagged {
  readonly generation: number;
  readonly operation: number;
}

export type PlannerRequest =
  /** Reads the document under the corrections among its registers; asked again whenever these change. */
  | (Tagged & { readonly kind: 'open'; readonly input: DocumentInput })
  | (Tagged & { readonly kind: 'apply'; readonly ink: InkEntries })
  | (Tagged & { readonly kind: 'prices'; readonly uid: string })
  | (Tagged & { readonly kind: 'script' })
  | (Tagged & { readonly kind: 'slurs' })
  /** Moments from and to, both counted. */
  | (Tagged & { readonly kind: 'ways'; readonly from: number; readonly to: number })
  | (Tagged & {
      readonly kind: 'formula';
      readonly from: number;
      readonly to: number;
      readonly formula: string;
    })
  | { readonly kind: 'export'; readonly generation: number; readonly as: ExportKind }
  | { readonly kind: 'close'; readonly generation: number };

export type PlannerAnswer =
  | (Tagged & { readonly kind: 'opened'; readonly score: Score; readonly roles: Roles })
  | (Tagged & { readonly kind: 'refused'; readonly error: ImportError })
  | (Tagged & { readonly kind: 'planned'; readonly plan: FingeringPlan; readonly planMs: number })
  | (Tagged & { readonly kind: 'prices'; readonly choices: NoteChoices })
  | (Tagged & {
      readonly kind: 'script';
      readonly script: readonly HandAction[];
      readonly strokes: readonly StrokeAction[];
    })
  | (Tagged & { readonly kind: 'slurs'; readonly slurs: readonly SlurSuggestion[] })
  | (Tagged & {
      readonly kind: 'ways';
      readonly from: number;
      readonly to: number;
      readonly ways: readonly Way[];
    })
  /** The letters that the formula gives, by note. */
  | (Tagged & { readonly kind: 'formula'; readonly plucks: readonly (readonly [string, Pluck])[] })
  | { readonly kind: 'exported'; readonly generation: number; readonly bytes: Uint8Array };

export type EngraverRequest = Tagged & { readonly input: DocumentInput };

/** Null for a document that cannot be read: the planner says why. */
export type EngraverAnswer = Tagged & { readonly page: EngravedPage | null };
