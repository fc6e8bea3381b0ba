/** A fingered piece in the formats of other programs. */
import type { Whose } from '../core/copy/paper';
import type { Format } from '../core/copy/formats';
import { writeAbc } from '../core/formats/abc/writeAbc';
import { handCsv, notesCsv } from '../core/formats/csv/tables';
import { midiFile } from '../core/formats/midi/writeMidi';
import { type MusicXmlText, readMusicXmlText } from '../core/formats/musicxml/bytes';
import { exportFingered, fingeredText } from '../core/formats/musicxml/exportFingered';
import type { SaidWords } from '../core/formats/musicxml/writeBarWords';
import type { ScoreDocument } from '../core/formats/musicxml/readScore';
import {
  correctionsOf,
  dampsOf,
  expressionsOf,
  inkOf,
  markStyleOf,
  type Registers,
} from '../core/fingering/edition/registers';
import type { Planner } from '../core/fingering/planner';
import type { FingeringPlan } from '../core/fingering/report/plan';
import { type SaidSigns, saidSigns } from '../core/marks/said';
import type { Mark } from '../core/marks/mark';
import type { Density } from '../core/marks/style';
import { loadEngraver } from './engrave';

export interface Exported {
  readonly source: MusicXmlText;
  readonly document: ScoreDocument;
  readonly registers: Registers;
  readonly planner: Planner;
  readonly plan: FingeringPlan;
  /** Those that are printed. */
  readonly marks: readonly Mark[];
  readonly density: Density;
  readonly whose: Whose;
  readonly words: SaidWords;
}

/** Those that are neither pages nor pictures. */
export type FileFormat = Exclude<Format, 'pdf' | 'svg' | 'png'>;

const text = (content: string) => new TextEncoder().encode(content);

/** @throws Error when the engraver cannot read what was written: a bug */
export async function exportAs(format: FileFormat, exported: Exported): Promise<Uint8Array> {
  const { source, document, registers, planner, plan } = exported;
  const { score } = document;
  const options = {
    corrections: correctionsOf(registers),
    style: markStyleOf(registers),
    signs: signsOf(exported),
    words: exported.words,
    damps: dampsOf(registers),
    expressions: expressionsOf(registers),
  };
  switch (format) {
    case 'musicxml':
    case 'mxl':
      return exportFingered(source, document, plan, format, options);
    case 'mei':
      return text(await meiOf(fingeredText(source, document, plan, options)));
    case 'abc':
      return text(writeAbc(score, plan, saidSigns(exported.marks, plan, score)));
    case 'midi':
    case 'midiByString':
      return midiFile(score, plan, { byString: format === 'midiByString' });
    case 'notes':
      return text(notesCsv(score, plan, inkOf(registers)));
    case 'hand':
      return text(handCsv(score, planner.script(inkOf(registers))));
  }
}

/** At full density, with everybody's marks, every note says everything, frets too. */
function signsOf({ density, whose, marks, plan, document }: Exported): SaidSigns | null {
  return density === 'full' && whose === 'all' ? null : saidSigns(marks, plan, document.score);
}

async function meiOf(musicXml: string): Promise<string> {
  const engraver = await loadEngraver();
  engraver.setOptions({ xmlIdSeed: 7 });
  if (!engraver.loadData(musicXml)) throw new Error(`engraver: ${engraver.getLog()}`);
  return engraver.getMEI({});
}

/** @throws Error for bytes that were not imported before: a bug */
export function sourceOrThrow(bytes: Uint8Array): MusicXmlText {
  const source = readMusicXmlText(bytes);
  if (!source.ok) throw new Error('a stored document cannot be read');
  return source.value;
}
