import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import { readBytes, writeBody } from './body';
import { Failure } from './failure';

const folder = mkdtempSync(path.join(tmpdir(), 'wander-body-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A request whose body comes in these pieces and then, where it `stalls`, no more. */
function sent(pieces: readonly number[], { stalls = false, told }: { stalls?: boolean; told?: number } = {}) {
  let [next, isCancelled] = [0, false];
  const body = new ReadableStream<Uint8Array>({
    pull(controller) {
      const size = pieces[next++];
      if (size !== undefined) controller.enqueue(new Uint8Array(size).fill(next));
      else if (!stalls) controller.close();
      else return new Promise<void>(() => undefined);
    },
    cancel() {
      isCancelled = true;
    },
  });
  const request = new Request('http://127.0.0.1/', {
    method: 'POST',
    body,
    duplex: 'half',
    ...(told === undefined ? {} : { headers: { 'content-length': String(told) } }),
  } as RequestInit);
  return { request, isCancelled: () => isCancelled, given: () => next };
}
const code = (work: Promise<unknown>) =>
  work.then(
    () => 'read',
    (error: unknown) => (error instanceof Failure ? [error.status, error.problem.code] : String(error)),
  );

test('a body in pieces is read whole, into memory and into a file', async () => {
  expect([...(await readBytes(sent([2, 1]).request, 3))]).toEqual([1, 1, 2]);
  const file = path.join(folder, 'body');
  await writeBody(sent([2, 1]).request, file, 3);
  expect([...readFileSync(file)]).toEqual([1, 1, 2]);
  expect(await readBytes(new Request('http://127.0.0.1/'), 3)).toHaveLength(0);
});

test('one that says it is too long is refused before it is read; one that does not, as soon as it is', async () => {
  const honest = sent([1, 1], { told: 9 });
  expect(await code(readBytes(honest.request, 3))).toEqual([413, 'body.too-large']);
  const endless = sent(Array<number>(1000).fill(2));
  expect(await code(writeBody(endless.request, path.join(folder, 'long'), 5))).toEqual([
    413,
    'body.too-large',
  ]);
  expect([endless.given() < 10, endless.isCancelled()]).toEqual([true, true]);
});

test('one that stops coming is given up', async () => {
  const slow = sent([2], { stalls: true });
  expect(await code(readBytes(slow.request, 9, 50))).toEqual([408, 'body.slow']);
  expect(slow.isCancelled()).toBe(true);
});
