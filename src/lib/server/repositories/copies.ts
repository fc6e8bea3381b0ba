/** Copies that were handed out, each with its file. */
import { z } from 'zod';
import { type CopyMark, copyMarkSchema } from '../../../core/copy/copyMark';
import type { CopyOptions } from '../../../core/copy/paper';
import type { Transaction } from '../db';

export interface NewCopy {
  readonly studioId: string;
  readonly userId: string;
  readonly editionId: string;
  readonly seq: number;
  readonly forWhom: string;
  readonly options: CopyOptions;
  readonly marks: readonly CopyMark[];
  readonly fileName: string;
  readonly pdf: Uint8Array;
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function insertCopy(tx: Transaction, copy: NewCopy): Promise<string> {
  const { rows } = await tx.query<{ id: string }>(
    `INSERT INTO copies (studio_id, edition_id, seq, for_whom, options, marks, file_name, pdf, created_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9) RETURNING id`,
    [
      copy.studioId,
      copy.editionId,
      copy.seq,
      copy.forWhom,
      JSON.stringify(copy.options),
      JSON.stringify(copy.marks),
      copy.fileName,
      Buffer.from(copy.pdf),
      copy.userId,
    ],
  );
  return rows[0]!.id;
}

const handedOut = z.object({
  id: z.uuid(),
  seq: z.int(),
  forWhom: z.string(),
  fileName: z.string(),
  options: z.object({ density: z.string().nullable() }),
  marks: z.array(copyMarkSchema),
  createdAt: z.date(),
});

/** The newest first. */
export type HandedOut = Omit<z.infer<typeof handedOut>, 'createdAt'> & { readonly createdAt: string };

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function listCopies(tx: Transaction, editionId: string): Promise<readonly HandedOut[]> {
  const { rows } = await tx.query(
    `SELECT id, seq, for_whom AS "forWhom", file_name AS "fileName", options, marks, created_at AS "createdAt"
     FROM copies WHERE edition_id = $1 ORDER BY created_at DESC LIMIT 50`,
    [editionId],
  );
  return rows.map((row) => {
    const copy = handedOut.parse(row);
    return { ...copy, createdAt: copy.createdAt.toISOString() };
  });
}

/** @throws DatabaseError when the statement fails: the transaction is undone */
export async function maybeReadCopy(
  tx: Transaction,
  copyId: string,
): Promise<{ readonly pdf: Buffer; readonly fileName: string } | null> {
  const { rows } = await tx.query<{ pdf: Buffer; fileName: string }>(
    'SELECT pdf, file_name AS "fileName" FROM copies WHERE id = $1',
    [copyId],
  );
  return rows[0] ?? null;
}
