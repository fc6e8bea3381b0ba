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
  --port N       port of the web server (default 4180, or the next free one)
  --data FOLDER  where the database lives (default .oculon in the project)
  --no-demo      without the demo studio
  DATABASE_URL   uses this database (its owner's connection) instead of a cluster of its own`;

const DEFAULT_PORT = 4180;

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
    const port = await freePort(Number(values.port ?? DEFAULT_PORT));
    const server = await startServer({ port, databaseUrl, demo });
    console.log(`\nOculon is ready: ${server.address}\n(Ctrl-C stops it; the data stays in ${folder})`);
    const end = () => server.process.kill('SIGTERM');
    process.once('SIGINT', end);
    process.once('SIGTERM', end);
    await new Promise((done) => server.process.once('exit', done));
  } finally {
    cluster.stop();
  }
}

main().catch((error: unknown) => {
  console.error(error instanceof StartProblem ? error.message : error);
  process.exit(1);
});
