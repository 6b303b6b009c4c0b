import { type Decibels, type Midi, type Samples, type Seconds } from '../shared';
import { SpectrumReader, type Magnitudes, type SignalStore } from '../sound';
import { FRAME_SECONDS, HOP, RATE, type AnalysisFrame } from './frames';
import { glideInto } from './glideInto';
import type { OnsetCandidate } from './onsetCandidates';
import { OnsetSpectrum } from './onsetSpectrum';
import type { PitchTrack } from './path';
import {
  AFTER_ATTACK,
  BEFORE_ATTACK,
  BEFORE_NEXT,
  HIGHEST_CLAIM,
  KEYS,
  LONGEST,
  LOWEST,
  SHORTEST,
  SOFTLY,
  TRACK_AT,
  TRANSFORM,
  within,
} from './spectrumCells';

/**
 * A pitch that may have begun at a moment, and what speaks for and against it: `features` for the judge, in a
 * fixed order.
 */
export type PitchCandidate = { readonly midi: Midi; readonly features: Float64Array };

/**
 * How long after a moment its sound is looked at: to the next clear moment, and not much past one of any kind.
 */
export function onsetSpectrumAt(frame: number, next: number, soft: number): Samples {
  const roomTo = (other: number) => (other - frame) * HOP - BEFORE_NEXT - AFTER_ATTACK;
  return Math.max(SHORTEST, Math.min(LONGEST, Math.min(roomTo(next), Math.max(SOFTLY, roomTo(soft)))));
}

/** What the sound alone says of a moment: it depends on nothing that comes later than the look itself. */
type Seen = {
  readonly newShare: number;
  readonly pitches: readonly { readonly midi: Midi; readonly features: Float32Array }[];
};

/**
 * Looks at the sound of moments, and remembers: most of it is done while a take is still being played, and
 * not again at its end.
 * A look is known by its frame and length; asked anew it would give the same.
 */
export class SpectrumCache {
  private readonly reader = new SpectrumReader(TRANSFORM, RATE);
  private readonly seen = new Map<number, Seen>();
  /** @param frameAt a frame of the take: those 0.1 s after a moment must be there when it is looked at */
  constructor(
    private readonly store: SignalStore,
    private readonly frameAt: (frame: number) => AnalysisFrame | undefined,
  ) {}

  see(frame: number, length: Samples): Seen {
    const key = frame * KEYS + length;
    let found = this.seen.get(key);
    if (!found) this.seen.set(key, (found = this.look(frame, length)));
    return found;
  }

  /** No moment before this frame is asked for any more. */
  forget(before: number): void {
    for (const key of this.seen.keys()) if (key < before * KEYS) this.seen.delete(key);
  }

  private look(frame: number, length: Samples): Seen {
    const at = frame * HOP;
    const spectrum = new OnsetSpectrum(
      this.spectrum(at + AFTER_ATTACK, length),
      this.spectrum(at - BEFORE_ATTACK - length, length),
    );
    if (spectrum.loudest < 1e-7) return { newShare: 0, pitches: [] };
    return {
      newShare: spectrum.newShare,
      pitches: this.pitchesAt(frame, spectrum).map((midi) => ({
        midi,
        features: Float32Array.from(spectrum.features(midi)),
      })),
    };
  }

  private spectrum(from: Samples, length: Samples): Magnitudes {
    const samples = new Float64Array(length);
    this.store.read(from, samples);
    return this.reader.read(samples);
  }

  private pitchesAt(frame: number, spectrum: OnsetSpectrum): Midi[] {
    const pitches = spectrum.peaks().map((midi) => spectrum.refined(midi));
    for (const ahead of [0.03, 0.06, 0.1]) {
      const candidates = this.frameAt(frame + Math.round(ahead / FRAME_SECONDS))?.candidates ?? [];
      for (const { midi, weight } of candidates.slice(0, 2))
        if (weight > 0.05 && midi > LOWEST + 1) pitches.push(midi);
    }
    const kept: Midi[] = [];
    for (const midi of pitches)
      if (midi < HIGHEST_CLAIM && !kept.some((other) => Math.abs(other - midi) < 0.35)) kept.push(midi);
    return kept
      .map((midi) => ({ midi, salience: spectrum.salience(midi) }))
      .sort((a, b) => b.salience - a.salience)
      .map(({ midi }) => midi);
  }
}

/**
 * Gathers what a moment's sound says about each pitch that may have begun there: the spectrum after it,
 * before it, and what is new
 * (after less before), each asked at a pitch's harmonics and between them (harmonic summation after
 * Klapuri, ISMIR 2006), beside
 * what the period tracker says.
 */
export class FeatureReader {
  /** @param offset frame of the take at which `frames` and `track` begin */
  constructor(
    private readonly spectra: SpectrumCache,
    private readonly frames: readonly AnalysisFrame[],
    private readonly track: PitchTrack,
    private readonly playing: Decibels,
    private readonly offset = 0,
  ) {}

  /**
   * @param previous and `next`: frames of the clear moments around, or the take's ends; @param soft the
   *   next moment of any kind: what
   * may be none shortens the look less
   */
  claimsAt(onsetCandidate: OnsetCandidate, previous: number, next: number, soft: number): PitchCandidate[] {
    const length = onsetSpectrumAt(onsetCandidate.frame, next, soft);
    const seen = this.spectra.see(onsetCandidate.frame + this.offset, length);
    if (seen.pitches.length === 0) return [];
    const shared = this.sharedFeatures(onsetCandidate, previous, next, soft, length, seen.newShare);
    return seen.pitches.map(({ midi, features }, rank) => ({
      midi,
      features: limited(shared, [rank / 10], features, this.periodFeatures(onsetCandidate.frame, midi)),
    }));
  }

