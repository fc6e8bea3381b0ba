/** A plan read as a student would read it with nothing printed: what would come out otherwise, note by note. */
import type { Tuning } from '../../instrument/tuning';
import type { FingeringPlan, PlannedNote } from '../../fingering/report/plan';
import type { Pluck } from '../../score/model';
import { barreOver } from './barreOver';
import { LeftMemory } from './leftMemory';
import { isSamePlace, NOTHING_SAID, type Place, positionAfter, type Reading, readNote } from './readNote';
import { RightMemory, strokeOf } from './rightMemory';
import type { WrittenScore } from './writtenNote';

/** Of one note: what the student would play, and so what has to be said. */
export interface NoteReading {
  readonly uid: string;
  /** Null where the student would not know. */
  readonly place: Place | null;
  readonly letter: Pluck | null;
  readonly needsFinger: boolean;
  readonly needsString: boolean;
  readonly needsLetter: boolean;
}

export function readPlan(written: WrittenScore, plan: FingeringPlan): ReadonlyMap<string, NoteReading> {
  const planned = new Map(plan.notes.map((note) => [note.uid, note]));
  const places = readLeft(written, planned, plan);
  const letters = readRight(written, planned);
  return new Map(
    plan.notes.map(({ uid, pluck }) => {
      const { place, needsFinger, needsString } = places.get(uid) ?? UNREAD;
      const letter = letters.get(uid) ?? null;
      const needsLetter = pluck !== null && letter !== pluck;
      return [uid, { uid, place, letter, needsFinger, needsString, needsLetter }] as const;
    }),
  );
}

type LeftReading = Pick<NoteReading, 'place' | 'needsFinger' | 'needsString'>;
const UNREAD: LeftReading = { place: null, needsFinger: false, needsString: false };

export const isPlaced = (note: PlannedNote): note is PlannedNote & Place =>
  note.string !== null && note.fret !== null && note.finger !== null;

function readLeft(
  { tuning, moments }: WrittenScore,
  planned: ReadonlyMap<string, PlannedNote>,
  plan: FingeringPlan,
): ReadonlyMap<string, LeftReading> {
  const readings = new Map<string, LeftReading>();
  const barreAt = barreOver(moments, plan.barres);
  const memory = new LeftMemory();
  let position = 1;
  moments.forEach((moment, k) => {
    const barre = barreAt[k]!;
    position = barre ?? position;
    memory.begin(moment[0]!.onsetTicks);
    for (const written of moment) {
      const note = planned.get(written.uid)!;
      if (!isPlaced(note)) continue;
      const reading = { ...memory.around(written, barre), position };
      readings.set(
        written.uid,
        written.isTouched ? harmonic(note) : unsaid(written.midi, tuning, note, reading),
      );
      memory.play(written, note);
    }
    position = positionAfter(position, memory.here);
  });
  return readings;
}

/** Where a harmonic is touched is nothing that a reader could guess. */
const harmonic = (note: Place): LeftReading => ({ place: note, needsFinger: false, needsString: true });

/** The fewest signs from which the note is read as it was planned; a finger rather than a string. */
function unsaid(midi: number, tuning: Tuning, note: Place, reading: Reading): LeftReading {
  const { finger, string } = note;
  const place = readNote(midi, tuning, NOTHING_SAID, reading);
  const rows = [
    { said: NOTHING_SAID, needsFinger: false, needsString: false },
    { said: { finger, string: null }, needsFinger: true, needsString: false },
    { said: { finger: null, string }, needsFinger: false, needsString: true },
  ];
  const enough = rows.find(({ said }) => isSamePlace(readNote(midi, tuning, said, reading), note));
  return { place, needsFinger: enough?.needsFinger ?? true, needsString: enough?.needsString ?? true };
}

function readRight(
  { moments }: WrittenScore,
  planned: ReadonlyMap<string, PlannedNote>,
): ReadonlyMap<string, Pluck> {
  const letters = new Map<string, Pluck>();
  const memory = new RightMemory();
  for (const moment of moments) {
    const stroke = strokeOf(moment, (uid) => planned.get(uid)!.string);
    if (!stroke) continue;
    const read = memory.read(stroke);
    stroke.struck.forEach(({ uid }, k) => letters.set(uid, read[k]!));
    memory.play(
      stroke,
      stroke.struck.map(({ uid }) => planned.get(uid)!.pluck!),
    );
  }
  return letters;
}
