/** Files of the command line: read, or complained about in one line. */
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import type { MusicXmlText } from '../core/formats/musicxml/bytes';
import { readScore, type ScoreDocument } from '../core/formats/musicxml/readScore';
import { importErrorText } from '../core/messages/en';
import { READABLE_FILE, readSource } from '../foreign/readSource';

/** A problem that belongs to one line on standard error and exit code 2. */
export class InputProblem extends Error {}

/** Says what is wrong; gives the exit code. */
export function complain(line: string): number {
  console.error(line.replace(/\s+/g, ' '));
  return 2;
}

export function readOrComplain(path: string, what = path): Buffer {
  try {
    return readFileSync(path);
  } catch (error) {
    throw new InputProblem(
      `${what}: the file cannot be read (${(error as NodeJS.ErrnoException).code ?? 'unknown reason'}).`,
    );
  }
}

export interface OpenedFile {
  readonly source: MusicXmlText;
  readonly document: ScoreDocument;
}

/** @throws InputProblem with the sentence that says what is wrong */
export async function openScore(path: string): Promise<OpenedFile> {
  const name = basename(path);
  if (!READABLE_FILE.test(name)) throw new InputProblem(importErrorText({ code: 'unknownKind', name }));
  const read = await readSource(readOrComplain(path, 'input'), name);
  if (!read.ok) throw new InputProblem(importErrorText(read.error));
  const { kind, source } = read.value;
  const document = readScore(source.text, { convertedFrom: kind === 'musicxml' ? null : kind });
  if (!document.ok) throw new InputProblem(importErrorText(document.error));
  return { source, document: document.value };
}

/** Runs `work` for each file; one that cannot be used is complained about and the others go on. */
export async function forEachFile(
  files: readonly string[],
  work: (path: string) => Promise<number>,
): Promise<number> {
  let code = 0;
  for (const file of files) {
    try {
      code = Math.max(code, await work(file));
    } catch (error) {
      if (!(error instanceof InputProblem)) throw error;
      code = complain(`${file}: ${error.message}`);
    }
  }
  return code;
}
