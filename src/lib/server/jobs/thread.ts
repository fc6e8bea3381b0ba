/** A worker thread of the server: answers one task after another. Built apart, as it is a program of its own. */
import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { HANDLERS, type TaskName } from './tasks';

interface Question {
  readonly number: number;
  readonly name: TaskName;
  readonly ask: never;
}

// On Linux the priority is the thread's own: background work gives way to whoever waits for an answer.
if ((workerData as { background?: boolean } | null)?.background) setPriority(10);

parentPort?.on('message', ({ number, name, ask }: Question) => {
  void answer(number, name, ask);
});

async function answer(number: number, name: TaskName, ask: never) {
  try {
    parentPort!.postMessage({ number, value: await HANDLERS[name](ask) });
  } catch (error) {
    parentPort!.postMessage({
      number,
      problem: error instanceof Error ? (error.stack ?? error.message) : String(error),
    });
  }
}
