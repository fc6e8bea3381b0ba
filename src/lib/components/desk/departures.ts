/** Where a plan is not as the file has it: "file 3 → plan 1, because …". */
import type { LeftChoice, NoteChoices, PlannedNote, RightChoice } from '$core/fingering/report/plan';
import type { PrintedMarks } from '$core/score/model';

export interface ChoiceWords {
  readonly left: (choice: LeftChoice, rank: number) => string;
  readonly right: (choice: RightChoice) => string;
}

export function departuresOf(
  printed: PrintedMarks | null,
  note: PlannedNote,
  choices: NoteChoices | null,
  words: ChoiceWords,
): readonly string[] {
  if (!printed) return [];
  return [leftDeparture(printed, note, choices, words), rightDeparture(printed, note, choices, words)].filter(
    (text) => text !== '',
  );
}

function leftDeparture(
  printed: PrintedMarks,
  note: PlannedNote,
  choices: NoteChoices | null,
  words: ChoiceWords,
): string {
  const finger = printed.finger ?? note.finger;
  const string = printed.string ?? note.string;
  if (note.string === null || (finger === note.finger && string === note.string)) return '';
  const left = choices?.left ?? [];
  const rank = left.findIndex((choice) => choice.finger === finger && choice.string === string);
  const because = rank > 0 ? words.left(left[rank]!, rank) : '';
  return finger === note.finger
    ? sentence(`string ${string}`, `string ${note.string}`, because)
    : sentence(String(finger), String(note.finger), because);
}

function rightDeparture(
  { pluck }: PrintedMarks,
  note: PlannedNote,
  choices: NoteChoices | null,
  words: ChoiceWords,
): string {
  if (pluck === null || note.pluck === null || pluck === note.pluck) return '';
  const choice = choices?.right.find((one) => one.pluck === pluck);
  return sentence(pluck, note.pluck, choice ? words.right(choice) : '');
}

const sentence = (file: string, plan: string, because: string): string =>
  `file ${file} → plan ${plan}${because === '' ? '' : `, because ${file}: ${because}`}`;
