import type { Decibels, Midi } from '../shared';
import type { AlignedSpectra } from './alignedSpectra';
import { FeatureReader, type SpectrumCache } from './features';
import type { AnalysisFrame } from './frames';
import { settleGlides } from './glides';
import { firstLook, secondLook, type ClassifierListener, type Steps } from './looks';
import { noteOnsetsOf, type LeftOut, type NoteOnset } from './noteOnsets';
import { soundsOf, type HeardSound } from './notes';
import { onsetCandidatesOf } from './onsetCandidates';
import { onsetsOf, riseAt } from './onsets';
import { pathOf, type PitchTrack } from './path';
import type { RingingReader } from './ringing';
import { followStrings, type StringTraces } from './stringTrace';

/** Below this a frame has no pitch: far under the playing level, or less than any input gives. */
const GATE_UNDER_PLAYING: Decibels = 42;
const LOWEST_GATE: Decibels = -92;
/** A take that is nowhere louder is silence and the noise of its input. */
export const SILENT_TAKE: Decibels = -72;
const STRUCK_RISE: Decibels = 2.5;

/** Part of a take. Frames count from its first one, which is frame `from` of the take. */
export type AnalysisWindow = {
  readonly from: number;
  readonly frames: readonly AnalysisFrame[];
  /** Level of the take, of what is known of it. */
  readonly playing: Decibels;
  /** Frames at which a known band strikes. */
  readonly bandOnsets?: ReadonlySet<number>;
};

/** What looks at the sound itself, by frames of the take. */
export type SpectralCache = {
  readonly spectra: SpectrumCache;
  readonly aligned: AlignedSpectra;
  readonly ringing: RingingReader;
  readonly traces: StringTraces;
};

/** What was heard in a stretch, in its own frames. */
export type TranscriptionSegment = {
  readonly noteOnsets: readonly NoteOnset[];
  readonly sounds: readonly HeardSound[];
  readonly leftOut: readonly LeftOut[];
  readonly track: PitchTrack;
};

/**
 * Hears a stretch: asks at every moment what begins there, draws the one best path through what is
 * believed, and reads the notes from it.
 * @param until moments from this frame on are left alone, for too little is known of what follows them
 */
export function* transcribeWindow(
  window: AnalysisWindow,
  { spectra, aligned, ringing, traces }: SpectralCache,
  until = window.frames.length,
  onClassify?: ClassifierListener,
): Steps<TranscriptionSegment> {
  const { from, frames, playing } = window;
  if (playing <= SILENT_TAKE)
    return { noteOnsets: [], sounds: [], leftOut: [], track: new Float64Array(frames.length).fill(NaN) };
  const gate = Math.max(LOWEST_GATE, playing - GATE_UNDER_PLAYING);
  const first = pathOf(frames, onsetsOf(frames), gate);
  yield;
  const features = new FeatureReader(spectra, frames, first, playing, from);
  const onsetCandidates = onsetCandidatesOf(frames, first);
  const moments = yield* firstLook(features, onsetCandidates, Math.min(until, frames.length), frames.length);
  const soundAt = (frame: number, midi: Midi, into: Float64Array) =>
    aligned.read(from + frame, midi, into, 0);
  const judged = yield* secondLook(moments, soundAt, onClassify);
  const { noteOnsets: believed, leftOut } = noteOnsetsOf(judged, window.bandOnsets);
  const known = believed.flatMap(({ starts }, index) =>
    starts.map(({ frame, midi }) => ({
      from: frame,
      to: believed[index + 1]?.frame ?? frames.length,
      midi,
      struck: riseAt(frames, frame) >= STRUCK_RISE,
    })),
  );
  const path = pathOf(frames, believed, gate, known);
  yield;
  const track = yield* followStrings(believed, path, (first, last, midi) =>
    traces.trace(from + first, from + last, midi),
  );
  const strikes = settleGlides(believed, track, frames);
  const sounds = soundsOf(strikes, track, frames, ringing.from(from));
  return { noteOnsets: strikes, sounds, leftOut, track };
}
