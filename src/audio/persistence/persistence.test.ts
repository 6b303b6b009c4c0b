import { beforeEach, expect, test } from '@jest/globals';
import { checksumOf } from '@/server/checksum';
import { fromPcm24, sha256, toPcm16, toPcm24 } from '../pcm';
import { catchUp } from './catchUp';
import { CHUNK_SECONDS, TakeKeeper } from './takeKeeper';
import type { Ending, LocalChunk, LocalTake, TakeStore } from './localTakes';
import { Refused, type NewTake, type TakeServer } from './serverTakes';

const RATE = 1_000;
const CHUNK = RATE * CHUNK_SECONDS;
const TAKE: NewTake = {
  chartId: 'c',
  chartText: '| C7 |',
  tempo: 100,
  choruses: 1,
  plan: { id: 'outline' },
  rate: RATE,
  bits: 24,
  source: 'microphone',
};
const LOCAL: LocalTake = { id: 't', take: TAKE, title: 'T', beganAt: 0, offsetSec: 0, ending: null };
const ENDING = { offsetSec: 0.5, transcription: { notes: [] } as unknown as Ending['transcription'] };

/** The browser's storage as a map; full when told to be. */
class Shelf implements TakeStore {
  takes = new Map<string, LocalTake>();
  chunks = new Map<string, LocalChunk>();
  full = false;
  private check(): void {
    if (this.full) throw new DOMException('full', 'QuotaExceededError');
  }
  async begin(take: LocalTake) {
    this.check();
    this.takes.set(take.id, take);
  }
  async amend(id: string, change: object) {
    this.check();
    const before = this.takes.get(id);
    if (before) this.takes.set(id, { ...before, ...change });
  }
  async put(id: string, sequence: number, chunk: LocalChunk) {
    this.check();
    this.chunks.set(`${id} ${sequence}`, chunk);
  }
  async chunk(id: string, sequence: number) {
    return this.chunks.get(`${id} ${sequence}`);
  }
  async count(id: string) {
    let count = 0;
    while (this.chunks.has(`${id} ${count}`)) count++;
    return count;
  }
  async list() {
    return [...this.takes.values()];
  }
  async remove(id: string) {
    this.takes.delete(id);
    for (const key of [...this.chunks.keys()]) if (key.startsWith(`${id} `)) this.chunks.delete(key);
  }
}

/** The server as lists; away when told to be, and strict about order as the real one is. */
class Server implements TakeServer {
  begun = new Map<string, NewTake>();
  chunks = new Map<string, string[]>();
  finished = new Map<string, Ending>();
  trashed = new Map<string, number>();
  inTrash = new Map<string, NewTake>();
  offsets: number[] = [];
  away = false;
  asked = 0;
  private answer(): void {
    this.asked++;
    if (this.away) throw new TypeError('no answer');
  }
  async begin(take: NewTake & { id: string }) {
    this.answer();
    if (!this.begun.has(take.id)) {
      this.begun.set(take.id, take);
      this.chunks.set(take.id, []);
    }
  }
  async amend(_: string, { offsetSec }: { offsetSec: number }) {
    this.answer();
    this.offsets.push(offsetSec);
  }
  async put(id: string, sequence: number, { pcm, checksum }: LocalChunk) {
    this.answer();
    const have = this.chunks.get(id)!;
    if (sequence !== have.length) throw new Refused({ code: 'chunk.order', message: 'order' });
    expect(checksumOf(pcm)).toBe(checksum);
    have.push(checksum);
  }
  async finish(id: string, ending: Ending) {
    this.answer();
    this.finished.set(id, ending);
  }
  async discard(id: string, hasMore = false) {
    this.answer();
    const take = this.begun.get(id) ?? this.inTrash.get(id);
    const isWorthIt = take !== undefined && (hasMore || this.chunks.get(id)!.length > 0);
    if (isWorthIt) this.inTrash.set(id, take);
    else this.inTrash.delete(id);
    this.begun.delete(id);
    if (isWorthIt) this.trashed.set(id, this.chunks.get(id)!.length);
    return isWorthIt;
  }
  async restore(id: string) {
    this.answer();
    const take = this.inTrash.get(id);
    if (!take) throw new Refused({ code: 'not-found', message: 'not found' });
    this.inTrash.delete(id);
    this.begun.set(id, take);
  }
  async next(id: string) {
    this.answer();
    return this.finished.has(id) || !this.begun.has(id) ? null : this.chunks.get(id)!.length;
  }
}

