/** The built web server as a child process. */
import { type ChildProcess, spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './paths';
import { StartProblem } from './shell';

export interface RunningServer {
  readonly address: string;
  readonly process: ChildProcess;
}

export async function startServer(options: {
  readonly port: number;
  readonly databaseUrl: string;
  readonly demo: boolean;
}): Promise<RunningServer> {
  const address = `http://localhost:${options.port}`;
  const child = spawn(process.execPath, [join(ROOT, 'build/index.js')], {
    // Over the channel it notices when whoever started it is gone.
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: {
      ...process.env,
      HOST: '127.0.0.1',
      PORT: String(options.port),
      ORIGIN: address,
      BODY_SIZE_LIMIT: '26M',
      OCULON_DATABASE_URL: options.databaseUrl,
      OCULON_DEMO: options.demo ? '1' : '0',
      OCULON_THREAD: join(ROOT, 'build/thread/thread.js'),
    },
  });
  await untilItAnswers(address, child);
  return { address, process: child };
}

/** A server that will not stop is ended: its database is the one that keeps the work. */
const LONGEST_STOP_MS = 8000;

async function untilItAnswers(address: string, child: ChildProcess) {
  for (let attempt = 0; attempt < 200; attempt++) {
    if (child.exitCode !== null) throw new StartProblem(`The server ended with code ${child.exitCode}.`);
    const answer = await fetch(`${address}/sign-in`).catch(() => null);
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
