/** Engraves one score at a time; the module is loaded as soon as the worker starts. */
import { expose } from 'comlink';
import type { EngravedPage } from '../core/engraving/page';
import { loadEngraver } from './engrave';
import { maybePrepareBeginning, preparePage } from './preparePage';
import type { DocumentInput } from './readInput';

void loadEngraver();

const service = {
  /** The first systems of a long piece; null for others, and for what cannot be read. */
  async beginning(input: DocumentInput, pageWidth: number): Promise<EngravedPage | null> {
    try {
      return (await maybePrepareBeginning(input, pageWidth))?.page ?? null;
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
};
export type EngraverService = typeof service;

expose(service);
