/** The imported file with a plan in it. */
import { barreLabel } from '../../marks/barreLabel';
import { type MarkStyle, PLAIN_MARKS } from '../../marks/style';
import type { FingeringPlan } from '../../fingering/report/plan';
import { type Corrections, NO_CORRECTIONS } from '../../score/corrections';
import { correctionSplices } from './correctionSplices';
import { type MusicXmlText, writeMusicXmlBytes, zipScore } from './bytes';
import type { ScoreDocument } from './readScore';
import { type SaidWords, wordSplices } from './writeBarWords';
import { applySplices } from './splice';
import type { SaidSigns } from '../../marks/said';
import type { Damp } from '../../marks/dampMarks';
import type { Expression } from '../../marks/expressions';
import { expressionSplices } from './writeExpressions';
import { dampSplices, fingeringSplices, type NoteFingering } from './writeFingering';

export type ExportKind = 'musicxml' | 'mxl';

export interface ExportOptions {
  readonly corrections?: Corrections;
  /** How the edition writes its barres. */
  readonly style?: MarkStyle;
  /** What is printed, where that is not everything. */
  readonly signs?: SaidSigns | null;
  /** Where strings are stopped, by note. */
  readonly damps?: ReadonlyMap<string, Damp>;
  /** How notes are to sound. */
  readonly expressions?: readonly Expression[];
  /** Chords, form, remarks and counting that go with it. */
  readonly words?: SaidWords | null;
}

const NOTHING_BESIDES: Required<ExportOptions> = {
  corrections: NO_CORRECTIONS,
  style: PLAIN_MARKS,
  signs: null,
  words: null,
  damps: new Map(),
  expressions: [],
};

/** The document's text with the plan's fingering inserted, and the notes corrected where the teacher did so. */
export function fingeredText(
  source: MusicXmlText,
  document: ScoreDocument,
  plan: FingeringPlan,
  options: ExportOptions = {},
): string {
  const { corrections, style, signs, words, damps, expressions } = { ...NOTHING_BESIDES, ...options };
  const fingering = new Map<string, NoteFingering>();
  for (const { uid, finger, string, fret, pluck } of plan.notes) {
    if (finger === null || string === null || fret === null) continue;
    const whole = { finger, string, fret, pluck };
    fingering.set(uid, signs ? saidOf(uid, whole, signs) : whole);
  }
  const barres = [
    ...plan.barres.map((barre) => ({
      fromUid: barre.fromUid,
      toUid: barre.toUid,
      label: barreLabel(barre, style),
    })),
    ...(signs?.positions ?? []),
  ];
  const corrected = correctionSplices(document, corrections.notes).splices;
  return applySplices(source.text, [
    ...corrected,
    ...fingeringSplices(document, fingering, barres),
    ...dampSplices(document, damps),
    ...expressionSplices(document, expressions),
    ...(words ? wordSplices(document, words) : []),
  ]);
}

const saidOf = (uid: string, whole: NoteFingering, signs: SaidSigns): NoteFingering => ({
  finger: signs.fingers.has(uid) ? whole.finger : null,
  string: signs.strings.has(uid) ? whole.string : null,
  fret: null,
  pluck: signs.letters.has(uid) ? whole.pluck : null,
});

/** As a file of the wanted kind; a compressed source keeps the rest of its archive. */
export function exportFingered(
  source: MusicXmlText,
  document: ScoreDocument,
  plan: FingeringPlan,
  kind: ExportKind,
  options: ExportOptions = {},
): Uint8Array {
  const text = fingeredText(source, document, plan, options);
  if (kind === 'mxl' && source.archive) return writeMusicXmlBytes(source, text);
  const plain = writeMusicXmlBytes({ ...source, archive: null }, text);
  return kind === 'mxl' ? zipScore(plain) : plain;
}