let store: Shelf;
let server: Server;
beforeEach(() => {
  store = new Shelf();
  server = new Server();
});
const quick = () => new Promise<void>((done) => setTimeout(done, 1));
const keeper = (own: TakeStore | null = store) =>
  new TakeKeeper(LOCAL, own, server, (ms) =>
    ms >= 1_000 ? new Promise((done) => setTimeout(done, 60)) : quick(),
  );
const play = (into: TakeKeeper, chunks: number) => {
  for (let n = 0; n < chunks * 5; n++) into.add(new Float32Array(CHUNK / 5).fill((n % 7) / 10));
};
const until = async (done: () => boolean) => {
  for (let n = 0; n < 400 && !done(); n++) await quick();
  expect(done()).toBe(true);
};

test('every half second is in the browser’s storage and on the server while the take goes on; the end brings the rest and clears up', async () => {
  const kept = keeper();
  kept.amend(0.25);
  play(kept, 3);
  kept.add(new Float32Array(10));
  await until(() => server.chunks.get('t')?.length === 3 && store.chunks.size === 3);
  expect([server.offsets, kept.safety]).toEqual([
    [0.25],
    { waitingSeconds: 0, serverAnswers: true, storageTrouble: null, refused: null },
  ]);
  expect(await kept.finish(ENDING, 2_000)).toBe(true);
  expect([
    server.chunks.get('t')!.length,
    server.finished.get('t')?.frames,
    store.takes.size,
    store.chunks.size,
  ]).toEqual([4, 3 * CHUNK + 10, 0, 0]);
});

test('the server away from the beginning: recording goes on here, says so, and the next start brings everything', async () => {
  server.away = true;
  const kept = keeper();
  play(kept, 8);
  await until(() => store.chunks.size === 8);
  expect(kept.safety).toMatchObject({ waitingSeconds: 4, serverAnswers: false });
  expect(await kept.finish(ENDING, 1_000)).toBe(false);
  kept.abandon();
  // the page is gone: what was under way has failed before the server is back
  await new Promise((done) => setTimeout(done, 150));
  expect(store.takes.get('t')?.ending?.frames).toBe(8 * CHUNK);
  server.away = false;
  expect(await catchUp(store, server)).toEqual([]);
  expect([
    server.begun.get('t')?.chartText,
    server.chunks.get('t')!.length,
    server.finished.get('t')?.frames,
    store.takes.size,
  ]).toEqual(['| C7 |', 8, 8 * CHUNK, 0]);
});

test('the server goes and comes back in the middle: every chunk arrives once and in order', async () => {
  const kept = keeper();
  for (let round = 0; round < 6; round++) {
    server.away = round % 2 === 1;
    play(kept, 2);
    await quick();
  }
  server.away = false;
  expect(await kept.finish(ENDING, 2_000)).toBe(true);
  expect(server.chunks.get('t')).toHaveLength(12);
});

test('storage full or forbidden: the server has it all; both gone, it waits in memory until the server is back', async () => {
  for (const own of [store, null]) {
    server = new Server();
    store.full = true;
    const kept = keeper(own);
    play(kept, 2);
    await until(() => server.chunks.get('t')?.length === 2);
    expect(kept.safety.storageTrouble).toBe(own ? 'full' : 'closed');
    server.away = true;
    play(kept, 3);
    await quick();
    server.away = false;
    expect(await kept.finish(ENDING, 2_000)).toBe(true);
    expect(server.chunks.get('t')).toHaveLength(5);
  }
});

test('storage that stops answering is not waited for: the server has all of it, and it is said', async () => {
  const kept = new TakeKeeper(LOCAL, store, server, quick, 20);
  play(kept, 2);
  await until(() => server.chunks.get('t')?.length === 2);
  store.put = () => new Promise(() => {});
  play(kept, 3);
  expect(await kept.finish(ENDING, 2_000)).toBe(true);
  expect(server.chunks.get('t')).toHaveLength(5);
  expect(kept.safety.storageTrouble).toBe('closed');
});

test('cut off without an end: what was kept is brought to the server, with its offset, and waits there for the player', async () => {
  server.away = true;
  const kept = keeper();
  kept.amend(0.75);
  play(kept, 4);
  await until(() => store.chunks.size === 4 && store.takes.get('t')?.offsetSec === 0.75);
  kept.abandon();
  server.away = false;
  expect(await catchUp(store, server)).toEqual(['t']);
  expect([server.chunks.get('t')!.length, server.offsets]).toEqual([4, [0.75]]);
  // asked again, nothing is sent twice; a take that runs is left alone
  expect(await catchUp(store, server)).toEqual(['t']);
  expect(await catchUp(store, server, () => true)).toEqual([]);
  expect(server.chunks.get('t')).toHaveLength(4);
});

