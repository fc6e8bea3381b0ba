/**
 * What crosses between the desk and its workers: plain records. A generation names the opened piece, an
 * operation number the state of its ink; answers that carry old numbers are dropped by whoever gets them.
 */
import type { EngravedPage } from '../core/engraving/page';
import type { InkMarks } from '../core/fingering/ink';
import type { FingeringPlan, NoteChoices } from '../core/fingering/plan';
import type { Role } from '../core/fingering/problem';
import type { ExportKind } from '../core/formats/musicxml/exportFingered';
import type { ImportError } from '../core/formats/importError';
import type { Score } from '../core/score/model';

export type InkEntries = readonly (readonly [string, InkMarks])[];

export type PlannerRequest =
  | {
      readonly kind: 'open';
      readonly generation: number;
      readonly source: Uint8Array;
      readonly ink: InkEntries;
    }
  | {
      readonly kind: 'apply';
      readonly generation: number;
      readonly operation: number;
      readonly ink: InkEntries;
    }
  | { readonly kind: 'prices'; readonly generation: number; readonly operation: number; readonly uid: string }
  | { readonly kind: 'export'; readonly generation: number; readonly as: ExportKind }
  | { readonly kind: 'close'; readonly generation: number };

export type PlannerAnswer =
  | {
      readonly kind: 'opened';
      readonly generation: number;
      readonly score: Score;
      readonly roles: readonly (readonly [string, Role])[];
    }
  | { readonly kind: 'refused'; readonly generation: number; readonly error: ImportError }
  | {
      readonly kind: 'planned';
      readonly generation: number;
      readonly operation: number;
      readonly plan: FingeringPlan;
      readonly planMs: number;
    }
  | {
      readonly kind: 'prices';
      readonly generation: number;
      readonly operation: number;
      readonly choices: NoteChoices;
    }
  | { readonly kind: 'exported'; readonly generation: number; readonly bytes: Uint8Array };

export interface EngraverRequest {
  readonly generation: number;
  readonly source: Uint8Array;
}

export interface EngraverAnswer {
  readonly generation: number;
  readonly page: EngravedPage | null;
}
