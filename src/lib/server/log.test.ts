import pg from 'pg';
import { expect, it } from 'vitest';
import { plainError } from './log';

it('of an error of the database neither connection nor password nor secret key is logged', async () => {
  const client = new pg.Client({ host: '127.0.0.1', port: 1, password: 'not-for-the-log' });
  const error: unknown = await client.connect().catch((one: unknown) => one);
  const lost = Object.assign(new Error('lost', { cause: error }), { client, secretKey: 4711 });
  const written = JSON.stringify(plainError(lost));
  expect(written).toContain('ECONNREFUSED');
  expect(written).not.toMatch(/not-for-the-log|4711|secretKey/);
});
