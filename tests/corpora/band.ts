import { readFileSync } from 'node:fs';
import { arrange, Instruments, lineupOf, renderBand, type Mix } from '@/core/band';
import { readChart, type Chart } from '@/core/chart';
import { beatsToSeconds, unwrap } from '@/core/shared';
import type { MidiEvent } from 'midi-file';
import { render, writeTimed, type Timed } from './soundfontSet';

const CHART = 'key: G major\nfeel: swing\n| G7 | C7 | G7 | D7 C7 |\n';

/** The bank that ships, as the band worker gets it. */
export function bandInstruments(rate: number): Promise<Instruments> {
  const bank = readFileSync('public/band/instruments-1.sf2');
  return Instruments.load(
    bank.buffer.slice(bank.byteOffset, bank.byteOffset + bank.length) as ArrayBuffer,
    rate,
  );
}

const RATE = 44_100;
const INSTRUMENTS = await bandInstruments(RATE);

/** Our own band over a chart, as one signal at 44 100 Hz. */
export function bandOver(
  chart: Chart,
  {
    tempo,
    choruses,
    seed,
    seconds,
    mix = {},
  }: { tempo: number; choruses: number; seed: number; seconds: number; mix?: Mix },
): Float32Array {
  const events = arrange({ chart, tempo, choruses, seed });
  return renderBand(
    INSTRUMENTS,
    {
      events,
      lineup: lineupOf('swing', tempo),
      rate: RATE,
      leadSeconds: 0.1,
      secondsAt: (beat) => beatsToSeconds(beat, tempo),
    },
    seconds,
    mix,
  );
}

/** Our own band over four bars, round and round, at 44 100 Hz. */
export function ownBand(seconds: number, seed: number): Float32Array {
  const tempo = 100;
  const choruses = Math.ceil(seconds / (16 * 0.6)) + 1;
  return bandOver(unwrap(readChart(CHART)), { tempo, choruses, seed, seconds }).slice(
    0,
    Math.ceil(seconds * RATE),
  );
}

/** A band of recorded instruments: drums, fingered bass, electric piano. */
export function soundfontBand(seconds: number, seed: number): Float32Array {
  const timed: Timed[] = [];
  const put = (channel: number, note: number, at: number, length: number, velocity: number) => {
    timed.push({
      tick: Math.round(at * 1000),
      event: { deltaTime: 0, type: 'noteOn', channel, noteNumber: note, velocity } as MidiEvent,
    });
    timed.push({
      tick: Math.round((at + length) * 1000),
      event: { deltaTime: 0, type: 'noteOff', channel, noteNumber: note, velocity: 0 } as MidiEvent,
    });
  };
  for (const [channel, programNumber] of [
    [0, 33],
    [1, 4],
  ] as const)
    timed.push({
      tick: 0,
      event: { deltaTime: 0, type: 'programChange', channel, programNumber } as MidiEvent,
    });
  const beat = 0.52;
  const roots = [43, 48, 41, 46];
  for (let count = 0, at = 0.1; at < seconds; count++, at += beat) {
    const root = roots[Math.floor(count / 4 + seed) % 4]!;
    put(0, root - 12 + [0, 4, 7, 10][count % 4]!, at, beat * 0.9, 95);
    if (count % 4 === 0 || count % 4 === 2)
      for (const step of [16, 19, 22]) put(1, root + step, at, beat * 1.4, 72);
    put(9, 42, at, 0.1, 80);
    put(9, 42, at + beat * 0.66, 0.1, 55);
    put(9, count % 2 ? 38 : 36, at, 0.1, 96);
  }
  return render(writeTimed(timed), seconds).samples;
}
