/** Copies of many pieces as one zip: one after the other, so that a shelf of hundreds leaves the server to others. */
import { zipSync } from 'fflate';
import type { Format } from '$core/copy/formats';
import type { CopyOptions } from '$core/copy/paper';
import { fetchFile } from './saveFile';

export interface Wanted {
  readonly format: Format;
  readonly options: CopyOptions;
}

export interface ManyPiece {
  readonly title: string;
  readonly editionId: string;
}

export interface Progress {
  readonly done: number;
  readonly failed: readonly string[];
}

/**
 * @param tell after each piece
 * @returns null when it was cancelled, or nothing could be made
 */
export async function zipOfMany(
  pieces: readonly ManyPiece[],
  { format, options }: Wanted,
  signal: AbortSignal,
  tell: (progress: Progress) => void,
): Promise<Uint8Array | null> {
  const files: Record<string, Uint8Array> = {};
  const failed: string[] = [];
  for (const [k, { title, editionId }] of pieces.entries()) {
    const request = { options, countedBars: '', format };
    const made = await fetchFile(`/api/editions/${editionId}/copy`, request, signal);
    if (signal.aborted) return null;
    if (made.kind === 'made')
      files[freeName(made.name, files)] = new Uint8Array(await made.content.arrayBuffer());
    else failed.push(title);
    tell({ done: k + 1, failed });
  }
  if (Object.keys(files).length === 0) return null;
  // PDF and pictures are packed already.
  return zipSync(files, { level: format === 'pdf' || format === 'png' ? 0 : 6 });
}

/** Two pieces may have one title. */
function freeName(name: string, taken: Readonly<Record<string, unknown>>): string {
  if (!(name in taken)) return name;
  const dot = name.lastIndexOf('.');
  for (let k = 2; ; k++) {
    const other = `${name.slice(0, dot)} (${k})${name.slice(dot)}`;
    if (!(other in taken)) return other;
  }
}
