import { expect, test } from '@jest/globals';
import { unzipSync, zipSync } from 'fflate';
import { analyse } from '@/core/analyse';
import { readChart, timelineOf } from '@/core/chart';
import { NOTES_SCHEMA, packTake, readLineMusicXml, readMidi, TAKE_SCHEMA, writeWav } from '@/core/formats';
import { STANDARD_INSTRUMENT } from '@/core/neck';
import { elementAt, unwrap } from '@/core/shared';
import { checksumOf } from '../checksum';
import { Failure } from '../failure';
import { decodeFlac } from '../flac';
import type { WrittenTake } from './fileWork';
import { inFilesThread } from './filesThread';

const CHART = `title: Long\nkey: C\n${'| Dm7 | G7 | Cmaj7 | A7 '.repeat(16)}|\n`;
const TEMPO = 120;

/** As many notes as a take of so many choruses holds, with strings and frets to be found. */
function takeOf(choruses: number, notesInBar: number): WrittenTake {
  const chart = unwrap(readChart(CHART));
  const beats = timelineOf(chart, TEMPO).formBeats * choruses;
  const notes = Array.from({ length: (beats / 4) * notesInBar }, (_, index) => ({
    onsetBeat: (4 * index) / notesInBar,
    durationBeats: 4 / notesInBar - 0.1,
    midi: 55 + ((index * 5) % 17),
  }));
  return {
    title: 'Long, take 1',
    chartText: CHART,
    tempo: TEMPO,
    pace: null,
    choruses,
    offsetSec: 0,
    heard: notes.map(({ onsetBeat, durationBeats, midi }) => ({
      onsetSec: onsetBeat / 2,
      offsetSec: (onsetBeat + durationBeats) / 2,
      midi,
      confidence: 1,
    })),
    edits: [],
    report: analyse({ chart, tempo: TEMPO, choruses, plan: { id: 'scale-per-chord' }, notes }),
    instrument: STANDARD_INSTRUMENT,
  };
}

/** The longest the server's own thread was kept from anything else, in ms. */
async function longestPause<T>(work: () => Promise<T>): Promise<[T, number]> {
  let [last, longest] = [performance.now(), 0];
  const look = () => {
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
  };
  const clock = setInterval(look, 5);
  const done = await work();
  look();
  clearInterval(clock);
  return [done, longest];
}

const problemOf = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (error: unknown) => (error instanceof Failure ? error.problem.code : String(error)),
  );

test('a long score is written beside the server, which goes on answering, and is the whole take', async () => {
  const take = takeOf(40, 2);
  const from = performance.now();
  const [score, pause] = await longestPause(() => inFilesThread({ kind: 'write', format: 'musicxml', take }));
  const spent = performance.now() - from;
  expect(unwrap(readLineMusicXml(score as string))).toHaveLength(take.heard.length);
  // it took many times as long as anything else had to wait
  expect(pause).toBeLessThan(spent / 4);
  const midi = await inFilesThread({ kind: 'write', format: 'midi', take });
  expect(unwrap(readMidi(midi as Uint8Array))).toHaveLength(take.heard.length);
}, 60_000);

test('what takes too long, and what nobody waits for, is given up; the next is done', async () => {
  const take = takeOf(40, 8);
  const write = (signal?: AbortSignal, deadlineMs?: number) =>
    inFilesThread(
      { kind: 'write', format: 'musicxml', take },
      { ...(signal && { signal }), ...(deadlineMs && { deadlineMs }) },
    );
  expect(await problemOf(write(undefined, 30))).toBe('file.slow');
  const reader = new AbortController();
  const asked = problemOf(write(reader.signal));
  setTimeout(() => reader.abort(), 50);
  expect(await asked).toBe('file.failed');
  const short = await inFilesThread({ kind: 'write', format: 'changes-csv', take });
  expect(short).toContain('chorus');
}, 60_000);

test('an archive of long silence, small as a file, is read beside the server and refused or taken whole', async () => {
  const silence = writeWav([new Float32Array(48_000 * 300)], 48_000);
  const stored = packTake(
    {
      schema: TAKE_SCHEMA,
      title: 'Silence',
      chartText: CHART,
      tempo: TEMPO,
      choruses: 1,
      plan: { id: 'outline' },
      pace: null,
      offsetSec: 0,
      source: 'file',
      device: null,
      latencySec: null,
      createdAt: 1,
      heard: { schema: NOTES_SCHEMA, notes: [] },
      edits: [],
      words: { stars: 0, tags: [], remarks: [] },
    },
    silence,
  );
  const bytes = zipSync(unzipSync(stored), { level: 9 });
  expect(bytes.length).toBeLessThan(silence.length / 200);
  const [{ sound }, pause] = await longestPause(() => inFilesThread({ kind: 'unpack', bytes }));
  expect(sound?.samples.length).toBe(48_000 * 300);
  expect(pause).toBeLessThan(1_000);
  // coded beside the server too, saying how far it has come, and the very sound
  const shares: number[] = [];
  const [chunks, wait] = await longestPause(() =>
    inFilesThread({ kind: 'code', sound: sound! }, { onShare: (share) => shares.push(share) }),
  );
  expect(wait).toBeLessThan(1_000);
  expect([shares.length, shares.at(-1)]).toEqual([75, 1]);
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  const pcm = await decodeFlac(elementAt(chunks, 74).flac, 24);
  expect([pcm.length / 3, elementAt(chunks, 74).firstFrame]).toEqual([48_000 * 4, 48_000 * 296]);
  expect(checksumOf(pcm)).toBe(elementAt(chunks, 74).checksum);
  expect(await problemOf(inFilesThread({ kind: 'line', bytes: new Uint8Array(40) }))).toMatch(/^musicxml/);
}, 60_000);
