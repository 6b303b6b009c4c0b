import { readdirSync, readFileSync } from 'node:fs';
import { MPEGDecoder } from 'mpg123-decoder';

/** A recorded guitar note with its own onset and tuning measured, so that the truth is what sounds. */
export type GuitarSample = {
  readonly instrument: Instrument;
  readonly name: string;
  /** Nominal MIDI number by file name, and the pitch that sounds. */
  readonly midi: number;
  readonly pitch: number;
  readonly rate: number;
  /** Mono samples from 5 ms before the onset; `onset` is where the note starts in them, in seconds. */
  readonly samples: Float32Array;
  readonly onset: number;
  /** Samples the engine is tuned on, and samples that decide whether it is good: every other one. */
  readonly share: 'tune' | 'decide';
};

export type Instrument = 'acoustic' | 'electric' | 'nylon';
const NAMES = ['C', 'Cs', 'D', 'Ds', 'E', 'F', 'Fs', 'G', 'Gs', 'A', 'As', 'B'];

/** Every sample of one instrument (tonejs-instrument-guitar-*-mp3 from the npm registry, MIT), decoded and measured. */
export async function loadGuitar(instrument: Instrument): Promise<GuitarSample[]> {
  const folder = `node_modules/tonejs-instrument-guitar-${instrument}-mp3`;
  const decoder = new MPEGDecoder();
  await decoder.ready;
  const samples: GuitarSample[] = [];
  for (const file of readdirSync(folder)
    .filter((name) => name.endsWith('.mp3'))
    .sort()) {
    const name = file.replace('.mp3', '');
    const midi = 12 * (Number(name.slice(-1)) + 1) + NAMES.indexOf(name.slice(0, -1));
    const { channelData, sampleRate } = decoder.decode(readFileSync(`${folder}/${file}`));
    const measured = measure(mono(channelData), sampleRate, midi);
    if (measured) samples.push({ instrument, name, midi, rate: sampleRate, share: 'tune', ...measured });
    await decoder.reset();
  }
  decoder.free();
  return samples
    .sort((a, b) => a.midi - b.midi)
    .map((sample, index) => ({ ...sample, share: index % 2 ? 'decide' : 'tune' }));
}

function mono(channels: readonly Float32Array[]): Float32Array {
  return channels[0]!.map(
    (_, index) => channels.reduce((sum, channel) => sum + channel[index]!, 0) / channels.length,
  );
}

/** Onset: where the 2-ms energy first passes 5 % of its peak. Pitch: autocorrelation peak over 0.15–0.6 s, near the nominal. */
function measure(
  samples: Float32Array,
  rate: number,
  midi: number,
): Pick<GuitarSample, 'samples' | 'onset' | 'pitch'> | null {
  const block = Math.round(rate * 0.002);
  const energies: number[] = [];
  for (let at = 0; at + block <= Math.min(samples.length, rate); at += block)
    energies.push(samples.subarray(at, at + block).reduce((sum, value) => sum + value * value, 0));
  const peak = Math.max(...energies.slice(0, 200));
  const first = energies.findIndex((energy) => energy > peak * 0.05) * block;
  // where a finger noise stands before the note the onset is a matter of opinion: such samples are left out
  const clear = energies.findIndex((energy) => energy > peak * 0.4) * block - first <= rate * 0.03;
  if (first < 0 || !clear || samples.length < first + rate * 0.7) return null;
  const start = Math.max(0, first - Math.round(rate * 0.005));
  const pitch = pitchNear(
    samples.subarray(first + Math.round(rate * 0.15), first + Math.round(rate * 0.6)),
    rate,
    midi,
  );
  if (pitch === null) return null;
  let loudest = 0;
  for (const value of samples) loudest = Math.max(loudest, Math.abs(value));
  return {
    samples: samples.slice(start).map((value) => (value / loudest) * 0.5),
    onset: (first - start) / rate,
    pitch,
  };
}

/** Plain time-domain normalised autocorrelation within ±1.5 semitones of the nominal pitch: independent of the engine under test. */
function pitchNear(samples: Float32Array, rate: number, midi: number): number | null {
  const period = rate / (440 * 2 ** ((midi - 69) / 12));
  const [low, high] = [Math.floor(period * 0.917), Math.ceil(period * 1.09)];
  const length = Math.min(8192, samples.length - high - 1);
  const value = (lag: number) => {
    let [cross, a, b] = [0, 0, 0];
    for (let n = 0; n < length; n++) {
      cross += samples[n]! * samples[n + lag]!;
      a += samples[n]! ** 2;
      b += samples[n + lag]! ** 2;
    }
    return cross / Math.sqrt(a * b || 1);
  };
  let [best, most] = [0, -1];
  for (let lag = low; lag <= high; lag++) {
    const r = value(lag);
    if (r > most) [best, most] = [lag, r];
  }
  if (most < 0.7) return null;
  const [before, after] = [value(best - 1), value(best + 1)];
  const bend = before - 2 * most + after;
  const lag = best + (bend < 0 ? (before - after) / (2 * bend) : 0);
  return 69 + 12 * Math.log2(rate / lag / 440);
}
