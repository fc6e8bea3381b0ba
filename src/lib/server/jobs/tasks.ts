/** The server's heavy work as data: what a thread is asked and what it answers. */
import { gzipSync } from 'node:zlib';
import { type CopyMark, copyMarks } from '../../../core/copy/copyMark';
import type { Format } from '../../../core/copy/formats';
import { type DrillProposal, drillsFor } from '../../../core/drills/proposals';
import type { Routine } from '../../../core/drills/routine';
import { routineSheet } from '../../../core/drills/routineSheet';
import { outlined } from '../../../print/outline';
import { pdfOf } from '../../../print/pdf';
import { pngOf } from '../../../print/png';
import type { ImportError } from '../../../core/formats/importError';
import type { Result } from '../../../core/result';
import type { FingeringPlan } from '../../../core/fingering/report/plan';
import type { Score } from '../../../core/score/model';
import {
  type ImportedScore,
  importNextVersion,
  importScore,
  type NextVersion,
  type StoredVersion,
} from '../../../foreign/importScore';
import { type DocumentInput } from '../../../workers/readInput';
import { maybePrepareBeginning, preparePage } from '../../../workers/preparePage';
import {
  type CopyAsk,
  fileOf,
  type FingeredDocument,
  pagesOf,
  pictureOf,
  prepareFingered,
} from '../../../workers/prepareCopy';
import { preparePlan } from '../../../workers/preparePlan';

export interface Tasks {
  readonly import: {
    readonly ask: {
      readonly bytes: Uint8Array;
      readonly fileName: string;
      readonly partIndex: number | null;
    };
    readonly answer: Result<ImportedScore, ImportError>;
  };
  readonly nextVersion: {
    readonly ask: {
      readonly old: StoredVersion;
      readonly bytes: Uint8Array;
      readonly fileName: string;
      readonly partIndex: number | null;
      readonly inked: readonly string[];
      readonly used: { readonly nextNote: number; readonly nextBar: number };
    };
    readonly answer: Result<NextVersion, ImportError>;
  };
  /** The first systems of a long piece; all of a short one. */
  readonly beginning: {
    readonly ask: DocumentInput;
    readonly answer: { readonly content: Uint8Array; readonly firstLine: string; readonly isWhole: boolean };
  };
  readonly page: {
    readonly ask: DocumentInput;
    readonly answer: { readonly content: Uint8Array; readonly firstLine: string };
  };
  readonly copy: {
    readonly ask: CopyAsk & { readonly date: Date; readonly format: Format; readonly bars: string };
    readonly answer: { readonly content: Uint8Array; readonly marks: readonly CopyMark[] };
  };
  readonly routine: {
    readonly ask: { readonly routine: Routine; readonly date: Date };
    readonly answer: { readonly content: Uint8Array };
  };
  readonly plan: {
    readonly ask: DocumentInput;
    readonly answer: { readonly content: Uint8Array; readonly summary: PlanSummary };
  };
}

export type TaskName = keyof Tasks;

/** What the shelf says of a plan. */
export interface PlanSummary {
  readonly leftCost: number;
  readonly rightCost: number;
  /** Printed numbers of the bars with the greatest effort, greatest first. */
  readonly hardestBars: readonly string[];
  readonly unplayable: number;
  readonly drills: readonly Omit<DrillProposal, 'chosen'>[];
}

type Handlers = { readonly [N in TaskName]: (ask: Tasks[N]['ask']) => Promise<Tasks[N]['answer']> };

export const HANDLERS: Handlers = {
  import: ({ bytes, fileName, partIndex }) => importScore(bytes, fileName, partIndex),
  nextVersion: ({ old, bytes, fileName, partIndex, inked, used }) =>
    importNextVersion(old, { bytes, fileName, partIndex }, inked, used),
  beginning: async (input) => {
    const beginning = await maybePrepareBeginning(input);
    const prepared = beginning ?? (await preparePage(input));
    return { content: packed(prepared), firstLine: prepared.page.firstLine, isWhole: beginning === null };
  },
  page: async (input) => {
    const prepared = await preparePage(input);
    return { content: packed(prepared), firstLine: prepared.page.firstLine };
  },
  copy: async (ask) => {
    const fingered = prepareFingered(ask);
    return { content: await contentOf(fingered, ask), marks: copyMarks(fingered.source.marks) };
  },
  routine: async ({ routine, date }) => ({
    content: await pdfOf([routineSheet(routine)], { title: routine.title, date }),
  }),
  plan: async (input) => {
    const { plan, score } = preparePlan(input);
    return { content: packed(plan), summary: summaryOf(plan, score) };
  },
};

async function contentOf(
  fingered: FingeredDocument,
  { format, bars, title, date }: Tasks['copy']['ask'],
): Promise<Uint8Array> {
  if (format === 'pdf') return pdfOf(await pagesOf(fingered), { title, date });
  if (format !== 'svg' && format !== 'png') return fileOf(fingered, format);
  const { svg, widthMm } = await pictureOf(fingered, bars);
  const picture = outlined(svg);
  return format === 'svg' ? new TextEncoder().encode(picture) : pngOf(picture, widthMm);
}

const packed = (value: unknown): Uint8Array => gzipSync(JSON.stringify(value));

const HARDEST = 3;

function summaryOf(plan: FingeringPlan, score: Score): PlanSummary {
  const efforts = plan.effortByBar.map((bar, k) => ({ k, effort: bar.left + bar.right }));
  const hardest = efforts.sort((a, b) => b.effort - a.effort || a.k - b.k).slice(0, HARDEST);
  return {
    leftCost: plan.leftCost,
    rightCost: plan.rightCost,
    hardestBars: hardest.map(({ k }) => score.measures[k]!.number),
    unplayable: plan.findings.filter((finding) => /unplayable|Contradicts/.test(finding.code)).length,
    drills: drillsFor(score, plan).map(({ kind, because, bars }) => ({ kind, because, bars })),
  };
}
