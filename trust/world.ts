/** A database and a server of their own, which the probes may kill. */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { insertAccountOnce } from '../scripts/run/account';
import { buildOnce } from '../scripts/run/build';
import { type Cluster, freePort, startCluster } from '../scripts/run/cluster';
import { asOwner, type DatabaseUrls, prepareDatabase } from '../scripts/run/database';
import { type RunningServer, startServer, stopServer } from '../scripts/run/server';

const PASSWORD = 'a password for probes';

export class World {
  private constructor(
    private readonly folder: string,
    private cluster: Cluster,
    private readonly database: DatabaseUrls,
    private readonly port: number,
    private server: RunningServer,
  ) {}

  static async make(): Promise<World> {
    buildOnce();
    const folder = mkdtempSync(join(tmpdir(), 'oculon-trust-'));
    const cluster = await startCluster(folder);
    const database = await prepareDatabase(cluster.ownerUrl, folder);
    const port = await freePort(0);
    const server = await startServer({ port, database, demo: false });
    return new World(folder, cluster, database, port, server);
  }

  get address(): string {
    return this.server.address;
  }

  async end(): Promise<void> {
    await stopServer(this.server);
    this.cluster.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }

  async killServer(): Promise<void> {
    const gone = new Promise((done) => this.server.process.once('exit', done));
    this.server.process.kill('SIGKILL');
    await gone;
    this.server = await startServer({ port: this.port, database: this.database, demo: false });
  }

  async killDatabase(): Promise<void> {
    const pid = Number(readFileSync(join(this.folder, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0]);
    process.kill(pid, 'SIGKILL');
    while (isAlive(pid)) await later(20);
    this.cluster = await startCluster(this.folder);
  }

  ask<T extends Record<string, unknown>>(sql: string, values: unknown[] = []): Promise<readonly T[]> {
    return asOwner(this.cluster.ownerUrl, async (client) => (await client.query<T>(sql, values)).rows);
  }

  /** A studio of its own with one teacher, signed in. */
  async teacher(name: string): Promise<Teacher> {
    const email = `${name}@studio.example`;
    await insertAccountOnce(this.cluster.ownerUrl, {
      studio: name,
      teacher: name,
      email,
      password: PASSWORD,
    });
    const answer = await fetch(`${this.address}/sign-in`, {
      method: 'POST',
      headers: { origin: this.address, 'content-type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams({ email, password: PASSWORD }),
      redirect: 'manual',
    });
    const cookie = answer.headers.get('set-cookie')?.split(';')[0];
    if (!cookie) throw new Error(`sign-in answered ${answer.status}`);
    return new Teacher(() => this.address, cookie);
  }

  /** Of a piece: its edition. */
  async editionOf(pieceId: string): Promise<string> {
    const rows = await this.ask<{ id: string }>('SELECT id FROM editions WHERE piece_id = $1', [pieceId]);
    return rows[0]!.id;
  }
}

export class Teacher {
  constructor(
    private readonly address: () => string,
    readonly cookie: string,
  ) {}

  async send(fileName: string, content: string | Uint8Array): Promise<{ status: number; id: string | null }> {
    const form = new FormData();
    form.set('file', new File([typeof content === 'string' ? content : new Uint8Array(content)], fileName));
    const headers = { cookie: this.cookie, origin: this.address() };
    const answer = await fetch(`${this.address()}/api/pieces`, { method: 'POST', headers, body: form });
    const body = (await answer.json().catch(() => ({}))) as { id?: string };
    return { status: answer.status, id: body.id ?? null };
  }

  append(
    editionId: string,
    seenSeq: number,
    gestures: readonly object[],
    signal?: AbortSignal,
  ): Promise<Response> {
    return fetch(`${this.address()}/api/editions/${editionId}/gestures`, {
      method: 'POST',
      headers: { cookie: this.cookie, 'content-type': 'application/json' },
      body: JSON.stringify({ seenSeq, gestures }),
      signal: signal ?? null,
    });
  }

  view(path: string): Promise<Response> {
    return fetch(this.address() + path, { headers: { cookie: this.cookie } });
  }
}

export const later = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

export const fingerGesture = (target: string, before: number | null, after: number) => ({
  id: crypto.randomUUID(),
  operations: [{ v: 2, target, attribute: 'finger', before, after }],
});

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}
