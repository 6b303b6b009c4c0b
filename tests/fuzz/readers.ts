import { zipSync } from 'fflate';
import { analyse } from '@/core/analyse';
import { harmonyOf, LIBRARY, readChart, timelineOf, writeChart } from '@/core/chart';
import { readOwnWords } from '@/core/drills';
import {
  readChartMidi,
  readLineMusicXml,
  readMidi,
  readMusicXml,
  readNotes,
  readWav,
  toBeats,
  unpackTake,
  writeChartMidi,
  writeLineMidi,
  writeLineMusicXml,
  writeMusicXml,
  writeWav,
} from '@/core/formats';
import { readChord, readScale, toneList } from '@/core/music';
import { readTuning } from '@/core/neck';
import { PHRASE_EXAMPLE, readPhrase } from '@/core/phrases';
import { readPlanPart } from '@/core/plan';
import { elementAt, seededRandom, unwrap, type Outcome } from '@/core/shared';
import { decodeFlac, encodeFlac } from '@/server/flac';
import { mutated } from './mutate';

/** A reader with good inputs to begin from. It answers for every input: a value or a problem, never an exception. */
export type FuzzedReader = {
  readonly name: string;
  readonly seeds: () => Promise<Uint8Array[]> | Uint8Array[];
  readonly read: (bytes: Uint8Array) => unknown;
};

const encoder = new TextEncoder();
const decoder = new TextDecoder();
const texts = (words: readonly string[]) => (): Uint8Array[] => words.map((word) => encoder.encode(word));
const text =
  (read: (words: string) => unknown) =>
  (bytes: Uint8Array): unknown =>
    read(decoder.decode(bytes));

const chart = unwrap(readChart(elementAt(LIBRARY, 0).text));
const timeline = timelineOf(chart, 96);
const NOTES = Array.from({ length: 24 }, (_, index) => ({
  onsetBeat: index / 2,
  durationBeats: 0.5,
  midi: 55 + ((index * 5) % 19),
}));
const sheet = { chart, timeline, notes: NOTES, tempo: 96, choruses: 1, title: 'T' };
const pcm = Float32Array.from({ length: 2_000 }, (_, at) => Math.sin(at / 9) / 2);
const notesJson = JSON.stringify({
  schema: 'idle-wander/notes@1',
  notes: NOTES.map(({ onsetBeat, midi }) => ({ onsetSec: onsetBeat, offsetSec: onsetBeat + 0.4, midi })),
});

/** What was read is used: a chart is laid out and written again, notes are judged. */
function useChart({ ok, ...outcome }: ReturnType<typeof readChart>): void {
  if (!ok || !('value' in outcome)) return;
  const read = outcome.value;
  harmonyOf(read, timelineOf(read, 120));
  if (!readChart(writeChart(read)).ok) throw new Error('what was written cannot be read again');
}

function useNotes(outcome: Outcome<readonly (typeof NOTES)[number][]>): void {
  if (!outcome.ok || outcome.value.length > 2_000) return;
  void Object.values(
    analyse({ chart, tempo: 96, notes: outcome.value, plan: { id: 'outline' }, choruses: 2 }),
  );
}

export const READERS: readonly FuzzedReader[] = [
  {
    name: 'chart',
    seeds: texts(LIBRARY.map((form) => form.text)),
    read: text((words) => useChart(readChart(words))),
  },
  {
    name: 'chord',
    seeds: texts(['Cmaj7#11/E', 'Ebm7b5/Bbb', 'F#7alt', 'Gsus4(9)', 'Ab13(#11)', 'N.C.', 'Bdim7', 'C6/9']),
    read: text((words) => {
      const read = readChord(words);
      if (read.ok) toneList(read.value.tones);
    }),
  },
  {
    name: 'scale',
    seeds: texts(['F melodic minor', 'Bb blues scale', 'fifth mode of C harmonic minor', 'A 1 b3 4 5 6']),
    read: text(readScale),
  },
  { name: 'tuning', seeds: texts(['E2 A2 D3 G3 B3 E4', 'D2 A2 D3 F#3 A3 D4']), read: text(readTuning) },
  {
    name: 'plan part',
    seeds: texts(['every I: major-minor-blend', 'bars 5-8, chorus 2: home-scale; home=A minor pentatonic']),
    read: text(readPlanPart),
  },
  {
    name: 'drill in words',
    seeds: texts([
      'enclose the third from a half step below, phrases start on two',
      'thirds only over bars 1-4 at 80',
    ]),
    read: text((words) => readOwnWords(words, 12)),
  },
  {
    name: 'phrase',
    seeds: texts([PHRASE_EXAMPLE, '.:1 b3 4 5:1/2 1:3']),
    read: text((line) => readPhrase({ chords: 'Dm7 | G7 | Cmaj7', line, tempo: 96 })),
  },
  {
    name: 'notes',
    seeds: texts([notesJson]),
    read: text((words) => {
      const read = readNotes(words);
      if (read.ok) useNotes({ ok: true, value: [...toBeats(read.value, 96, 0)] } as Outcome<typeof NOTES>);
    }),
  },
  { name: 'chart MusicXML', seeds: () => texts([writeMusicXml(chart)])(), read: text(readMusicXml) },
  {
    name: 'line MusicXML',
    seeds: () => texts([writeLineMusicXml({ ...sheet, swing: null })])(),
    read: text((xml) => useNotes(readLineMusicXml(xml) as Outcome<typeof NOTES>)),
  },
  {
    name: 'line MIDI',
    seeds: () => [writeLineMidi({ ...sheet, swing: null })],
    read: (bytes) => useNotes(readMidi(bytes) as Outcome<typeof NOTES>),
  },
  { name: 'chart MIDI', seeds: () => [writeChartMidi(chart)], read: readChartMidi },
  { name: 'WAV', seeds: () => [writeWav([pcm], 22_050), writeWav([pcm, pcm], 44_100)], read: readWav },
  {
    name: 'FLAC',
    seeds: async () => [
      await encodeFlac(
        Uint8Array.from(pcm, (value) => value * 99),
        8_000,
        16,
      ),
    ],
    // a damaged stream is refused by an exception that says so
    read: (bytes) => decodeFlac(bytes, 16).catch(() => null),
  },
  {
    name: 'archive',
    seeds: () => [
      zipSync({ 'take.json': encoder.encode('{"schema":"idle-wander/take@1"}') }),
      zipSync({ 'take.json': encoder.encode('{}'), 'take.wav': writeWav([pcm], 8_000) }, { level: 0 }),
    ],
    read: unpackTake,
  },
];

/** The input of an index: the same for the same seed. */
export function inputOf(seeds: readonly Uint8Array[], seed: number, index: number): Uint8Array {
  const random = seededRandom(seed * 1_000_003 + index);
  return mutated(elementAt(seeds, index % seeds.length), random);
}
