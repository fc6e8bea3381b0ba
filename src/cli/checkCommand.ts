/** `./oculon check`: judges the fingering that is written in files. */
import { Planner } from '../core/fingering/planner';
import { judge } from '../core/fingering/judge';
import { CONCERT_FRETBOARD } from '../core/instrument/fretboard';
import { ADULT_MEDIUM } from '../core/instrument/hands';
import { findingText, REASONS } from '../core/messages/en';
import type { LeftTermId } from '../core/fingering/left/terms';
import { complain, forEachFile, openScore } from './files';

/** Prints the judgements as JSON. Returns 1 when something in a file cannot be played, 2 for bad input. */
export async function checkCommand(files: readonly string[]): Promise<number> {
  if (files.length === 0) return complain('Name at least one file to check.');
  const results: object[] = [];
  const code = await forEachFile(files, async (file) => {
    const result = await checkFile(file);
    results.push(result);
    return result.playable ? 0 : 1;
  });
  console.log(JSON.stringify(results, null, 1));
  return code;
}

async function checkFile(file: string) {
  const { score } = (await openScore(file)).document;
  const planner = new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
  const { findings, unusual, ...numbers } = judge(score, planner);
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  const placeOf = (uid: string) => {
    const note = noteOf.get(uid)!;
    return {
      id: note.sourceId ?? uid,
      measure: score.measures[note.measureIndex]!.number,
      voice: note.voice,
    };
  };
  return {
    file,
    ...numbers,
    findings: findings.map((finding) => ({
      code: finding.code,
      notes: finding.uids.map(placeOf),
      text: findingText(finding),
    })),
    unusual: unusual.map(({ uid, chosen, better, extraCost, reasons }) => ({
      note: placeOf(uid),
      finger: chosen.finger,
      string: chosen.string,
      better: { finger: better.finger, string: better.string },
      extraCost,
      reasons: reasons.map(
        ({ term, difference }) => `${difference > 0 ? 'more' : 'less'} ${REASONS[term as LeftTermId]}`,
      ),
    })),
  };
}
