import type { Midi } from '../shared';
import { ALIGNED_VALUES } from './alignedSpectra';
import { logOdds, probabilityOf, unpack } from './classifier';
import { FITTED } from './classifierWeights';
import type { FeatureReader } from './features';
import { LookAround, type LookedAtMoment } from './lookAround';
import type { JudgedCandidate } from './noteOnsets';
import type { OnsetCandidate } from './onsetCandidates';
import { SECOND_FITTED } from './secondLookWeights';

/** Work that can be done bit by bit: between bits other things get their turn. */
export type Steps<Result> = Generator<undefined, Result, undefined>;

/** A pitch that may have begun and the features it is judged by. */
export type Asked = { readonly midi: Midi; readonly features: Float64Array };

/** Told what is asked at a moment, in frames of the stretch, at the first look and at the second. */
export type ClassifierListener = (
  onsetCandidate: OnsetCandidate,
  first: readonly Asked[],
  second: readonly Asked[],
) => void;

const [FIRST, SECOND] = [FITTED.map(unpack), SECOND_FITTED.map(unpack)];
/** Peaks of the flux this near are one attack. */
const SAME_ATTACK = 5;

/**
 * Each pitch by itself.
 * @param until moments from this frame on are left alone, of `length` frames
 */
export function* firstLook(
  features: FeatureReader,
  onsetCandidates: readonly OnsetCandidate[],
  until: number,
  length: number,
): Steps<LookedAtMoment[]> {
  const moments: LookedAtMoment[] = [];
  for (const { onsetCandidate, previous, next, soft } of among(onsetCandidates, length)) {
    if (onsetCandidate.frame >= until) break;
    const candidates = features
      .claimsAt(onsetCandidate, previous, next, soft)
      .map((candidate) => ({ ...candidate, leaning: logOdds(FIRST, candidate.features) }));
    moments.push({ onsetCandidate, candidates });
    yield;
  }
  return moments;
}

/**
 * Again, of what the first look did not rule out, with what stands around it and the sound itself.
 * @param soundAt writes `ALIGNED_VALUES` numbers: what sounds around a frame, relative to a pitch
 */
export function* secondLook(
  moments: readonly LookedAtMoment[],
  soundAt: (frame: number, midi: Midi, into: Float64Array) => void,
  onClassify?: ClassifierListener,
): Steps<JudgedCandidate[]> {
  const around = new LookAround(moments);
  const sound = new Float64Array(ALIGNED_VALUES);
  const judged: JudgedCandidate[] = [];
  for (const [index, { onsetCandidate, candidates: first }] of moments.entries()) {
    const asked = [...around.contextsAt(index)].map(({ candidate: { midi, features }, context }) => {
      soundAt(onsetCandidate.frame, midi, sound);
      return { midi, features: joined(features, context, sound) };
    });
    onClassify?.(onsetCandidate, first, asked);
    const pitchCandidates = asked.map(({ midi, features }) => ({
      midi,
      belief: probabilityOf(logOdds(SECOND, features)),
    }));
    judged.push({ onsetCandidate, pitchCandidates });
    if (asked.length) yield;
  }
  return judged;
}

/** Groups of values one after the other. */
function joined(...groups: readonly ArrayLike<number>[]): Float64Array {
  const all = new Float64Array(groups.reduce((count, group) => count + group.length, 0));
  let at = 0;
  for (const group of groups) {
    all.set(group, at);
    at += group.length;
  }
  return all;
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
