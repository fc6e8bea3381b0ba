/** Programs that come from Debian's packages. */
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { capture, isRoot, StartProblem } from './shell';

const POSTGRES_HOME = '/usr/lib/postgresql';

/** Folder of initdb and pg_ctl, the newest version; null when the server is not installed. */
export function maybePostgresBin(): string | null {
  if (!existsSync(POSTGRES_HOME)) return null;
  const versions = readdirSync(POSTGRES_HOME).sort((a, b) => Number(b) - Number(a));
  const found = versions
    .map((version) => `${POSTGRES_HOME}/${version}/bin`)
    .find((bin) => existsSync(`${bin}/initdb`));
  return found ?? null;
}

export function postgresBinOrThrow(): string {
  const found = maybePostgresBin();
  if (found) return found;
  keepDebianFromMakingACluster();
  installPackages(
    ['postgresql'],
    'or set DATABASE_URL to the owner of an empty database on a running server',
  );
  const bin = maybePostgresBin();
  if (!bin) throw new StartProblem(`PostgreSQL was installed but ${POSTGRES_HOME} has no initdb.`);
  return bin;
}

export function chromiumOrThrow(): string {
  const path = process.env.OCULON_CHROMIUM ?? '/usr/bin/chromium';
  if (!existsSync(path)) installPackages(['chromium'], 'or set OCULON_CHROMIUM to a Chromium');
  return path;
}

/** Oculon runs a cluster of its own; the package need not make one. */
function keepDebianFromMakingACluster() {
  if (!isRoot()) return;
  mkdirSync('/etc/postgresql-common/createcluster.d', { recursive: true });
  writeFileSync('/etc/postgresql-common/createcluster.d/oculon.conf', 'create_main_cluster = false\n');
}

function installPackages(names: readonly string[], otherwise: string) {
  const line = `apt-get update && apt-get install -y ${names.join(' ')}`;
  if (!isRoot()) {
    throw new StartProblem(
      `Missing: ${names.join(', ')}. Ask an administrator to run\n\n    ${line}\n\n${otherwise}.`,
    );
  }
  console.log(`Installing ${names.join(', ')} from Debian's packages …`);
  const env = 'DEBIAN_FRONTEND=noninteractive';
  const done = capture('sh', [
    '-c',
    `apt-get update -qq && ${env} apt-get install -y -qq ${names.join(' ')}`,
  ]);
  if (done.code !== 0) throw new StartProblem(`Could not install ${names.join(', ')}:\n${done.output}`);
}
