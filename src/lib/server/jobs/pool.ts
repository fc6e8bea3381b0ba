/** One worker thread with a queue. Where no built thread exists (scripts, seeds) the work is done in place. */
import { existsSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { config } from '../config';
import { log } from '../log';
import type { TaskName, Tasks } from './tasks';

interface Waiting {
  readonly number: number;
  readonly name: TaskName;
  readonly ask: unknown;
  readonly urgency: number;
  readonly resolve: (value: never) => void;
  readonly reject: (problem: Error) => void;
}

/** A task that takes longer than this is given up, and whoever waits is told. */
const LONGEST_MS: Readonly<Record<TaskName, number>> = {
  import: 20_000,
  nextVersion: 20_000,
  page: 120_000,
  plan: 180_000,
};
/** A thread that wants more memory ends, and with it the task; the server goes on. */
const MOST_MEGABYTES = 1_024;

/** The work was given up because it took too long or wanted too much memory; asked again it would do so again. */
export class GivenUp extends Error {}

export class ThreadPool {
  private worker: Worker | null = null;
  private readonly queue: Waiting[] = [];
  private current: Waiting | null = null;
  private timer: NodeJS.Timeout | null = null;
  private lastNumber = 0;

  constructor(private readonly background: boolean) {}

  /**
   * Tasks of lower `urgency` numbers go first; of equal ones the older.
   * @throws Error (as a rejection) that names the task when its work fails, takes too long or the pool is closed
   */
  run<N extends TaskName>(name: N, ask: Tasks[N]['ask'], urgency = 0): Promise<Tasks[N]['answer']> {
    const path = config().threadPath;
    if (!path || !existsSync(path)) return inPlace(name, ask);
    return new Promise((resolve, reject) => {
      const number = ++this.lastNumber;
      this.queue.push({ number, name, ask, urgency, resolve, reject });
      this.next(path);
    });
  }

  private next(path: string) {
    if (this.current || this.queue.length === 0) return;
    this.queue.sort((a, b) => a.urgency - b.urgency || a.number - b.number);
    const task = (this.current = this.queue.shift()!);
    const worker = (this.worker ??= this.start(path));
    this.timer = setTimeout(
      () => this.giveUp(path, (name) => new GivenUp(`${name}: took too long`)),
      LONGEST_MS[task.name],
    );
    worker.postMessage({ number: task.number, name: task.name, ask: task.ask });
  }

  /** Ends the thread; whoever waits is told, and may ask again. */
  close(): void {
    const left = [...(this.current ? [this.current] : []), ...this.queue.splice(0)];
    void this.worker?.terminate();
    this.worker = null;
    this.finish();
    for (const { name, reject } of left) reject(new Error(`${name}: the server is closing`));
  }

  private start(path: string): Worker {
    const worker = new Worker(path, {
      workerData: { background: this.background },
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
    });
    worker.on('message', (answer: { number: number; value?: never; problem?: string }) => {
      if (answer.number !== this.current?.number) return;
      const task = this.current;
      this.finish();
      if (answer.problem === undefined) task.resolve(answer.value as never);
      else task.reject(new Error(answer.problem));
      this.next(path);
    });
    worker.on('error', (error: Error & { code?: string }) => {
      log.error({ err: error }, 'a worker thread ended');
      const isFull = error.code === 'ERR_WORKER_OUT_OF_MEMORY';
      this.giveUp(path, (name) =>
        isFull ? new GivenUp(`${name}: wanted too much memory`) : new Error(`${name}: ${error.message}`),
      );
    });
    return worker;
  }

  private giveUp(path: string, why: (name: TaskName) => Error) {
    const task = this.current;
    void this.worker?.terminate();
    this.worker = null;
    this.finish();
    task?.reject(why(task.name));
    this.next(path);
  }

  private finish() {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.current = null;
  }
}

/** Loaded only here, so that the server itself never carries the engraver and the planner. */
async function inPlace<N extends TaskName>(name: N, ask: Tasks[N]['ask']): Promise<Tasks[N]['answer']> {
  const { HANDLERS } = await import('./tasks');
  return HANDLERS[name](ask);
}

/** For files that somebody waits for, and for everything that can wait. */
export const quickPool = new ThreadPool(false);
export const backgroundPool = new ThreadPool(true);
