import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { inputOf, READERS } from '../fuzz/readers';

const INPUTS = 2_000;
const DEADLINE_MS = 2_000;
const FAILURES = 'tests/fuzz/failures';

/** Reads inputs one after another. @returns what threw or took too long, by index */
async function failuresOf(
  read: (bytes: Uint8Array) => unknown,
  inputs: Iterable<readonly [string | number, Uint8Array]>,
): Promise<string[]> {
  const failed: string[] = [];
  for (const [name, input] of inputs) {
    const started = performance.now();
    try {
      await read(input);
    } catch (error) {
      failed.push(`${name}: ${error instanceof Error ? error.message : String(error)}`);
    }
    const took = performance.now() - started;
    if (took > DEADLINE_MS) failed.push(`${name}: ${took.toFixed(0)} ms`);
  }
  return failed;
}

function* inputs(seeds: readonly Uint8Array[], seed: number): Generator<[number, Uint8Array]> {
  for (let index = 0; index < INPUTS; index++) yield [index, inputOf(seeds, seed, index)];
}

// By hand a hundred thousand inputs a reader, in threads with a deadline and a memory limit: npm run fuzz.
test.each(READERS.map(({ name, seeds, read }) => [name, seeds, read] as const))(
  'two thousand damaged inputs of %s: each is a value or a problem, within two seconds',
  async (_, seeds, read) => {
    const good = await seeds();
    expect(
      await failuresOf(
        read,
        good.map((seed, index) => [`seed ${index}`, seed] as const),
      ),
    ).toEqual([]);
    expect(await failuresOf(read, inputs(good, 3))).toEqual([]);
  },
  120_000,
);

test('what once failed is read', async () => {
  const files = existsSync(FAILURES) ? readdirSync(FAILURES).filter((name) => name.endsWith('.bin')) : [];
  for (const file of files) {
    const reader = READERS.find(({ name }) => file.startsWith(name.replaceAll(' ', '-')));
    const input = new Uint8Array(readFileSync(path.join(FAILURES, file)));
    expect([file, reader && (await failuresOf(reader.read, [[file, input]]))]).toEqual([file, []]);
  }
});

test('the damage reaches what a reader does not expect, and is the same for the same seed', async () => {
  const seed = new TextEncoder().encode('| Dm7 | G7 | Cmaj7 | % |');
  const fragile = (bytes: Uint8Array) => {
    if (!new TextDecoder('utf-8', { fatal: true }).decode(bytes).startsWith('|')) throw new Error('no bar');
  };
  const failed = await failuresOf(fragile, inputs([seed], 1));
  expect(failed.length).toBeGreaterThan(100);
  expect(failed.length).toBeLessThan(INPUTS);
  expect(await failuresOf(fragile, inputs([seed], 1))).toEqual(failed);
});
