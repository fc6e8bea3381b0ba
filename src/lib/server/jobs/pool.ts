/** Worker threads with limits of time and memory. Where no built thread exists (scripts, seeds) work is done in place. */
import { existsSync } from 'node:fs';
import { Piscina } from 'piscina';
import { config } from '../config';
import { log } from '../log';
import { FairTurns } from './fairTurns';
import { GivenUp } from './givenUp';
import type { TaskName, Tasks } from './tasks';

/** A task that takes longer than this is given up, and whoever waits is told. */
const LONGEST_MS: Readonly<Record<TaskName, number>> = {
  routine: 20_000,
  import: 20_000,
  nextVersion: 20_000,
  beginning: 20_000,
  page: 120_000,
  copy: 120_000,
  plan: 180_000,
};
/** A thread that wants more memory ends, and with it the task; the server goes on. */
const MOST_MEGABYTES = 1_024;
/** On Linux a thread has a priority of its own: background work gives way to whoever waits for an answer. */
const BACKGROUND_NICENESS = 10;

export class ThreadPool {
  private piscina: Piscina | null = null;
  private readonly turns = new FairTurns();

  constructor(private readonly niceness: number) {}

  /**
   * Studios take turns, each in the order in which it asked.
   * @throws Error (as a rejection) that names the task when its work fails, takes too long or the pool is closed
   */
  run<N extends TaskName>(studioId: string, name: N, ask: Tasks[N]['ask']): Promise<Tasks[N]['answer']> {
    const path = config().threadPath;
    if (!path || !existsSync(path)) return inPlace(name, ask);
    return this.turns.take(studioId, () => this.runNow(path, name, ask));
  }

  /** Ends the thread; whoever waits is told, and may ask again. */
  close(): void {
    this.turns.close(new Error('the server is closing'));
    void this.piscina?.destroy();
    this.piscina = null;
  }

  private async runNow<N extends TaskName>(
    path: string,
    name: N,
    ask: Tasks[N]['ask'],
  ): Promise<Tasks[N]['answer']> {
    const piscina = (this.piscina ??= this.start(path));
    try {
      // The time counts from here on: it is this task's turn.
      const answer: unknown = await piscina.run(
        { name, ask },
        { signal: AbortSignal.timeout(LONGEST_MS[name]) },
      );
      return answer as Tasks[N]['answer'];
    } catch (error) {
      throw reasonOf(name, error as Error & { readonly code?: string });
    }
  }

  private start(path: string): Piscina {
    const piscina = new Piscina({
      filename: path,
      minThreads: 1,
      maxThreads: 1,
      niceIncrement: this.niceness,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
    });
    piscina.on('error', (error: Error) => log.error({ err: error }, 'a worker thread ended'));
    return piscina;
  }
}

function reasonOf(name: TaskName, error: Error & { readonly code?: string }): Error {
  if (error.name === 'AbortError') return new GivenUp(`${name}: took too long`);
  if (error.code === 'ERR_WORKER_OUT_OF_MEMORY') return new GivenUp(`${name}: wanted too much memory`);
  return new Error(`${name}: ${error.message}`, { cause: error });
}

/** Loaded only here, so that the server itself never carries the engraver and the planner. */
async function inPlace<N extends TaskName>(name: N, ask: Tasks[N]['ask']): Promise<Tasks[N]['answer']> {
  const { HANDLERS } = await import('./tasks');
  return HANDLERS[name](ask);
}

/** For files that somebody waits for; for pages, and for plans, which can wait and take longest. */
export const quickPool = new ThreadPool(0);
export const pagePool = new ThreadPool(BACKGROUND_NICENESS);
export const planPool = new ThreadPool(BACKGROUND_NICENESS);
