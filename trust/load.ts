/** Forty teachers save, a key a second each; then the same while three long pieces come in. */
import { barredVoices } from '../bench/music';
import { barXml } from '../tests/helpers/music';
import { begin, milliseconds, row } from './report';
import { fingerGesture, later, type Teacher, World } from './world';

const TITLE = 'Forty teachers at once';
const TEACHERS = 40;
const MINUTE_MS = 60_000;
const KEY_MS = 1_000;
const LONG_BARS = 200;

interface Desk {
  readonly teacher: Teacher;
  readonly editionId: string;
  seen: number;
  value: number | null;
}

async function type(desk: Desk, phase: number, until: number, times: number[]): Promise<number> {
  let failed = 0;
  await later(phase * KEY_MS);
  while (performance.now() < until) {
    const after = ((desk.value ?? 0) % 4) + 1;
    const started = performance.now();
    const answer = await desk.teacher
      .append(desk.editionId, desk.seen, [fingerGesture('n1', desk.value, after)])
      .catch(() => null);
    const ms = performance.now() - started;
    times.push(ms);
    if (answer?.status === 200) {
      desk.seen = ((await answer.json()) as { headSeq: number }).headSeq;
      desk.value = after;
    } else failed++;
    await later(Math.max(0, KEY_MS - ms));
  }
  return failed;
}

async function minute(desks: readonly Desk[]): Promise<{ times: number[]; failed: number }> {
  const times: number[] = [];
  const until = performance.now() + MINUTE_MS;
  const failures = await Promise.all(desks.map((desk, k) => type(desk, k / desks.length, until, times)));
  return { times, failed: failures.reduce((sum, count) => sum + count, 0) };
}

function tell(when: string, { times, failed }: { times: number[]; failed: number }) {
  const figures = [0.5, 0.95, 0.99].map((share) => milliseconds(times, share)).join(' / ');
  row(TITLE, `${when}: p50 / p95 / p99 of ${times.length} saves`, figures);
  row(TITLE, `${when}: saves that failed`, String(failed));
}

export async function load(): Promise<void> {
  begin(
    TITLE,
    `${TEACHERS} teachers of as many studios, one gesture a second each, for a minute; then for another while three pieces of ${LONG_BARS} bars are imported, engraved and planned.`,
  );
  const world = await World.make();
  const desks: Desk[] = [];
  for (let k = 0; k < TEACHERS; k++) {
    const teacher = await world.teacher(`teacher-${k}`);
    const { id } = await teacher.send('one bar.musicxml', barXml([{ midi: 60, onset: 0, length: 2 }]));
    desks.push({ teacher, editionId: await world.editionOf(id!), seen: 0, value: null });
  }
  // What the imports asked for is out of the way.
  while ((await world.ask('SELECT 1 FROM graphile_worker.jobs WHERE attempts < max_attempts')).length > 0)
    await later(200);
  const alone = await minute(desks);
  tell('alone', alone);
  const imports = desks
    .slice(0, 3)
    .map(({ teacher }, k) => teacher.send('long.musicxml', barredVoices(LONG_BARS, k + 1)));
  const together = await minute(desks);
  tell('with three long imports', together);
  const answers = await Promise.all(imports);
  row(TITLE, 'long imports taken', String(answers.filter(({ status }) => status === 201).length));
  const p95 = (values: readonly number[]) =>
    [...values].sort((a, b) => a - b)[Math.floor(0.95 * values.length)]!;
  row(TITLE, 'p95 with imports over p95 alone', (p95(together.times) / p95(alone.times)).toFixed(1));
  await world.end();
}
