import { gaussian, seededRandom, type Random } from '@/core/shared';
import type { GuitarSample } from './guitarSamples';
import { centsAt, type Line, type StringNote } from './line';

/**
 * Renders a line from recorded notes of one guitar: each note is the nearest sample played at the rate that brings it to its pitch,
 * following its curve. Seeded; the same line gives the same samples.
 */
export function renderRecorded(
  line: Line,
  guitar: readonly GuitarSample[],
  seed: number,
  detuneCents = 0,
): { samples: Float32Array; rate: number } {
  const rate = guitar[0]!.rate;
  const out = new Float32Array(Math.ceil(line.seconds * rate));
  const random = seededRandom(seed);
  line.strings.forEach((note, index) => {
    if (note.attack === 'ghost') layGhost(out, nearest(guitar, note.midi), note, rate, random);
    else lay(out, nearest(guitar, note.midi), note, line.strings[index - 1], detuneCents);
  });
  return { samples: out, rate };
}

function nearest(guitar: readonly GuitarSample[], midi: number): GuitarSample {
  return guitar.reduce((best, sample) =>
    Math.abs(sample.midi - midi) < Math.abs(best.midi - midi) ? sample : best,
  );
}

const DAMPING = 0.012;
/** A hammered or pulled note begins inside the sample, past its pick. */
const PAST_PICK = 0.05;
const LEGATO_FADE = 0.006;

function lay(
  out: Float32Array,
  sample: GuitarSample,
  note: StringNote,
  before: StringNote | undefined,
  detuneCents: number,
): void {
  const { rate } = sample;
  const legato = note.attack === 'hammer' || note.attack === 'pull';
  const gain = legato && before ? before.gain * 0.75 : note.gain;
  let position = (legato ? sample.onset + PAST_PICK : 0) * rate;
  const first = Math.round((note.at - (legato ? 0 : sample.onset)) * rate);
  const stop = Math.round(note.until * rate);
  const damp = Math.round((legatoFollows(note) ? LEGATO_FADE : DAMPING) * rate);
  const step = (cents: number) => 2 ** ((note.midi - sample.pitch) / 12 + (cents + detuneCents) / 1200);
  const plain = note.curve?.length ? null : step(0);
  for (
    let place = first;
    place < Math.min(out.length, stop + damp) && position < sample.samples.length - 3;
    place++
  ) {
    const time = place / rate - note.at;
    const fadeIn = legato ? Math.min(1, Math.max(0, time / LEGATO_FADE)) : 1;
    const fadeOut = place < stop ? 1 : 1 - (place - stop) / damp;
    if (place >= 0) out[place]! += cubic(sample.samples, position) * gain * fadeIn * fadeOut;
    position += plain ?? step(centsAt(note.curve, time));
  }
}

const legatoFollows = (note: StringNote): boolean => note.attack === 'hammer' || note.attack === 'pull';

/** A muted stroke: the pick's noise and a string that a hand stops within a few milliseconds. */
function layGhost(
  out: Float32Array,
  sample: GuitarSample,
  note: StringNote,
  rate: number,
  random: Random,
): void {
  const first = Math.round((note.at - sample.onset) * rate);
  let low = 0;
  for (let n = 0; n < 0.05 * rate; n++) {
    const time = n / rate - sample.onset;
    const fade = time < 0 ? 1 : Math.exp(-time / 0.009);
    low += (gaussian(random) - low) * 0.25;
    if (first + n >= 0 && first + n < out.length)
      out[first + n]! += (sample.samples[n]! + low * 0.15 * (time < 0 ? 0 : 1)) * note.gain * fade;
  }
}

/** Catmull–Rom interpolation. */
function cubic(samples: Float32Array, position: number): number {
  const at = Math.floor(position);
  const t = position - at;
  const [a, b, c, d] = [
    samples[Math.max(0, at - 1)]!,
    samples[at]!,
    samples[at + 1] ?? 0,
    samples[at + 2] ?? 0,
  ];
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
}
