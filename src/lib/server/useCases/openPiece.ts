/** Everything that the desk and the survey need to open a piece. */
import { replay } from '../../../core/fingering/edition/operation';
import { withTransaction } from '../db';
import { listGesturesAfter } from '../repositories/gestures';
import { maybeFindPiece } from '../repositories/pieces';
import { hasPage, maybeFindPlanSeq } from '../repositories/prepared';
import { maybeFindVersion } from '../repositories/versions';
import { contentKeyOf, convertedFromOf, planKeyOf, prepareLater } from './prepare';

/** Null when this studio has no such piece. */
export async function maybeOpenPiece(studioId: string, pieceId: string) {
  return withTransaction(studioId, async (tx) => {
    const piece = await maybeFindPiece(tx, pieceId);
    const version = piece && (await maybeFindVersion(tx, piece.versionId));
    if (!piece || !version) return null;
    const stored = await listGesturesAfter(tx, piece.editionId, 0);
    const history = stored.map((one) => one.gesture);
    const headSeq = stored.at(-1)?.seq ?? 0;
    const { registers } = replay(history);
    const pageKey = contentKeyOf(registers);
    const planKey = planKeyOf(registers);
    const hasStoredPage = await hasPage(tx, version.id, pageKey);
    const planSeq = await maybeFindPlanSeq(tx, piece.editionId, version.id, planKey);
    if (!hasStoredPage || planSeq !== headSeq) prepareLater(studioId, piece);
    return {
      piece,
      history,
      headSeq,
      version: {
        id: version.id,
        number: version.number,
        fileName: version.fileName,
        kind: version.kind,
        partIndex: version.partIndex,
        uids: version.uids,
        convertedFrom: convertedFromOf(version),
        report: version.report,
      },
      stored: {
        page: hasStoredPage ? `/api/versions/${version.id}/page/${pageKey}` : null,
        plan:
          planSeq === headSeq
            ? `/api/editions/${piece.editionId}/plan/${version.id}?seq=${headSeq}&key=${encodeURIComponent(planKey)}`
            : null,
      },
    };
  });
}

export type OpenedPiece = NonNullable<Awaited<ReturnType<typeof maybeOpenPiece>>>;
