/** The built web server as a child process. */
import { type ChildProcess, spawn } from 'node:child_process';
import { join } from 'node:path';
import type { DatabaseUrls } from './database';
import { ROOT } from './paths';
import { StartProblem } from './shell';

export interface RunningServer {
  readonly address: string;
  readonly process: ChildProcess;
}

export interface ServerOptions {
  readonly port: number;
  readonly database: DatabaseUrls;
  readonly demo: boolean;
  /** Where it listens; this machine alone unless said otherwise. */
  readonly host?: string;
  /** The address in the browser's line where it is not the own one: behind a proxy, under a name. */
  readonly publicAddress?: string;
  /** Whose address a visitor has is said by the proxy's `x-forwarded-for`. */
  readonly behindProxy?: boolean;
}

/** What the owner of the database may do is nothing for a process that answers strangers. */
function withoutOwner(env: NodeJS.ProcessEnv): NodeJS.ProcessEnv {
  const { DATABASE_URL: _owner, OCULON_TEST_OWNER_URL: _testOwner, ...rest } = env;
  return rest;
}

export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const host = options.host ?? '127.0.0.1';
  const own = `http://${host === '127.0.0.1' || host === '0.0.0.0' ? 'localhost' : host}:${options.port}`;
  const address = options.publicAddress ?? own;
  const child = spawn(process.execPath, [join(ROOT, 'build/index.js')], {
    // Over the channel it notices when whoever started it is gone.
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: {
      ...withoutOwner(process.env),
      ...(options.behindProxy ? { ADDRESS_HEADER: 'x-forwarded-for', XFF_DEPTH: '1' } : {}),
      HOST: host,
      PORT: String(options.port),
      ORIGIN: address,
      BODY_SIZE_LIMIT: '26M',
      OCULON_DATABASE_URL: options.database.app,
      OCULON_JOBS_URL: options.database.jobs,
      OCULON_DEMO: options.demo ? '1' : '0',
      OCULON_THREAD: join(ROOT, 'build/thread/thread.js'),
    },
  });
  await untilItAnswers(own, child);
  return { address, process: child };
}

/** A server that will not stop is ended: its database is the one that keeps the work. */
const LONGEST_STOP_MS = 8000;

async function untilItAnswers(address: string, child: ChildProcess) {
  for (let attempt = 0; attempt < 200; attempt++) {
    if (child.exitCode !== null) throw new StartProblem(`The server ended with code ${child.exitCode}.`);
    const answer = await fetch(`${address}/healthz`).catch(() => null);
    if (answer?.ok) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  child.kill('SIGKILL');
  throw new StartProblem('The server does not answer.');
}

export async function stopServer(server: RunningServer): Promise<void> {
  if (server.process.exitCode !== null) return;
  const ended = new Promise((done) => server.process.once('exit', done));
  server.process.kill('SIGTERM');
  const impatient = setTimeout(() => server.process.kill('SIGKILL'), LONGEST_STOP_MS);
  await ended;
  clearTimeout(impatient);
}
