/** Gestures that the server has not acknowledged yet, kept in the browser. */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { type Gesture, gestureSchema } from '$core/fingering/edition/operation';

interface Schema extends DBSchema {
  gestures: {
    key: number;
    value: { number?: number; editionId: string; gesture: Gesture };
    indexes: { edition: string };
  };
}

let database: Promise<IDBPDatabase<Schema>> | null = null;

const open = () =>
  (database ??= openDB<Schema>('oculon', 1, {
    upgrade(db) {
      const store = db.createObjectStore('gestures', { keyPath: 'number', autoIncrement: true });
      store.createIndex('edition', 'editionId');
    },
  }));

export async function keepUnsent(editionId: string, gesture: Gesture): Promise<void> {
  await (await open()).add('gestures', { editionId, gesture });
}

/** In the order in which they were made. What cannot be read any more is left where it is. */
export async function listUnsent(editionId: string): Promise<readonly Gesture[]> {
  const rows = await (await open()).getAllFromIndex('gestures', 'edition', editionId);
  return rows.flatMap((row) => {
    const parsed = gestureSchema.safeParse(row.gesture);
    return parsed.success ? [parsed.data] : [];
  });
}

/** Of all editions. */
export async function countUnsent(): Promise<number> {
  return (await open()).count('gestures');
}

export async function forgetUnsent(editionId: string, ids: ReadonlySet<string>): Promise<void> {
  const tx = (await open()).transaction('gestures', 'readwrite');
  for (const row of await tx.store.index('edition').getAll(editionId)) {
    if (ids.has(row.gesture.id) && row.number !== undefined) await tx.store.delete(row.number);
  }
  await tx.done;
}
