/** `./oculon admin`, `backup` and `restore`: what only the owner of the data may do. */
import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { insertAccountOnce, setPassword } from './run/account';
import { backupTo, restoreFrom } from './run/backup';
import { startCluster } from './run/cluster';
import { prepareDatabase } from './run/database';
import { passwordOrThrow } from './run/password';
import { DEFAULT_DATA_FOLDER } from './run/paths';
import { StartProblem } from './run/shell';

const HELP = `./oculon admin --studio NAME --teacher NAME --email ADDRESS [--data FOLDER]
  Makes a studio with its teacher. The password is asked for, or read from standard input.
./oculon admin --email ADDRESS --new-password [--data FOLDER]
  Sets another password for a teacher and ends their sessions.
./oculon backup FILE [--data FOLDER]
  Everything of all studios in one file; Oculon may be running.
./oculon restore FILE [--replace] [--data FOLDER]
  Puts a backup back, whole or not at all; --replace loses the studios that are there.

  --data FOLDER  where the database lives (default .oculon in the project), as for ./start;
  DATABASE_URL   uses this database (its owner's connection) instead`;

const OPTIONS = {
  data: { type: 'string' },
  studio: { type: 'string' },
  teacher: { type: 'string' },
  email: { type: 'string' },
  'new-password': { type: 'boolean', default: false },
  replace: { type: 'boolean', default: false },
  help: { type: 'boolean', default: false },
} as const;

type Values = ReturnType<typeof parsed>['values'];
const parsed = () => parseArgs({ args: process.argv.slice(2), options: OPTIONS, allowPositionals: true });

/** Runs `work` on the database of the data folder, which is started for it where it does not run. */
async function withDatabase(values: Values, work: (ownerUrl: string) => Promise<void> | void): Promise<void> {
  const folder = resolve(values.data ?? DEFAULT_DATA_FOLDER);
  mkdirSync(folder, { recursive: true });
  const given = process.env.DATABASE_URL;
  const cluster = given ? { ownerUrl: given, stop: () => undefined } : await startCluster(folder);
  try {
    await prepareDatabase(cluster.ownerUrl, folder);
    await work(cluster.ownerUrl);
    // What was put back may be older than the program.
    await prepareDatabase(cluster.ownerUrl, folder);
  } finally {
    cluster.stop();
  }
}

const EMAIL = /^\S+@\S+$/;

async function admin(values: Values): Promise<void> {
  const { studio, teacher, email } = values;
  if (!email || !EMAIL.test(email))
    throw new StartProblem(`--email takes the address to sign in with.\n\n${HELP}`);
  if (values['new-password']) {
    const password = await passwordOrThrow();
    await withDatabase(values, async (ownerUrl) => {
      if (!(await setPassword(ownerUrl, email, password)))
        throw new StartProblem(`Nobody signs in as ${email}.`);
    });
    return console.log(`${email} has a new password.`);
  }
  if (!studio?.trim() || !teacher?.trim())
    throw new StartProblem(`A studio and its teacher have names.\n\n${HELP}`);
  const password = await passwordOrThrow();
  await withDatabase(values, async (ownerUrl) => {
    if (!(await insertAccountOnce(ownerUrl, { studio, teacher, email, password })))
      throw new StartProblem(`${email} signs in here already; --new-password sets another password.`);
  });
  console.log(`${teacher} can sign in as ${email}.`);
}

const fileOrThrow = (file: string | undefined) => {
  if (!file) throw new StartProblem(`Name the file.\n\n${HELP}`);
  return resolve(file);
};

async function main(): Promise<void> {
  const { values, positionals } = parsed();
  const [command, name] = positionals;
  if (values.help) return console.log(HELP);
  if (command === 'admin') return admin(values);
  const file = fileOrThrow(name);
  if (command === 'backup') {
    await withDatabase(values, (ownerUrl) => backupTo(file, ownerUrl));
    return console.log(`All studios are in ${file}.`);
  }
  await withDatabase(values, (ownerUrl) => restoreFrom(file, ownerUrl, values.replace));
  console.log(`What was in ${file} is here again.`);
}

main().catch((error: unknown) => {
  const isPlain =
    error instanceof StartProblem || (error as { code?: string }).code?.startsWith('ERR_PARSE_ARGS');
  console.error(isPlain ? (error as Error).message : error);
  process.exit(2);
});
