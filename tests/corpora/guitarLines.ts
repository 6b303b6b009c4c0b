import { gaussian, seededRandom, type Random } from '@/core/shared';
import type { GuitarSample } from './guitarSamples';
import type { ScoredNote } from '../score/notes';

/** A line strung from recorded notes, with the truth of what sounds. */
export type LabelledLine = {
  readonly samples: Float32Array;
  readonly rate: number;
  readonly truth: readonly ScoredNote[];
};

export type LineOptions = {
  readonly notes: number;
  /** Seconds between onsets, as a choice of values. */
  readonly gaps: readonly number[];
  readonly lowest: number;
  readonly highest: number;
  /** Chance that a note repeats the pitch before it. */
  readonly repeat?: number;
  /** Seconds a note takes to die away once the next is struck; 12 ms where none is given. */
  readonly damping?: number;
};

/**
 * Strings samples of one guitar into a single line: each note is damped when the next is struck, as one finger-stopped string would be.
 * Seeded: the same seed gives the same samples.
 */
export function stringLine(
  guitar: readonly GuitarSample[],
  options: LineOptions,
  seed: number,
): LabelledLine {
  const random = seededRandom(seed);
  const rate = guitar[0]!.rate;
  const usable = guitar.filter(
    (sample) => sample.rate === rate && sample.midi >= options.lowest && sample.midi <= options.highest,
  );
  const plan = planLine(usable, options, random);
  const length = Math.ceil((plan[plan.length - 1]!.at + 1.5) * rate);
  const samples = new Float32Array(length);
  plan.forEach(({ sample, at, gain }, index) =>
    lay(samples, sample, at, plan[index + 1]?.at ?? at + 1.2, gain, options.damping ?? 0.012),
  );
  return { samples, rate, truth: plan.map(({ sample, at }) => ({ onset: at, pitch: sample.pitch })) };
}

type Placed = { readonly sample: GuitarSample; readonly at: number; readonly gain: number };

function planLine(usable: readonly GuitarSample[], options: LineOptions, random: Random): Placed[] {
  const plan: Placed[] = [];
  let at = 0.25;
  let sample = usable[Math.floor(random() * usable.length)]!;
  for (let note = 0; note < options.notes; note++) {
    if (note > 0 && random() >= (options.repeat ?? 0.05)) sample = nextSample(usable, sample, random);
    plan.push({ sample, at, gain: 10 ** ((gaussian(random) * 2.5) / 20) });
    at += options.gaps[Math.floor(random() * options.gaps.length)]! * (1 + 0.03 * gaussian(random));
  }
  return plan;
}

/** Mostly near the note before, as lines move. */
function nextSample(usable: readonly GuitarSample[], from: GuitarSample, random: Random): GuitarSample {
  const near = usable.filter((sample) => sample !== from && Math.abs(sample.midi - from.midi) <= 7);
  const from7 = near.length > 0 && random() < 0.85 ? near : usable;
  return from7[Math.floor(random() * from7.length)]!;
}

/** Adds a note from its onset to the next one, then damped. */
function lay(
  into: Float32Array,
  sample: GuitarSample,
  at: number,
  until: number,
  gain: number,
  damping: number,
): void {
  const start = Math.round((at - sample.onset) * sample.rate);
  const stop = Math.round(until * sample.rate);
  const damp = Math.max(1, Math.round(damping * sample.rate));
  for (let n = 0; n < sample.samples.length; n++) {
    const place = start + n;
    if (place < 0 || place >= into.length || place >= stop + damp) continue;
    const fade = place < stop ? 1 : 1 - (place - stop) / damp;
    into[place]! += sample.samples[n]! * gain * fade;
  }
}
