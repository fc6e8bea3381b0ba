/** Everything that the desk and the survey need to open a piece. */
import { replay } from '../../../core/fingering/edition/operation';
import { withTransaction } from '../db';
import { readHistory } from '../repositories/gestures';
import { maybeFindPiece } from '../repositories/pieces';
import { hasPage, maybeFindPlanSeq } from '../repositories/prepared';
import { maybeFindVersion } from '../repositories/versions';
import { beginningKeyOf, contentKeyOf, convertedFromOf, planKeyOf, prepareLater } from './prepare';

/** Null when this studio has no such piece. */
export async function maybeOpenPiece(studioId: string, pieceId: string) {
  return withTransaction(studioId, async (tx) => {
    const piece = await maybeFindPiece(tx, pieceId);
    const version = piece && (await maybeFindVersion(tx, piece.versionId));
    if (!piece || !version) return null;
    const { base, baseSeq, later } = await readHistory(tx, piece.editionId);
    const history = later.map(({ gesture }) => gesture);
    const headSeq = later.at(-1)?.seq ?? baseSeq;
    const { registers } = replay(history, base);
    const pageKey = contentKeyOf(registers);
    const planKey = planKeyOf(registers);
    const hasStoredPage = await hasPage(tx, version.id, pageKey);
    const beginningKey = beginningKeyOf(pageKey);
    const hasBeginning = !hasStoredPage && (await hasPage(tx, version.id, beginningKey));
    const planSeq = await maybeFindPlanSeq(tx, piece.editionId, version.id, planKey);
    if (!hasStoredPage || planSeq !== headSeq) prepareLater(studioId, piece);
    return {
      piece,
      /** The registers at a gesture, and the gestures since. */
      base: [...base],
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
        reportRead: version.reportRead,
      },
      stored: {
        page: hasStoredPage ? pageAddress(version.id, pageKey) : null,
        /** The first systems, where the whole is not there yet. */
        beginning: hasBeginning ? pageAddress(version.id, beginningKey) : null,
        plan:
          planSeq === headSeq
            ? `/api/editions/${piece.editionId}/plan/${version.id}?seq=${headSeq}&key=${encodeURIComponent(planKey)}`
            : null,
      },
    };
  });
}

const pageAddress = (versionId: string, key: string) =>
  `/api/versions/${versionId}/page/${encodeURIComponent(key)}`;

export type OpenedPiece = NonNullable<Awaited<ReturnType<typeof maybeOpenPiece>>>;
