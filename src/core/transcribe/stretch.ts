import type { Decibels } from '../vocabulary';
import { EvidenceReader, type Claim, type SightReader } from './evidence';
import type { Frame } from './frames';
import { settleGlides } from './glides';
import { judge, unpack } from './judge';
import { FITTED } from './judgeWeights';
import { momentsOf, type Moment } from './moments';
import { soundsOf, type Sound } from './notes';
import { onsetsOf, riseAt } from './onsets';
import { pathOf, type PitchTrack } from './path';
import type { RingingReader } from './ringing';
import { strikesOf, type Judged, type Strike } from './strikes';

const NETWORKS = FITTED.map(unpack);

/** Below this a frame has no pitch: far under the playing level, or less than any input gives. */
const GATE_UNDER_PLAYING: Decibels = 42;
const LOWEST_GATE: Decibels = -92;
/** A take that is nowhere louder is silence and the noise of its input. */
export const SILENT_TAKE: Decibels = -72;
/** Peaks of the flux this near are one attack. */
const SAME_ATTACK = 5;
const STRUCK_RISE: Decibels = 2.5;

/** Part of a take. Frames count from its first one, which is frame `from` of the take. */
export type Stretch = {
  readonly from: number;
  readonly frames: readonly Frame[];
  /** Level of the take, of what is known of it. */
  readonly playing: Decibels;
  /** Frames at which a known band strikes. */
  readonly bandStrikes?: ReadonlySet<number>;
};

/** What looks at the sound itself, by frames of the take. */
export type Ears = { readonly sights: SightReader; readonly ringing: RingingReader };

/** What was heard in a stretch, in its own frames. */
export type Heard = {
  readonly strikes: readonly Strike[];
  readonly sounds: readonly Sound[];
  readonly track: PitchTrack;
};

/** Told what the judge is asked at a moment, in frames of the stretch. */
export type Asked = (moment: Moment, claims: readonly Claim[]) => void;

/** Work that can be done bit by bit: between bits other things get their turn. */
export type Bits<Result> = Generator<undefined, Result, undefined>;

/**
 * Hears a stretch: asks at every moment what begins there, draws the one best path through what is believed, and reads the notes from it.
 * @param until moments from this frame on are left alone, for too little is known of what follows them
 */
export function* hear(
  stretch: Stretch,
  { sights, ringing }: Ears,
  until = stretch.frames.length,
  asked?: Asked,
): Bits<Heard> {
  const { from, frames, playing } = stretch;
  if (playing <= SILENT_TAKE)
    return { strikes: [], sounds: [], track: new Float64Array(frames.length).fill(NaN) };
  const gate = Math.max(LOWEST_GATE, playing - GATE_UNDER_PLAYING);
  const first = pathOf(frames, onsetsOf(frames), gate);
  yield;
  const evidence = new EvidenceReader(sights, frames, first, playing, from);
  const judged: Judged[] = [];
  for (const { moment, previous, next, soft } of among(momentsOf(frames, first), frames.length)) {
    if (moment.frame >= until) break;
    const claims = evidence.claimsAt(moment, previous, next, soft);
    asked?.(moment, claims);
    judged.push({
      moment,
      claims: claims.map(({ midi, features }) => ({ midi, belief: judge(NETWORKS, features) })),
    });
    yield;
  }
  const believed = strikesOf(judged, stretch.bandStrikes);
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
  return { strikes, sounds: soundsOf(strikes, track, frames, ringing.from(from)), track };
}

/** Each moment with the clear moments around it and the next of any kind, in frames. */
function among(
  moments: readonly Moment[],
  length: number,
): { moment: Moment; previous: number; next: number; soft: number }[] {
  const clear = moments.filter((moment) => moment.clear).map(({ frame }) => frame);
  let passed = 0;
  return moments.map((moment, index) => {
    while (passed < clear.length && clear[passed]! < moment.frame) passed++;
    const previous = clear[passed - 1] ?? 0;
    let later = passed;
    while (later < clear.length && clear[later]! - moment.frame <= SAME_ATTACK) later++;
    let any = index + 1;
    while (any < moments.length && moments[any]!.frame - moment.frame <= SAME_ATTACK) any++;
    return { moment, previous, next: clear[later] ?? length, soft: moments[any]?.frame ?? length };
  });
}
