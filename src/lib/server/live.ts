/**
 * Who has an edition open is told when it has changed: every process hears of a change through the database, whichever
 * of them made it. Nothing depends on it: a desk that is not told finds out when it saves.
 */
import pg from 'pg';
import { config } from './config';
import type { Transaction } from './db';
import { log } from './log';

const CHANNEL = 'oculon_editions';
const AGAIN_MS = 2_000;

type Listener = (headSeq: number) => void;

const listeners = new Map<string, Set<Listener>>();
/** Ends of streams that are open: they would hold the server when it stops. */
const endings = new Set<() => void>();
let client: pg.Client | null = null;
let connecting = false;
let closed = false;

/** Heard when the transaction has been committed, and not if it is undone. */
export async function announce(tx: Transaction, editionId: string, headSeq: number): Promise<void> {
  await tx.query('SELECT pg_notify($1, $2)', [CHANNEL, `${editionId} ${headSeq}`]);
}

/** @returns what ends it */
export function listenTo(editionId: string, listener: Listener): () => void {
  const own = listeners.get(editionId) ?? new Set();
  own.add(listener);
  listeners.set(editionId, own);
  void connect();
  return () => {
    own.delete(listener);
    if (own.size === 0) listeners.delete(editionId);
  };
}

/** @param end called when the server stops */
export function onStop(end: () => void): () => void {
  endings.add(end);
  return () => endings.delete(end);
}

export async function closeLive(): Promise<void> {
  closed = true;
  endings.forEach((end) => end());
  await client?.end().catch(() => undefined);
  client = null;
}

/** One connection of its own: a listening one must not go back to a pool. */
async function connect(): Promise<void> {
  if (client || connecting || closed) return;
  connecting = true;
  const own = new pg.Client({ connectionString: config().databaseUrl });
  const lost = (error?: Error) => {
    if (client === own) client = null;
    if (error) log.warn({ err: error }, 'changes are not heard');
    if (!closed) setTimeout(() => void connect(), AGAIN_MS).unref();
  };
  own.on('error', lost);
  own.on('notification', ({ payload }) => {
    const [editionId, headSeq] = (payload ?? '').split(' ');
    listeners.get(editionId ?? '')?.forEach((tell) => tell(Number(headSeq)));
  });
  try {
    await own.connect();
    await own.query(`LISTEN ${CHANNEL}`);
    client = own;
  } catch (error) {
    lost(error as Error);
  } finally {
    connecting = false;
  }
}
