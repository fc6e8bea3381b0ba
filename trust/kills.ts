/** Four teachers save without pause into one edition while server and database are killed under them. */
import { barXml } from '../tests/helpers/music';
import { begin, row } from './report';
import { fingerGesture, later, type Teacher, World } from './world';

const TITLE = 'Kills under four writers';
const ROUNDS = 20;
const WRITERS = 4;
const BETWEEN_MS = 1_500;

interface Journal {
  /** What was answered with `saved`. */
  readonly acknowledged: Set<string>;
  value: number | null;
}

/** As the desk does it: the same gesture again until it is answered, and what was missed is taken in. */
async function write(
  teacher: Teacher,
  editionId: string,
  note: string,
  isOver: () => boolean,
): Promise<Journal> {
  const journal: Journal = { acknowledged: new Set(), value: null };
  let seen = 0;
  while (!isOver()) {
    const after = ((journal.value ?? 0) % 4) + 1;
    const gesture = fingerGesture(note, journal.value, after);
    for (let isKept = false; !isKept && !isOver();) {
      try {
        const answer = await teacher.append(editionId, seen, [gesture], AbortSignal.timeout(10_000));
        const body = (await answer.json()) as {
          kind?: string;
          headSeq?: number;
          missing?: { gesture: { id: string } }[];
        };
        if (typeof body.headSeq === 'number') seen = body.headSeq;
        isKept = body.kind === 'saved' || (body.missing ?? []).some((one) => one.gesture.id === gesture.id);
        if (!answer.ok && answer.status !== 409) await later(100);
      } catch {
        await later(100);
      }
      if (isKept) {
        journal.acknowledged.add(gesture.id);
        journal.value = after;
      }
    }
  }
  return journal;
}

export async function kills(): Promise<void> {
  begin(
    TITLE,
    `${WRITERS} writers on one edition, each sending its next gesture as soon as the last is answered; ${ROUNDS} kills with SIGKILL, of server and database in turn.`,
  );
  const world = await World.make();
  const teacher = await world.teacher('kills');
  const notes = [60, 62, 64, 65].map((midi, k) => ({ midi, onset: 2 * k, length: 2 }));
  const { id } = await teacher.send('kills.musicxml', barXml(notes));
  const editionId = await world.editionOf(id!);
  let isOver = false;
  const writers = Array.from({ length: WRITERS }, (_, k) =>
    write(teacher, editionId, `n${k + 1}`, () => isOver),
  );
  for (let round = 0; round < ROUNDS; round++) {
    await later(BETWEEN_MS);
    await (round % 2 === 0 ? world.killServer() : world.killDatabase());
  }
  await later(BETWEEN_MS);
  isOver = true;
  const journals = await Promise.all(writers);

  const stored = await world.ask<{ gesture_id: string; seq: number }>(
    'SELECT gesture_id, seq FROM gestures WHERE edition_id = $1 ORDER BY seq',
    [editionId],
  );
  const there = new Map<string, number>();
  for (const { gesture_id: one } of stored) there.set(one, (there.get(one) ?? 0) + 1);
  const acknowledged = journals.flatMap((journal) => [...journal.acknowledged]);
  const holes = stored.filter(({ seq }, k) => seq !== k + 1).length;
  row(TITLE, 'kills survived', String(ROUNDS));
  row(TITLE, 'gestures acknowledged', String(acknowledged.length));
  row(TITLE, 'acknowledged and lost', String(acknowledged.filter((one) => !there.has(one)).length));
  row(TITLE, 'stored twice', String([...there.values()].filter((count) => count > 1).length));
  row(TITLE, 'holes in the numbering', String(holes));
  // The page that a teacher would open holds what each writer saw last.
  const file = (await (await teacher.view(`/api/editions/${editionId}/file`)).json()) as {
    marks: { target: string; value: number }[];
  };
  const wrong = journals.filter(
    ({ value }, k) => (file.marks.find(({ target }) => target === `n${k + 1}`)?.value ?? null) !== value,
  );
  row(TITLE, 'writers whose last value is not what the edition holds', String(wrong.length));
  await world.end();
}
