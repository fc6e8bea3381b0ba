/** A database that a newer Oculon has changed is refused before anything is done to it. */
import { describe, expect, it } from 'vitest';
import pg from 'pg';
import { refuseNewer } from '../../scripts/run/database';
import { asOwner } from './world';

async function withDatabase(work: (url: string, client: pg.Client) => Promise<void>): Promise<void> {
  const name = `newer_${Date.now()}`;
  await asOwner((client) => client.query(`CREATE DATABASE ${name}`));
  const url = new URL(process.env['OCULON_TEST_OWNER_URL']!);
  url.pathname = `/${name}`;
  const client = new pg.Client({ connectionString: url.href });
  await client.connect();
  try {
    await work(url.href, client);
  } finally {
    await client.end();
    await asOwner((owner) => owner.query(`DROP DATABASE ${name}`));
  }
}

describe('a database', () => {
  it('that is empty, or as this Oculon knows it, is taken; one of a newer Oculon is refused by name', async () => {
    await withDatabase(async (url, client) => {
      await expect(refuseNewer(url)).resolves.toBeUndefined();
      await client.query('CREATE TABLE migrations (id serial PRIMARY KEY, name text NOT NULL)');
      await client.query(`INSERT INTO migrations (name) VALUES ('0001_studios')`);
      await expect(refuseNewer(url)).resolves.toBeUndefined();
      await client.query(`INSERT INTO migrations (name) VALUES ('9999_from-the-future')`);
      await expect(refuseNewer(url)).rejects.toThrow(/newer Oculon \(9999_from-the-future\)/);
    });
  });
});
