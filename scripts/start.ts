/** `./start`: own database, migrations, demo, build, server. Safe to run again; data stays. */
import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { closePool } from '../src/lib/server/db';
import { seedDemo } from './demo/seed';
import { buildOnce } from './run/build';
import { type Cluster, freePort, startCluster } from './run/cluster';
import { prepareDatabase } from './run/database';
import { DEFAULT_DATA_FOLDER } from './run/paths';
import { startServer } from './run/server';
import { StartProblem } from './run/shell';

const HELP = `./start [--port N] [--data FOLDER] [--no-demo]
  --port N       port of the web server (default 4180, or another where that is in use)
  --data FOLDER  where the database lives (default .oculon in the project)
  --no-demo      without the demo studio
  DATABASE_URL   uses this database (its owner's connection) instead of a cluster of its own`;

const DEFAULT_PORT = 4180;

/** @throws StartProblem for what is no port */
function portOrThrow(text: string): number {
  const port = Number(text);
  if (Number.isInteger(port) && port >= 0 && port < 65_536) return port;
  throw new StartProblem(`“${text}” is no port; --port takes a number from 1 to 65535.`);
}

async function main() {
  const { values } = parseArgs({
    options: {
      port: { type: 'string' },
      data: { type: 'string' },
      'no-demo': { type: 'boolean', default: false },
      help: { type: 'boolean', default: false },
    },
  });
  if (values.help) return console.log(HELP);
  const asked = values.port === undefined ? null : portOrThrow(values.port);
  const folder = resolve(values.data ?? DEFAULT_DATA_FOLDER);
  const demo = !values['no-demo'];
  mkdirSync(folder, { recursive: true });

  const given = process.env.DATABASE_URL;
  const cluster: Cluster = given ? { ownerUrl: given, stop: () => undefined } : await startCluster(folder);
  try {
    const databaseUrl = await prepareDatabase(cluster.ownerUrl, folder);
    process.env.OCULON_DATABASE_URL = databaseUrl;
    if (demo) await seedDemo(cluster.ownerUrl);
    await closePool();
    buildOnce();
    const port = await freePort(asked ?? DEFAULT_PORT);
    if (asked !== null && asked !== 0 && port !== asked)
      throw new StartProblem(`Port ${asked} is in use; choose another with --port.`);
    const server = await startServer({ port, databaseUrl, demo });
    console.log(`\nOculon is ready: ${server.address}\n(Ctrl-C stops it; the data stays in ${folder})`);
    let asksToEnd = false;
    const end = () => {
      asksToEnd = true;
      server.process.kill('SIGTERM');
    };
    process.once('SIGINT', end);
    process.once('SIGTERM', end);
    const code = await new Promise<number | null>((done) => server.process.once('exit', done));
    // Whoever started Oculon as a service must hear that it ended by itself.
    if (!asksToEnd) process.exitCode = code === 0 || code === null ? 1 : code;
  } finally {
    cluster.stop();
  }
}

main().catch((error: unknown) => {
  console.error(error instanceof StartProblem ? error.message : error);
  process.exit(1);
});
