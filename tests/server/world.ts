/** The running server and database of `./test`. */
import pg from 'pg';
import { hashPassword } from '../../src/lib/server/auth';

const fromEnv = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set; run these tests by ./test`);
  return value;
};

export const address = fromEnv('OCULON_TEST_ADDRESS');

export async function asOwner<T>(work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: fromEnv('OCULON_TEST_OWNER_URL') });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** Returns the cookie header, or throws when the server does not let them in. */
export async function signInAs(email: string, password: string): Promise<string> {
  const answer = await fetch(`${address}/sign-in`, {
    method: 'POST',
    headers: { origin: address, 'content-type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams({ email, password }),
    redirect: 'manual',
  });
  const cookie = answer.headers.get('set-cookie')?.split(';')[0];
  if (!cookie?.startsWith('oculon_session=')) throw new Error(`sign-in answered ${answer.status}`);
  return cookie;
}

export async function sendFile(
  cookie: string,
  fileName: string,
  content: string | Uint8Array,
): Promise<Response> {
  const form = new FormData();
  form.set('file', new File([typeof content === 'string' ? content : new Uint8Array(content)], fileName));
  return fetch(`${address}/api/pieces`, { method: 'POST', headers: { cookie, origin: address }, body: form });
}

export async function importAs(cookie: string, fileName: string, content: string): Promise<string> {
  const answer = await sendFile(cookie, fileName, content);
  const body = (await answer.json()) as { id: string };
  if (answer.status !== 201) throw new Error(JSON.stringify(body));
  return body.id;
}

/** The current version of a piece. */
export async function versionOf(pieceId: string): Promise<string> {
  const { rows } = await asOwner((client) =>
    client.query<{ id: string }>(
      `SELECT v.id FROM score_versions v JOIN pieces p ON p.id = v.piece_id AND p.current_version = v.number
       WHERE p.id = $1`,
      [pieceId],
    ),
  );
  return rows[0]!.id;
}

export async function editionOf(pieceId: string): Promise<string> {
  const { rows } = await asOwner((client) =>
    client.query<{ id: string }>('SELECT id FROM editions WHERE piece_id = $1', [pieceId]),
  );
  return rows[0]!.id;
}

export async function postFile(
  cookie: string,
  path: string,
  fileName: string,
  content: string | Uint8Array,
  part?: number,
): Promise<{ status: number; body: Record<string, unknown> }> {
  const form = new FormData();
  form.set('file', new File([typeof content === 'string' ? content : new Uint8Array(content)], fileName));
  if (part !== undefined) form.set('part', String(part));
  const answer = await fetch(address + path, {
    method: 'POST',
    headers: { cookie, origin: address },
    body: form,
  });
  return { status: answer.status, body: (await answer.json()) as Record<string, unknown> };
}

/** Waits until the background has made what `sql` with the piece's id finds. */
export async function untilThere(sql: string, pieceId: string): Promise<Record<string, unknown>> {
  for (let attempt = 0; attempt < 300; attempt++) {
    const { rows } = await asOwner((client) => client.query<Record<string, unknown>>(sql, [pieceId]));
    if (rows[0]) return rows[0];
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`nothing found by ${sql}`);
}

/** A studio with one teacher, signed in. */
export async function newStudio(name: string): Promise<{ id: string; cookie: string }> {
  const email = `${name}-${Date.now()}@studio.example`;
  const passwordHash = await hashPassword('a long password');
  const id = await asOwner(async (client) => {
    const studio = await client.query<{ id: string }>('INSERT INTO studios (name) VALUES ($1) RETURNING id', [
      name,
    ]);
    await client.query(
      'INSERT INTO users (studio_id, email, display_name, password_hash) VALUES ($1, $2, $3, $4)',
      [studio.rows[0]!.id, email, name, passwordHash],
    );
    return studio.rows[0]!.id;
  });
  return { id, cookie: await signInAs(email, 'a long password') };
}
