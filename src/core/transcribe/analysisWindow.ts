import type { Decibels, Midi } from '../shared';
import { FeatureReader, type SpectrumCache } from './features';
import type { AnalysisFrame } from './frames';
import { settleGlides } from './glides';
import { logOdds, probabilityOf, unpack } from './classifier';
import { FITTED } from './classifierWeights';
import { onsetCandidatesOf, type OnsetCandidate } from './onsetCandidates';
import { soundsOf, type HeardSound } from './notes';
import { onsetsOf, riseAt } from './onsets';
import { pathOf, type PitchTrack } from './path';
import type { RingingReader } from './ringing';
import { noteOnsetsOf, type JudgedCandidate, type LeftOut, type NoteOnset } from './noteOnsets';
import { SecondLook, type LookedAtMoment } from './secondLook';
import { SECOND_FITTED } from './secondLookWeights';

const NETWORKS = FITTED.map(unpack);
const SECOND_NETWORKS = SECOND_FITTED.map(unpack);

/** Below this a frame has no pitch: far under the playing level, or less than any input gives. */
const GATE_UNDER_PLAYING: Decibels = 42;
const LOWEST_GATE: Decibels = -92;
/** A take that is nowhere louder is silence and the noise of its input. */
export const SILENT_TAKE: Decibels = -72;
/** Peaks of the flux this near are one attack. */
const SAME_ATTACK = 5;
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
export type SpectralCache = { readonly spectra: SpectrumCache; readonly ringing: RingingReader };

/** What was heard in a stretch, in its own frames. */
export type TranscriptionSegment = {
  readonly noteOnsets: readonly NoteOnset[];
  readonly sounds: readonly HeardSound[];
  readonly leftOut: readonly LeftOut[];
  readonly track: PitchTrack;
};

/** A pitch that may have begun and the features it is judged by. */
export type Asked = { readonly midi: Midi; readonly features: Float64Array };

/** Told what is asked at a moment, in frames of the stretch, at the first look and at the second. */
export type ClassifierListener = (
  onsetCandidate: OnsetCandidate,
  first: readonly Asked[],
  second: readonly Asked[],
) => void;

/** Work that can be done bit by bit: between bits other things get their turn. */
export type Steps<Result> = Generator<undefined, Result, undefined>;

/**
 * Hears a stretch: asks at every moment what begins there, draws the one best path through what is
 * believed, and reads the notes from it.
 * @param until moments from this frame on are left alone, for too little is known of what follows them
 */
export function* transcribeWindow(
  window: AnalysisWindow,
  { spectra: sights, ringing }: SpectralCache,
  until = window.frames.length,
  onClassify?: ClassifierListener,
): Steps<TranscriptionSegment> {
  const { from, frames, playing } = window;
  if (playing <= SILENT_TAKE)
    return { noteOnsets: [], sounds: [], leftOut: [], track: new Float64Array(frames.length).fill(NaN) };
  const gate = Math.max(LOWEST_GATE, playing - GATE_UNDER_PLAYING);
  const first = pathOf(frames, onsetsOf(frames), gate);
  yield;
  const evidence = new FeatureReader(sights, frames, first, playing, from);
  const moments: LookedAtMoment[] = [];
  for (const { onsetCandidate, previous, next, soft } of among(
    onsetCandidatesOf(frames, first),
    frames.length,
  )) {
    if (onsetCandidate.frame >= until) break;
    const candidates = evidence
      .claimsAt(onsetCandidate, previous, next, soft)
      .map((candidate) => ({ ...candidate, leaning: logOdds(NETWORKS, candidate.features) }));
    moments.push({ onsetCandidate, candidates });
    yield;
  }
  const secondLook = new SecondLook(moments);
  const judged: JudgedCandidate[] = [];
  for (const [index, { onsetCandidate, candidates }] of moments.entries()) {
    const asked = [...secondLook.featuresAt(index)];
    onClassify?.(onsetCandidate, candidates, asked);
    judged.push({
      onsetCandidate,
      pitchCandidates: asked.map(({ midi, features }) => ({
        midi,
        belief: probabilityOf(logOdds(SECOND_NETWORKS, features)),
      })),
    });
    if (asked.length) yield;
  }
  const { noteOnsets: believed, leftOut } = noteOnsetsOf(judged, window.bandOnsets);
  const known = believed.flatMap(({ starts }, index) =>
    starts.map(({ frame, midi }) => ({
      from: frame,
      to: believed[index + 1]?.frame ?? frames.length,
      midi,
      struck: riseAt(frames, frame) >= STRUCK_RISE,
    })),
  );
  const track = pathOf(frames, believed, gate, known);
  yield;
  const strikes = settleGlides(believed, track, frames);
  const sounds = soundsOf(strikes, track, frames, ringing.from(from));
  return { noteOnsets: strikes, sounds, leftOut, track };
}

/** Each moment with the clear moments around it and the next of any kind, in frames. */
function among(
  onsetCandidates: readonly OnsetCandidate[],
  length: number,
): { onsetCandidate: OnsetCandidate; previous: number; next: number; soft: number }[] {
  const clear = onsetCandidates.filter((onsetCandidate) => onsetCandidate.clear).map(({ frame }) => frame);
  let passed = 0;
  return onsetCandidates.map((onsetCandidate, index) => {
    while (passed < clear.length && clear[passed]! < onsetCandidate.frame) passed++;
    const previous = clear[passed - 1] ?? 0;
    let later = passed;
    while (later < clear.length && clear[later]! - onsetCandidate.frame <= SAME_ATTACK) later++;
    let any = index + 1;
    while (any < onsetCandidates.length && onsetCandidates[any]!.frame - onsetCandidate.frame <= SAME_ATTACK)
      any++;
    return {
      onsetCandidate,
      previous,
      next: clear[later] ?? length,
      soft: onsetCandidates[any]?.frame ?? length,
    };
  });
}
