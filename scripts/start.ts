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
import { type RunningServer, startServer } from './run/server';
import { StartProblem } from './run/shell';

const HELP = `./start [--port N] [--data FOLDER] [--no-demo] [--host ADDRESS] [--public URL] [--behind-proxy]
  --port N       port of the web server (default 4180, or another where that is in use)
  --data FOLDER  where the database lives (default .oculon in the project)
  --no-demo      without the demo studio; ./oculon admin makes the first account
  --host ADDRESS where to listen (default 127.0.0.1, this machine alone)
  --public URL   the address in the browser where it is another one, as https://oculon.example
  --behind-proxy visitors' addresses are those in the proxy's x-forwarded-for
  DATABASE_URL   uses this database (its owner's connection) instead of a cluster of its own`;

const DEFAULT_PORT = 4180;

/** @throws StartProblem for what is no port */
function portOrThrow(text: string): number {
  const port = Number(text);
  if (Number.isInteger(port) && port >= 0 && port < 65_536) return port;
  throw new StartProblem(`“${text}” is no port; --port takes a number from 1 to 65535.`);
}

/** @throws StartProblem for what is no address that a browser can have */
function publicAddressOrThrow(text: string): string {
  const url = URL.canParse(text) ? new URL(text) : null;
  if (url && /^https?:$/.test(url.protocol) && url.pathname === '/') return url.origin;
  throw new StartProblem(`“${text}” is no public address; --public takes one like https://oculon.example.`);
}

interface Options {
  /** Null: the usual one, or another where that is in use. */
  readonly port: number | null;
  readonly folder: string;
  readonly demo: boolean;
  readonly host?: string;
  readonly publicAddress?: string;
  readonly behindProxy: boolean;
}

/**
 * Null when help was asked for.
 * @throws StartProblem for options that make no sense
 */
function maybeOptions(): Options | null {
  const { values } = parseArgs({
    options: {
      port: { type: 'string' },
      data: { type: 'string' },
      'no-demo': { type: 'boolean', default: false },
      host: { type: 'string' },
      public: { type: 'string' },
      'behind-proxy': { type: 'boolean', default: false },
      help: { type: 'boolean', default: false },
    },
  });
  if (values.help) return null;
  const options = {
    port: values.port === undefined ? null : portOrThrow(values.port),
    folder: resolve(values.data ?? DEFAULT_DATA_FOLDER),
    demo: !values['no-demo'],
    host: values.host,
    publicAddress: values.public === undefined ? undefined : publicAddressOrThrow(values.public),
    behindProxy: values['behind-proxy'],
  };
  const isOpen = options.publicAddress !== undefined || (options.host ?? '127.0.0.1') !== '127.0.0.1';
  if (options.demo && isOpen)
    throw new StartProblem(
      'The demo lets everybody in who reaches it; add --no-demo to --host and --public.',
    );
  return options;
}

/** @throws StartProblem when the port that was asked for is in use */
async function portFor(asked: number | null): Promise<number> {
  const port = await freePort(asked ?? DEFAULT_PORT);
  if (asked !== null && asked !== 0 && port !== asked)
    throw new StartProblem(`Port ${asked} is in use; choose another with --port.`);
  return port;
}

/** Until the server ends, or is asked to; gives the code to end with. */
async function untilItEnds(server: RunningServer): Promise<number> {
  let asksToEnd = false;
  const end = () => {
    asksToEnd = true;
    server.process.kill('SIGTERM');
  };
  process.once('SIGINT', end);
  process.once('SIGTERM', end);
  const code = await new Promise<number | null>((done) => server.process.once('exit', done));
  // Whoever started Oculon as a service must hear that it ended by itself.
  if (asksToEnd) return 0;
  return code === 0 || code === null ? 1 : code;
}

async function main() {
  const options = maybeOptions();
  if (!options) return console.log(HELP);
  const { folder, demo } = options;
  mkdirSync(folder, { recursive: true });
  const given = process.env.DATABASE_URL;
  const cluster: Cluster = given ? { ownerUrl: given, stop: () => undefined } : await startCluster(folder);
  try {
    const database = await prepareDatabase(cluster.ownerUrl, folder);
    process.env.OCULON_DATABASE_URL = database.app;
    if (demo) await seedDemo(cluster.ownerUrl);
    await closePool();
    buildOnce();
    const server = await startServer({ ...options, port: await portFor(options.port), database });
    console.log(`\nOculon is ready: ${server.address}\n(Ctrl-C stops it; the data stays in ${folder})`);
    process.exitCode = await untilItEnds(server);
  } finally {
    cluster.stop();
  }
}

main().catch((error: unknown) => {
  console.error(error instanceof StartProblem ? error.message : error);
  process.exit(1);
});
