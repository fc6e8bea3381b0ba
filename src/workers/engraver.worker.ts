/** Engraves one score at a time; the module is loaded as soon as the worker starts. */
import { expose } from 'comlink';
import type { EngravedPage } from '../core/engraving/page';
import type { CopyOptions } from '../core/copy/paper';
import { correctionsOf } from '../core/fingering/edition/registers';
import { loadEngraver } from './engrave';
import { engraveCopy } from './prepareCopy';
import { maybePrepareBeginning, preparePage } from './preparePage';
import { type DocumentInput, readInput, registersOf } from './readInput';

void loadEngraver();

const service = {
  /** The first systems of a long piece, or of one of more than twice `firstBars`; null for others, and for what cannot be read. */
  async beginning(input: DocumentInput, pageWidth: number, firstBars?: number): Promise<EngravedPage | null> {
    try {
      return (await maybePrepareBeginning(input, pageWidth, firstBars))?.page ?? null;
    } catch {
      return null;
    }
  },
  /** Null for a document that cannot be read: the planner says why. */
  async page(input: DocumentInput, pageWidth: number): Promise<EngravedPage | null> {
    try {
      return (await preparePage(input, pageWidth)).page;
    } catch {
      return null;
    }
  },
  /** For paper of this size; null for a document that cannot be read. */
  async copyPage(
    input: DocumentInput,
    options: Pick<CopyOptions, 'paper' | 'orientation' | 'staff'>,
  ): Promise<EngravedPage | null> {
    try {
      const corrections = correctionsOf(registersOf(input));
      return await engraveCopy({ ...readInput(input), corrections }, options);
    } catch {
      return null;
    }
  },
};
export type EngraverService = typeof service;

expose(service);
