/** `./oculon check`: judges the fingering that is written in files. */
import { parseArgs } from 'node:util';
import { judge } from '../core/fingering/report/judge';
import { findingText, REASONS } from '../core/messages/en';
import { choiceReasonText } from '../core/messages/hand';
import type { LeftTermId } from '../core/fingering/left/rules/terms';
import { placeOf, tempoAt } from '../core/score/places';
import { complain, forEachFile, openScore } from './files';
import { plannerFor, type PlayerOptions, readPlayer } from './playerOptions';

/** Prints the judgements as JSON. Returns 1 when something in a file cannot be played, 2 for bad input. */
export async function checkCommand(args: readonly string[]): Promise<number> {
  let options: { readonly files: readonly string[]; readonly player: PlayerOptions };
  try {
    const { values, positionals } = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        school: { type: 'string', default: 'balanced' },
        'right-school': { type: 'string', default: 'balanced' },
        profile: { type: 'string' },
      },
    });
    options = {
      files: positionals,
      player: readPlayer(values.profile, values.school, values['right-school']),
    };
  } catch (error) {
    return complain(error instanceof Error ? error.message : String(error));
  }
  if (options.files.length === 0) return complain('Name at least one file to check.');
  const results: object[] = [];
  const code = await forEachFile(options.files, async (file) => {
    const result = await checkFile(file, options.player);
    results.push(result);
    return result.playable ? 0 : 1;
  });
  console.log(JSON.stringify(results, null, 1));
  return code;
}

async function checkFile(file: string, player: PlayerOptions) {
  const { hand } = player;
  const { score } = (await openScore(file)).document;
  const planner = plannerFor(score, player);
  const { findings, unusual, contradictions, ...numbers } = judge(score, planner);
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  const noteAt = (uid: string) => {
    const note = noteOf.get(uid)!;
    return {
      id: note.sourceId ?? uid,
      measure: score.measures[note.measureIndex]!.number,
      voice: note.voice,
    };
  };
  return {
    file,
    hand: hand.id,
    ...numbers,
    findings: findings.map((finding) => ({
      code: finding.code,
      notes: finding.uids.map(noteAt),
      text: findingText(finding),
    })),
    contradictions: contradictions.map(({ uids }) => ({ notes: uids.map(noteAt) })),
    unusual: unusual.map(({ uid, chosen, better, extraCost, reasons, words }) => ({
      note: noteAt(uid),
      finger: chosen.finger,
      string: chosen.string,
      better: { finger: better.finger, string: better.string },
      extraCost,
      reasons: reasons.map(
        ({ term, difference }) => `${difference > 0 ? 'more' : 'less'} ${REASONS[term as LeftTermId]}`,
      ),
      words: words.map((word) =>
        choiceReasonText(word, (ticks) => placeOf(score, ticks), tempoAt(score, noteOf.get(uid)!.onsetTicks)),
      ),
    })),
  };
}
