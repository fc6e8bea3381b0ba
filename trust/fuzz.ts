/** Files spoilt by chance, many thousand for each reader: none may throw, hang, or want more memory than there is. */
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { ROOT } from '../scripts/run/paths';
import { randomFrom } from '../tests/helpers/music';
import { SEEDS, spoilt } from '../tests/helpers/spoilt';
import type { FuzzTask } from './fuzzThread';
import { begin, row } from './report';
import { World } from './world';

const TITLE = 'Spoilt files';
const INPUTS = Number(process.env['OCULON_FUZZ'] ?? 20_000);
/** A reader that needs long for each file is tried for so long. */
const MOST_MINUTES = Number(process.env['OCULON_FUZZ_MINUTES'] ?? 60);
const HANG_MS = 5_000;
const MOST_MEGABYTES = 512;
/** Inputs that one thread reads, so that what a reader leaves behind cannot grow without end. */
const AT_ONCE = 500;
/** Through the whole server, so many of each kind. */
const SENT = 150;

interface Tally {
  inputs: number;
  read: number;
  crashes: number;
  hangs: number;
  outOfMemory: number;
  slowestMs: number;
}

type Message =
  | { readonly begins: number }
  | { readonly outcome: string; readonly thrown: boolean }
  | { readonly isOver: true };

/** Runs one thread as far as it comes; gives the input at which to go on. */
function runThread(task: FuzzTask, tally: Tally): Promise<number> {
  return new Promise((resolve) => {
    const worker = new Worker(join(ROOT, 'out/trust/fuzzThread.js'), {
      workerData: task,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
    });
    let at = task.from;
    let began = performance.now();
    const end = (next: number) => {
      clearInterval(watch);
      void worker.terminate();
      resolve(next);
    };
    const watch = setInterval(() => {
      // The first input carries the loading of the reader.
      if (performance.now() - began < HANG_MS * (at === task.from ? 4 : 1)) return;
      // On a busy machine anything can wait: it hangs if it does so again, as the first of a new thread.
      if (at > task.from) return end(at);
      tally.hangs++;
      tally.inputs++;
      console.log(`hang: ${task.name}, input ${at}`);
      end(at + 1);
    }, 250);
    worker.on('message', (message: Message) => {
      if ('begins' in message) {
        at = message.begins;
        began = performance.now();
      } else if ('isOver' in message) end(task.to);
      else {
        tally.inputs++;
        if (at > task.from) tally.slowestMs = Math.max(tally.slowestMs, performance.now() - began);
        if (message.outcome === 'read') tally.read++;
        if (message.thrown) {
          tally.crashes++;
          console.log(`crash: ${task.name}, input ${at}: ${message.outcome.slice(0, 300)}`);
        }
      }
    });
    worker.on('error', (error: Error & { code?: string }) => {
      if (error.code === 'ERR_WORKER_OUT_OF_MEMORY') tally.outOfMemory++;
      else tally.crashes++;
      tally.inputs++;
      console.log(`ended: ${task.name}, input ${at}: ${error.message}`);
      end(at + 1);
    });
  });
}

async function reader(name: string, seed: string): Promise<void> {
  const tally: Tally = { inputs: 0, read: 0, crashes: 0, hangs: 0, outOfMemory: 0, slowestMs: 0 };
  let from = 0;
  const until = performance.now() + MOST_MINUTES * 60_000;
  while (from < INPUTS && performance.now() < until)
    from = await runThread({ name, seed, from, to: Math.min(INPUTS, from + AT_ONCE) }, tally);
  const { inputs, read, crashes, hangs, outOfMemory, slowestMs } = tally;
  row(
    TITLE,
    `${name}: ${inputs} inputs, ${read} read, the others refused`,
    `crashes ${crashes}, hangs over 5 s ${hangs}, memory over 512 MB ${outOfMemory}; slowest ${Math.round(slowestMs)} ms`,
  );
}

/** What the server takes is stored whole, and what it refuses not at all. */
async function throughTheServer(): Promise<void> {
  const world = await World.make();
  const teacher = await world.teacher('fuzz');
  let taken = 0;
  let failed = 0;
  for (const [name, seed] of FILES)
    for (let k = 0; k < SENT; k++) {
      const { status } = await teacher.send(name, spoilt(seed, randomFrom(50_000 + k)));
      if (status === 201) taken++;
      else if (status !== 422) failed++;
    }
  const [counts] = await world.ask<{ pieces: number; whole: number }>(
    `SELECT (SELECT count(*)::int FROM pieces) AS pieces,
       (SELECT count(*)::int FROM pieces p JOIN score_versions v ON v.piece_id = p.id AND v.number = p.current_version
        JOIN editions e ON e.piece_id = p.id) AS whole`,
  );
  row(
    TITLE,
    `through the server: ${SENT * FILES.length} files, taken ${taken}`,
    `answers that are neither 201 nor 422: ${failed}`,
  );
  row(TITLE, 'half-stored', String(Math.abs(counts!.pieces - taken) + Math.abs(counts!.whole - taken)));
  const shelf = await teacher.view('/shelf');
  row(TITLE, 'the shelf with all that was taken', shelf.status === 200 ? 'opens' : `answers ${shelf.status}`);
  await world.end();
}

const FILES = [
  ['spoilt.musicxml', SEEDS.musicxml],
  ['spoilt.abc', SEEDS.abc],
  ['spoilt.mei', SEEDS.mei],
] as const;

export async function fuzz(): Promise<void> {
  begin(
    TITLE,
    `Up to ${INPUTS} files for each reader, as many as ${MOST_MINUTES} minutes allow, each a good one with characters, numbers or elements changed by chance.`,
  );
  for (const [name, seed] of FILES) await reader(name, seed);
  await throughTheServer();
}
