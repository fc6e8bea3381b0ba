/** Changes of a piece on the shelf. */
export interface PieceChanges {
  readonly title?: string;
  readonly composer?: string | null;
  readonly tags?: readonly string[];
  readonly removed?: boolean;
}

/** Null when it is done, else what was in the way. */
export async function changePiece(pieceId: string, changes: PieceChanges): Promise<string | null> {
  const response = await fetch(`/api/pieces/${pieceId}`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(changes),
  }).catch(() => null);
  if (!response) return 'The server cannot be reached; nothing was changed. Try again.';
  if (response.ok) return null;
  const body = (await response.json().catch(() => null)) as { readonly message?: string } | null;
  return body?.message ?? 'This could not be changed; try again.';
}