test('thrown away it is in the trash, whole, and gone here; cut off before half a second, there is nothing to offer', async () => {
  const kept = keeper();
  play(kept, 2);
  kept.add(new Float32Array(10));
  expect(await kept.discard()).toBe(true);
  expect([store.takes.size, store.chunks.size, server.begun.size, server.trashed.get('t')]).toEqual([
    0, 0, 0, 3,
  ]);
  await store.begin(LOCAL);
  expect([await catchUp(store, server), store.takes.size]).toEqual([[], 0]);
});

test('thrown away just as it ends, it does not come back at the next visit', async () => {
  const kept = keeper();
  play(kept, 3);
  const ended = kept.finish(ENDING, 1_000).catch(() => false);
  await kept.discard();
  await ended;
  await new Promise((done) => setTimeout(done, 20));
  expect([await catchUp(store, server), server.begun.size, store.takes.size]).toEqual([[], 0, 0]);
});

test('thrown away while the server is away, the next visit brings it into the trash', async () => {
  server.away = true;
  const kept = keeper();
  play(kept, 2);
  expect(await kept.discard()).toBe(false);
  server.away = false;
  expect(await catchUp(store, server)).toEqual([]);
  expect([store.takes.size, server.trashed.get('t')]).toEqual([0, 2]);
});

test('thrown away while the server has only its beginning, none of it is lost', async () => {
  const kept = keeper();
  play(kept, 1);
  await until(() => server.chunks.get('t')?.length === 1);
  const put = server.put;
  server.put = () => new Promise(() => undefined); // it answers no more
  play(kept, 6);
  expect(await kept.discard()).toBe(true);
  expect([server.trashed.get('t'), store.takes.get('t')?.inTrash, store.chunks.size]).toEqual([1, true, 7]);
  server.put = put;
  expect([await catchUp(store, server), server.trashed.get('t'), store.takes.size]).toEqual([[], 7, 0]);
});

test('brought back before its rest has arrived, it gets the rest and is offered', async () => {
  const kept = keeper();
  play(kept, 1);
  await until(() => server.chunks.get('t')?.length === 1);
  const put = server.put;
  server.put = () => new Promise(() => undefined);
  play(kept, 2);
  await kept.discard();
  server.put = put;
  await server.restore('t');
  await catchUp(store, server);
  expect([server.chunks.get('t')?.length, server.begun.size, server.inTrash.size]).toEqual([3, 1, 0]);
});

test('a chunk cut while the store says there is none is sent all the same when the take is thrown away', async () => {
  const chunk = store.chunk.bind(store);
  let isSlow = true;
  store.chunk = async (id, sequence) => {
    const found = await chunk(id, sequence);
    if (!found && isSlow) await new Promise((done) => setTimeout(done, 20));
    return found;
  };
  const kept = keeper();
  await until(() => server.begun.size === 1);
  play(kept, 3);
  expect([await kept.discard(), server.trashed.get('t')]).toEqual([true, 3]);
  isSlow = false;
});

test('what the server will not have is said at the end, and kept here', async () => {
  server.begin = async () => {
    throw new Refused({ code: 'chart', message: 'This chart cannot be played.' });
  };
  const kept = keeper();
  play(kept, 1);
  await until(() => kept.safety.refused === 'This chart cannot be played.');
  await expect(kept.finish(ENDING, 1_000)).rejects.toThrow('This chart cannot be played.');
  expect(await catchUp(store, server)).toEqual([]);
  expect(store.takes.size).toBe(1);
});

test('PCM is bit for bit what a 16- or 24-bit input gave; both sides agree on its checksum', async () => {
  const deep = [-8_388_608, -1, 0, 1, 123_456, 8_388_607].map((value) => value / 8_388_608);
  expect([...fromPcm24(toPcm24(Float32Array.from(deep)))]).toEqual(deep);
  const values = [-32_768, -1, 0, 1, 12_345, 32_767];
  const pcm = toPcm16(Float32Array.from(values, (value) => value / 32_768));
  expect([...new Int16Array(pcm.buffer)]).toEqual(values);
  expect([...fromPcm24(toPcm24(Float32Array.of(1.5, -1.5)))]).toEqual([8_388_607 / 8_388_608, -1]);
  expect(await sha256(pcm)).toBe(checksumOf(pcm));
});
