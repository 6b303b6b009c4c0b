import type { LocalTake, TakeStore } from './localTakes';
import { Refused, type TakeServer } from './serverTakes';

/**
 * Sends the server what it does not have of the takes in this browser's storage: takes begun while it was
 * away, chunks it missed, ends it did not
 * hear of. What it has wholly is removed here. Takes that still run are left alone.
 * @returns ids of takes that were cut off: they are whole on the server as far as they go, and wait for the
 *   player
 */
export async function catchUp(
  store: TakeStore,
  server: TakeServer,
  running: (id: string) => boolean = () => false,
): Promise<string[]> {
  const cut: string[] = [];
  for (const local of await store.list()) {
    if (running(local.id)) continue;
    try {
      // in the trash with its rest still here; where it is not there any more, the player brought it back
      const toTrash = local.discarded && (!local.inTrash || (await server.next(local.id)) === null);
      if (local.inTrash && toTrash) await server.restore(local.id);
      const whole = await sendRest(local, store, server);
      if (toTrash) await server.discard(local.id);
      if (whole || local.discarded) await store.remove(local.id);
      else cut.push(local.id);
    } catch (error) {
      if (local.discarded && error instanceof Refused) {
        await store.remove(local.id);
        continue;
      }
      // the server would not have it whatever comes: it stays here, and nothing is lost by asking again
      // another day
      if (!(error instanceof Refused)) throw error;
    }
  }
  return cut;
}

/** True where the server has the whole take. */
async function sendRest(
  { id, take, ending, offsetSec }: LocalTake,
  store: TakeStore,
  server: TakeServer,
): Promise<boolean> {
  const kept = await store.count(id);
  if (kept === 0 && !ending) return true; // cut off before half a second of it was there
  await server.begin({ ...take, id });
  const next = await server.next(id);
  if (next === null) return true;
  for (let sequence = next; sequence < kept; sequence++) {
    const chunk = await store.chunk(id, sequence);
    if (!chunk) return true; // whoever recorded it has brought it home meanwhile
    await server.put(id, sequence, chunk);
  }
  if (ending) await server.finish(id, ending);
  else await server.amend(id, { offsetSec });
  return ending !== null;
}
