/** The running server and database of `./test`. */
import pg from 'pg';

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
