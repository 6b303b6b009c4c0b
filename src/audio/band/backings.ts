import { openDB, type DBSchema } from 'idb';
import { elementAt } from '@/core/shared';

/** A backing track of the player's own: kept in this browser, played in the band's place. */
export type OwnBacking = {
  readonly id: string;
  readonly chartId: string;
  readonly name: string;
  readonly tempo: number;
  /** Where its bar 1 begins. */ readonly barOneSec: number;
  readonly bytes: ArrayBuffer;
};
export type BackingName = Omit<OwnBacking, 'bytes'>;

interface Shelf extends DBSchema {
  backings: { key: string; value: OwnBacking };
}
const store = () =>
  openDB<Shelf>('idle-wander-backings', 1, {
    upgrade: (made) => void made.createObjectStore('backings', { keyPath: 'id' }),
  });

export async function listBackings(): Promise<BackingName[]> {
  const db = await store();
  const all = await db.getAll('backings');
  db.close();
  return all.map(({ id, chartId, name, tempo, barOneSec }) => ({ id, chartId, name, tempo, barOneSec }));
}
export async function backing(id: string): Promise<OwnBacking | null> {
  const db = await store();
  const found = await db.get('backings', id);
  db.close();
  return found ?? null;
}
export async function keepBacking(one: OwnBacking): Promise<void> {
  const db = await store();
  await db.put('backings', one);
  db.close();
}
export async function removeBacking(id: string): Promise<void> {
  const db = await store();
  await db.delete('backings', id);
  db.close();
}

/**
 * Any sound file the browser's own decoder reads, as one mono signal at the context's rate.
 * @throws DOMException where it cannot be decoded
 */
export async function decoded(bytes: ArrayBuffer, context: BaseAudioContext): Promise<Float32Array> {
  const buffer = await context.decodeAudioData(bytes.slice(0));
  const out = buffer.getChannelData(0).slice();
  for (let channel = 1; channel < buffer.numberOfChannels; channel++) {
    const more = buffer.getChannelData(channel);
    for (let n = 0; n < out.length; n++) out[n]! += elementAt(more, n);
  }
  if (buffer.numberOfChannels > 1) for (let n = 0; n < out.length; n++) out[n]! /= buffer.numberOfChannels;
  return out;
}
