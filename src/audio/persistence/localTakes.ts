import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Transcription } from '@/core/transcribe';
import type { NewTake } from './serverTakes';

/** The end of a take, as the server is told it. */
export type Ending = {
  readonly frames: number;
  readonly offsetSec: number;
  readonly transcription: Transcription;
};

/** A take in this browser's own storage, until the server has all of it. */
export type LocalTake = {
  readonly id: string;
  readonly take: NewTake;
  readonly title: string;
  readonly beganAt: number;
  readonly offsetSec: number;
  readonly ending: Ending | null;
  /** Thrown away by the player: it goes into the server's trash. */ readonly discarded?: boolean;
  /** The server has put it in its trash already; only the rest of the sound is missing there. */
  readonly inTrash?: boolean;
};
export type LocalChunk = { readonly pcm: Uint8Array<ArrayBuffer>; readonly checksum: string };

interface TakeStoreSchema extends DBSchema {
  takes: { key: string; value: LocalTake };
  chunks: { key: [string, number]; value: LocalChunk };
}

/**
 * Where a recording is kept first. Every write is done when its promise is: what was kept survives the tab and
 * the browser.
 */
export interface TakeStore {
  begin(take: LocalTake): Promise<void>;
  amend(
    id: string,
    change: Partial<Pick<LocalTake, 'offsetSec' | 'ending' | 'discarded' | 'inTrash'>>,
  ): Promise<void>;
  put(id: string, sequence: number, chunk: LocalChunk): Promise<void>;
  chunk(id: string, sequence: number): Promise<LocalChunk | undefined>;
  /** How many chunks there are from `from` on without a gap. */
  count(id: string): Promise<number>;
  list(): Promise<LocalTake[]>;
  remove(id: string): Promise<void>;
}

const NAME = 'idle-wander-takes';

/** The browser's IndexedDB. */
export class IndexedTakeStore implements TakeStore {
  private constructor(private readonly db: IDBPDatabase<TakeStoreSchema>) {}

  static async open(name = NAME): Promise<IndexedTakeStore> {
    const db = await openDB<TakeStoreSchema>(name, 1, {
      upgrade(made) {
        made.createObjectStore('takes', { keyPath: 'id' });
        made.createObjectStore('chunks');
      },
      // another tab wants a newer layout: this one lets go rather than stop it
      blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
    });
    return new IndexedTakeStore(db);
  }

  async begin(take: LocalTake): Promise<void> {
    await this.db.put('takes', take);
  }
  async amend(id: string, change: Partial<LocalTake>): Promise<void> {
    const tx = this.db.transaction('takes', 'readwrite');
    const before = await tx.store.get(id);
    if (before) await tx.store.put({ ...before, ...change });
    await tx.done;
  }
  async put(id: string, sequence: number, chunk: LocalChunk): Promise<void> {
    await this.db.put('chunks', chunk, [id, sequence]);
  }
  chunk(id: string, sequence: number): Promise<LocalChunk | undefined> {
    return this.db.get('chunks', [id, sequence]);
  }
  async count(id: string): Promise<number> {
    const keys = await this.db.getAllKeys('chunks', allOf(id));
    const gap = keys.findIndex(([, sequence], index) => sequence !== index);
    return gap < 0 ? keys.length : gap;
  }
  list(): Promise<LocalTake[]> {
    return this.db.getAll('takes');
  }
  async remove(id: string): Promise<void> {
    const tx = this.db.transaction(['takes', 'chunks'], 'readwrite');
    await Promise.all([
      tx.objectStore('takes').delete(id),
      tx.objectStore('chunks').delete(allOf(id)),
      tx.done,
    ]);
  }
}

const allOf = (id: string): IDBKeyRange => IDBKeyRange.bound([id, 0], [id, Number.MAX_SAFE_INTEGER]);
