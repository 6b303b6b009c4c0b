// npm run fuzz [-- READER] [--inputs 100000] [--seed 1]: damaged inputs for every reader, each run under a
// deadline and a memory limit in a thread of its own. What fails is kept in tests/fuzz/failures.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { inputOf, READERS, type FuzzedReader } from '../tests/fuzz/readers';

const DEADLINE_MS = 2_000;
const MEMORY_MB = 512;
const FAILURES = 'tests/fuzz/failures';

type Job = { readonly name: string; readonly seed: number; readonly from: number; readonly inputs: number };
type Shared = { readonly at: Int32Array };

const readerNamed = (name: string): FuzzedReader => {
  const found = READERS.find((reader) => reader.name === name);
  if (!found)
    throw new Error(`There is no reader “${name}”. Readers: ${READERS.map((one) => one.name).join(', ')}.`);
  return found;
};

/** In the thread: input after input; the index that is read stands in shared memory for the one who watches. */
async function readAll({ name, seed, from, inputs }: Job, at: Int32Array): Promise<void> {
  const { seeds, read } = readerNamed(name);
  const good = await seeds();
  for (let index = from; index < inputs; index++) {
    Atomics.store(at, 0, index);
    await read(inputOf(good, seed, index));
  }
  Atomics.store(at, 0, inputs);
}

/** Reads in a thread from an index on. @returns why it stopped and where; null where it came to the end */
function watched(job: Job): Promise<{ readonly at: number; readonly why: string } | null> {
  const at = new Int32Array(new SharedArrayBuffer(4));
  at[0] = job.from;
  const worker = new Worker(fileURLToPath(import.meta.url), {
    workerData: { job, at } satisfies Shared & { job: Job },
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
  });
  return new Promise((resolve) => {
    let [last, since] = [-1, Date.now()];
    const end = (why: string | null) => {
      clearInterval(watch);
      void worker.terminate();
      resolve(why === null ? null : { at: Atomics.load(at, 0), why });
    };
    const watch = setInterval(() => {
      const now = Atomics.load(at, 0);
      if (now !== last) [last, since] = [now, Date.now()];
      else if (Date.now() - since > DEADLINE_MS + 1_000) end(`longer than ${DEADLINE_MS / 1000} s`);
    }, 100);
    worker.once('message', (why: string | null) => end(why));
    worker.once('error', (error) => end(error.message));
  });
}

async function fuzz({ name, seeds }: FuzzedReader, inputs: number, seed: number): Promise<number> {
  let [from, failed] = [0, 0];
  const started = Date.now();
  while (from < inputs) {
    const stopped = await watched({ name, seed, from, inputs });
    if (!stopped) break;
    failed++;
    const file = path.join(FAILURES, `${name.replaceAll(' ', '-')}-${seed}-${stopped.at}.bin`);
    mkdirSync(FAILURES, { recursive: true });
    writeFileSync(file, inputOf(await seeds(), seed, stopped.at));
    console.log(`${name}: input ${stopped.at}: ${stopped.why}\n  kept in ${file}`);
    from = stopped.at + 1;
  }
  const seconds = ((Date.now() - started) / 1000).toFixed(0);
  console.log(`${name}: ${inputs} inputs in ${seconds} s, ${failed} failed`);
  return failed;
}

if (isMainThread) {
  const { values, positionals } = parseArgs({
    options: { inputs: { type: 'string', default: '100000' }, seed: { type: 'string', default: '1' } },
    allowPositionals: true,
  });
  const readers = positionals.length > 0 ? [readerNamed(positionals.join(' '))] : READERS;
  let failed = 0;
  for (const reader of readers) failed += await fuzz(reader, Number(values.inputs), Number(values.seed));
  process.exitCode = failed > 0 ? 1 : 0;
} else {
  const { job, at } = workerData as Shared & { job: Job };
  const why = await readAll(job, at).then(
    () => null,
    (error: unknown) => (error instanceof Error ? (error.stack ?? error.message) : String(error)),
  );
  parentPort?.postMessage(why);
}
