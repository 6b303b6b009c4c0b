import { PitchDetector } from 'pitchy';
import type { ReportedNote } from './evaluate';

/** A general-purpose tracker as it comes from the registry, with the plainest way from its answer to notes. */
export type Peer = {
  readonly name: string;
  readonly notes: (samples: Float32Array, rate: number) => ReportedNote[];
};

const WINDOW = 2048;
const HOP = 256;
const SURE = 0.9;
const STEP = 0.6;
const SHORTEST = 0.05;
const RISE = 6;
const AUDIBLE = 1e-3;

/** pitchy (MIT): McLeod's normalised square difference, a pitch and a clarity for each window. */
export const pitchy: Peer = {
  name: 'pitchy',
  notes: (samples, rate) => {
    const detector = PitchDetector.forFloat32Array(WINDOW);
    return segmented(samples, rate, (window) => {
      const [hz, clarity] = detector.findPitch(window, rate);
      return clarity >= SURE && hz > 60 && hz < 1500 ? 69 + 12 * Math.log2(hz / 440) : null;
    });
  },
};

/** Time-domain autocorrelation with a parabola: the plain reference that every textbook begins with (Rabiner, IEEE TASSP 1977). */
export const plainAutocorrelation: Peer = {
  name: 'autocorrelation',
  notes: (samples, rate) =>
    segmented(samples, rate, (window) => {
      const step = Math.max(1, Math.round(rate / 11_025));
      const [low, high] = [Math.floor(rate / step / 1400), Math.ceil(rate / step / 65)];
      const count = Math.floor(WINDOW / step) - high;
      let [best, most, energy] = [0, 0, 0];
      for (let n = 0; n < count; n++) energy += window[n * step]! ** 2;
      for (let lag = low; lag <= high; lag++) {
        let [cross, other] = [0, 0];
        for (let n = 0; n < count; n++) {
          cross += window[n * step]! * window[(n + lag) * step]!;
          other += window[(n + lag) * step]! ** 2;
        }
        const r = cross / Math.sqrt(energy * other || 1);
        if (r > most + 0.02) [best, most] = [lag, r];
      }
      return most >= SURE - 0.05 && best > 0 ? 69 + 12 * Math.log2(rate / step / best / 440) : null;
    }),
};

/** Stretches of one pitch become notes; a rise of level by 6 dB within 30 ms, a step of 60 cents or a silence ends one. */
function segmented(
  samples: Float32Array,
  rate: number,
  pitchOf: (window: Float32Array) => number | null,
): ReportedNote[] {
  const notes: { onset: number; offset: number; pitches: number[] }[] = [];
  const levels: number[] = [];
  let current: (typeof notes)[number] | null = null;
  for (let at = 0; at + WINDOW <= samples.length; at += HOP) {
    const time = (at + WINDOW / 2) / rate;
    let energy = 0;
    for (let n = at + WINDOW / 2 - HOP; n < at + WINDOW / 2 + HOP; n++) energy += samples[n]! ** 2;
    const loud = Math.sqrt(energy / (2 * HOP));
    levels.push(20 * Math.log10(loud + 1e-9));
    const before = Math.min(...levels.slice(-Math.round((0.03 * rate) / HOP) - 1, -1));
    const pitch = loud < AUDIBLE * 0.3 ? null : pitchOf(samples.subarray(at, at + WINDOW));
    const struck = levels.at(-1)! - before > RISE && current !== null && time - current.onset > 0.08;
    if (pitch === null || struck || (current && Math.abs(pitch - current.pitches.at(-1)!) > STEP)) {
      if (current && current.offset - current.onset >= SHORTEST) notes.push(current);
      current = pitch === null ? null : { onset: time, offset: time, pitches: [pitch] };
    } else if (current) {
      current.pitches.push(pitch);
      current.offset = time;
    } else current = { onset: time, offset: time, pitches: [pitch] };
  }
  if (current && current.offset - current.onset >= SHORTEST) notes.push(current);
  return notes.map(({ onset, offset, pitches }) => ({
    onset,
    offset,
    pitch: pitches.sort((a, b) => a - b)[pitches.length >> 1]!,
  }));
}