  private sharedFeatures(
    onsetCandidate: OnsetCandidate,
    previous: number,
    next: number,
    soft: number,
    length: Samples,
    newShare: number,
  ): number[] {
    const { frames } = this;
    const [low, high] = this.levels(onsetCandidate.frame);
    const weightAround = (from: Seconds, to: Seconds) =>
      this.mean(onsetCandidate.frame, from, to, (frame) =>
        frame.candidates.reduce((sum, { weight }) => sum + weight, 0),
      );
    const here = frames[onsetCandidate.frame]!;
    return [
      Math.log10(onsetCandidate.strength + 0.003),
      onsetCandidate.kind === 'step' ? 1 : 0,
      (high - low) / 20,
      (high - this.playing) / 20,
      (low - this.playing) / 20,
      ...[onsetCandidate.frame - previous, next - onsetCandidate.frame, soft - onsetCandidate.frame].map(
        (gap) => Math.log10(Math.max(1, gap) * FRAME_SECONDS + 0.02),
      ),
      length / LONGEST,
      weightAround(-0.07, -0.02),
      weightAround(0.03, 0.09),
      weightAround(0.09, 0.15),
      newShare,
      here.level > -100 ? this.settling(onsetCandidate.frame) : 0,
      ...this.glideFeatures(onsetCandidate.frame),
    ];
  }

  /** Lowest level just before and highest just after, in dBFS. */
  private levels(at: number): [Decibels, Decibels] {
    // before the first frame there was silence
    let [low, high] = [at < 6 ? -100 : Infinity, -Infinity];
    for (let frame = Math.max(0, at - 6); frame <= at; frame++)
      low = Math.min(low, this.frames[frame]!.level);
    for (let frame = at; frame <= Math.min(this.frames.length - 1, at + 9); frame++)
      high = Math.max(high, this.frames[frame]!.level);
    return [Math.max(-100, low), Math.max(-100, high)];
  }

  /** How far the level has fallen 90 ms on, in units of 20 dB: a muted stroke is gone by then. */
  private settling(at: number): number {
    const later = this.frames[Math.min(this.frames.length - 1, at + Math.round(0.09 / FRAME_SECONDS))]!.level;
    return Math.max(-3, Math.min(1, (later - this.levels(at)[1]) / 20));
  }

  private mean(at: number, from: Seconds, to: Seconds, value: (frame: AnalysisFrame) => number): number {
    let [sum, count] = [0, 0];
    for (
      let frame = at + Math.round(from / FRAME_SECONDS);
      frame <= at + Math.round(to / FRAME_SECONDS);
      frame++
    ) {
      if (frame < 0 || frame >= this.frames.length) continue;
      sum += value(this.frames[frame]!);
      count++;
    }
    return count ? sum / count : 0;
  }

  /**
   * How the tracked pitch moves through the moment: how far, how long the move takes, how long the pitch
   * before was held.
   */
  private glideFeatures(at: number): number[] {
    const glide = glideInto(this.track, at);
    return [
      Math.max(-1, Math.min(1, glide.extent / 7)),
      Math.min(1, glide.seconds / 0.2),
      Math.min(1, glide.held / 0.4),
    ];
  }

  private periodFeatures(at: number, midi: Midi): number[] {
    const weightOf = (pitch: Midi) => (frame: AnalysisFrame) =>
      frame.candidates.reduce(
        (sum, candidate) => sum + (Math.abs(candidate.midi - pitch) < 0.5 ? candidate.weight : 0),
        0,
      );
    const features = [
      this.mean(at, -0.1, -0.05, weightOf(midi)),
      this.mean(at, -0.05, -0.015, weightOf(midi)),
      this.mean(at, 0.015, 0.045, weightOf(midi)),
      this.mean(at, 0.045, 0.09, weightOf(midi)),
      this.mean(at, 0.09, 0.15, weightOf(midi)),
      this.mean(at, 0.03, 0.09, weightOf(midi + 12)),
      this.mean(at, 0.03, 0.09, weightOf(midi - 12)),
      this.mean(at, 0.03, 0.09, weightOf(midi + 19)),
      this.mean(at, 0.03, 0.09, weightOf(midi - 19)),
    ];
    for (const ahead of TRACK_AT) {
      const pitch = this.track[at + Math.round(ahead / FRAME_SECONDS)];
      const away = pitch === undefined || Number.isNaN(pitch) ? NaN : pitch - midi;
      features.push(
        Number.isNaN(away) ? 0 : Math.max(-1, Math.min(1, away / 4)),
        Number.isNaN(away) ? 0 : Math.exp(-((away / 0.4) ** 2)),
      );
    }
    return features;
  }
}

/** The groups one after the other, none of their values beyond the limit. */
function limited(...groups: readonly ArrayLike<number>[]): Float64Array {
  const all = new Float64Array(groups.reduce((count, group) => count + group.length, 0));
  let at = 0;
  for (const group of groups) for (let n = 0; n < group.length; n++) all[at++] = within(group[n]!);
  return all;
}
