/** A studio's data as one file and back, by PostgreSQL's own programs. */
import { chmodSync, existsSync, mkdtempSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, dirname, join, parse } from 'node:path';
import { asOwner } from './database';
import { postgresBinOrThrow } from './debian';
import { MIGRATIONS } from './paths';
import { capture, type Outcome, StartProblem } from './shell';

/** Jobs are no data: what is lacking is made again. */
const LEFT_OUT = ['--exclude-schema=graphile_worker', '--exclude-table-data=brakes.*'];

/** Everything that a backup holds, and the jobs, which belong to what was there before. */
const WIPE = `DROP SCHEMA IF EXISTS public, brakes, graphile_worker CASCADE;
CREATE SCHEMA public;
`;

/** One of PostgreSQL's programs on this database; the password stays out of the list of processes. */
function onDatabase(name: string, ownerUrl: string, args: readonly string[]): Outcome {
  const url = new URL(ownerUrl);
  const env = { ...process.env, PGPASSWORD: decodeURIComponent(url.password) };
  url.password = '';
  return capture(tool(name), [`--dbname=${url.href}`, ...args], { env });
}

const tool = (name: string) => join(postgresBinOrThrow(), name);

/** @throws StartProblem when the file exists or the database cannot be read: no file is left then */
export function backupTo(file: string, ownerUrl: string): void {
  if (existsSync(file)) throw new StartProblem(`${file} is there already; choose another name.`);
  if (!existsSync(dirname(file))) throw new StartProblem(`There is no folder ${dirname(file)}.`);
  const partial = `${file}.partial`;
  writeFileSync(partial, '', { mode: 0o600 });
  const done = onDatabase('pg_dump', ownerUrl, [
    '--format=custom',
    '--no-owner',
    ...LEFT_OUT,
    `--file=${partial}`,
  ]);
  if (done.code !== 0) {
    rmSync(partial, { force: true });
    throw new StartProblem(`The backup failed:\n${done.output}`);
  }
  chmodSync(partial, 0o600);
  renameSync(partial, file);
}

/**
 * Puts back what `file` holds, in one transaction. Needs a database that was prepared once, for its roles.
 * @throws StartProblem when the file is no backup, comes from a newer Oculon or would overwrite a studio: nothing is
 *   changed then
 */
export async function restoreFrom(file: string, ownerUrl: string, replace: boolean): Promise<void> {
  if (!existsSync(file)) throw new StartProblem(`There is no file ${file}.`);
  refuseNewerBackup(file);
  const studios = await asOwner(ownerUrl, (client) =>
    client.query<{ name: string }>('SELECT name FROM studios ORDER BY name'),
  );
  if (studios.rows.length > 0 && !replace)
    throw new StartProblem(
      `There are studios here: ${studios.rows.map(({ name }) => name).join(', ')}. Add --replace to lose them for what is in ${basename(file)}.`,
    );
  const folder = mkdtempSync(join(tmpdir(), 'oculon-restore-'));
  try {
    const wipe = join(folder, 'wipe.sql');
    const sql = join(folder, 'backup.sql');
    writeFileSync(wipe, WIPE, { mode: 0o600 });
    writeFileSync(sql, '', { mode: 0o600 });
    orThrow(capture(tool('pg_restore'), ['--no-owner', `--file=${sql}`, file]).code === 0, file);
    const done = onDatabase('psql', ownerUrl, [
      '--no-psqlrc',
      '--quiet',
      '--single-transaction',
      '--set=ON_ERROR_STOP=1',
      `--file=${wipe}`,
      `--file=${sql}`,
    ]);
    if (done.code !== 0)
      throw new StartProblem(`The backup could not be put back; nothing was changed:\n${done.output}`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function refuseNewerBackup(file: string) {
  const { code, output } = capture(tool('pg_restore'), [
    '--data-only',
    '--table=migrations',
    '--file=-',
    file,
  ]);
  const rows = /^COPY public\.migrations [^\n]*\n([^]*?)^\\\.$/m.exec(output)?.[1];
  orThrow(code === 0 && rows !== undefined, file);
  const own = new Set(readdirSync(MIGRATIONS).map((name) => parse(name).name));
  const unknown = rows!
    .split('\n')
    .flatMap((row) => row.split('\t')[1] ?? [])
    .find((name) => !own.has(name));
  if (unknown)
    throw new StartProblem(
      `${basename(file)} comes from a newer Oculon (${unknown}), which this one cannot read safely.`,
    );
}

function orThrow(isBackup: boolean, file: string) {
  if (!isBackup) throw new StartProblem(`${basename(file)} is no backup of Oculon, or it is damaged.`);
}
