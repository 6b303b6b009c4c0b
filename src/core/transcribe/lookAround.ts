import { hzToMidi, median, midiToHz, type Midi, type Seconds } from '../shared';
import type { PitchCandidate } from './features';
import { FRAME_SECONDS, framesOf } from './frames';
import type { OnsetCandidate } from './onsetCandidates';

/** A pitch that may have begun, with what was said of it so far: the logarithm of its odds. */
export type LookedAt = PitchCandidate & { readonly leaning: number };

/** A moment and what may have begun there. */
export type LookedAtMoment = {
  readonly onsetCandidate: OnsetCandidate;
  readonly candidates: readonly LookedAt[];
};

/** What a look all but rules out is not looked at again: odds of one to seven hundred. */
export const WORTH_A_LOOK = -6.5;
const isWorthALook = ({ leaning }: LookedAt): boolean => leaning > WORTH_A_LOOK;
/** Odds are not told apart beyond this. */
const SUREST = 8;
const UNIT = 4;
const ABSENT = -SUREST / UNIT;
/** Strings of one stroke may be found this far apart. */
const ONE_STROKE = framesOf(0.036);
const SAME_PITCH: Midi = 0.75;
const NEAR_PITCH: Midi = 0.5;
/** Pitches that are taken for one another, or struck together. */
const INTERVALS: readonly Midi[] = [
  -28, -24, -19, -12, -9, -8, -7, -5, -4, -3, 3, 4, 5, 7, 8, 9, 12, 19, 24, 28,
];
/** Gaps to other moments, each range from the one before. */
const GAPS = [0.035, 0.065, 0.12, 0.25].map(framesOf);
const NEARBY = framesOf(2.5);
const FARTHEST: Seconds = 3;

/**
 * What stands around each pitch that may have begun: what else is believed at the same stroke and by which
 * interval, whether a sum or a difference of two surer pitches would explain this one, the same pitch and any pitch
 * shortly before and after, the line's last and next note, and how many strings usually sound together here. A pitch
 * judged by itself knows nothing of this; judged again with it, each answer may rest on all the others (stacked
 * generalisation: Wolpert, Neural Networks, 1992).
 */
export class LookAround {
  private readonly likely: readonly { readonly frame: number; readonly midi: Midi }[];

  /** @param moments in order of their frames */
  constructor(private readonly moments: readonly LookedAtMoment[]) {
    this.likely = moments.flatMap(({ onsetCandidate: { frame }, candidates }) =>
      candidates.filter(({ leaning }) => leaning > 0).map(({ midi }) => ({ frame, midi })),
    );
  }

  /** `CONTEXT_VALUES` numbers for each pitch of a moment that is worth another look. */
  *contextsAt(index: number): Generator<{ candidate: LookedAt; context: readonly number[] }> {
    const { onsetCandidate, candidates } = this.moments[index]!;
    if (!candidates.some(isWorthALook)) return;
    const stroke = this.stroke(index);
    const around = this.around(index);
    const company = this.company(onsetCandidate.frame);
    const best = strongest(candidates);
    const likely = candidates.filter(({ leaning }) => leaning > 0).length;
    for (const candidate of candidates) {
      if (!isWorthALook(candidate)) continue;
      const { midi, leaning } = candidate;
      const others = stroke.filter((other) => Math.abs(other.midi - midi) > NEAR_PITCH);
      const context = [
        odds(leaning),
        best,
        likely / 4,
        candidates.filter((other) => other.leaning > leaning).length / 5,
        ...INTERVALS.map((interval) => strongest(others, midi + interval)),
        ...mixtures(others, midi),
        ...around.flatMap((group) => [strongest(group, midi, SAME_PITCH), strongest(group)]),
        ...this.line(onsetCandidate.frame, midi),
        company,
      ];
      yield { candidate, context };
    }
  }

  /** All that may have begun with a moment's own. */
  private stroke(index: number): LookedAt[] {
    return [...this.within(index, ONE_STROKE)].flatMap(({ candidates }) => candidates.filter(isWorthALook));
  }

  /** Other moments by how far they lie before and after. */
  private around(index: number): LookedAt[][] {
    const { frame } = this.moments[index]!.onsetCandidate;
    const groups: LookedAt[][] = [...GAPS, ...GAPS].map(() => []);
    for (const moment of this.within(index, GAPS.at(-1)!)) {
      const gap = moment.onsetCandidate.frame - frame;
      if (gap === 0) continue;
      const range = GAPS.findIndex((most) => Math.abs(gap) <= most);
      groups[range + (gap > 0 ? GAPS.length : 0)]!.push(...moment.candidates);
    }
    return groups;
  }

  private *within(index: number, reach: number): Generator<LookedAtMoment> {
    const { frame } = this.moments[index]!.onsetCandidate;
    let first = index;
    while (first > 0 && frame - this.moments[first - 1]!.onsetCandidate.frame <= reach) first--;
    for (let at = first; at < this.moments.length; at++) {
      if (this.moments[at]!.onsetCandidate.frame - frame > reach) return;
      yield this.moments[at]!;
    }
  }

  /** Steps from the last and to the next likely note, how long ago and how soon, and where the line lies. */
  private line(frame: number, midi: Midi): number[] {
    const { likely } = this;
    let next = lowerBound(likely, frame + ONE_STROKE + 1);
    let last = next - 1;
    while (last >= 0 && likely[last]!.frame >= frame - ONE_STROKE) last--;
    while (next < likely.length && likely[next]!.frame <= frame + ONE_STROKE) next++;
    const near = likely
      .slice(lowerBound(likely, frame - NEARBY), lowerBound(likely, frame + NEARBY))
      .map((note) => note.midi);
    return [
      ...[likely[last], likely[next]].flatMap((note) => [
        note ? bounded((note.midi - midi) / 12) : 0,
        note ? Math.log10((Math.abs(note.frame - frame) + 1) * FRAME_SECONDS) : Math.log10(FARTHEST),
      ]),
      bounded((midi - (median(near) ?? midi)) / 12),
    ];
  }

  /** How many strings sound together at the strokes around, on average, less one. */
  private company(frame: number): number {
    const from = lowerBound(this.likely, frame - NEARBY);
    const to = lowerBound(this.likely, frame + NEARBY);
    let [strokes, notes, last] = [0, 0, -Infinity];
    for (let at = from; at < to; at++) {
      const note = this.likely[at]!;
      if (Math.abs(note.frame - frame) <= ONE_STROKE) continue;
      notes++;
      if (note.frame - last > ONE_STROKE) {
        strokes++;
        last = note.frame;
      }
    }
    return strokes ? notes / strokes - 1 : 0;
  }
}

/** How many values tell what stands around a pitch. */
export const CONTEXT_VALUES = 4 + INTERVALS.length + 3 + 4 * GAPS.length + 5 + 1;

const odds = (leaning: number): number => Math.max(-SUREST, Math.min(SUREST, leaning)) / UNIT;
const bounded = (octaves: number): number => Math.max(-3, Math.min(3, octaves));

/** The surest of some, at a pitch or at any. */
function strongest(among: readonly LookedAt[], midi?: Midi, width = NEAR_PITCH): number {
  let most = ABSENT;
  for (const other of among)
    if (midi === undefined || Math.abs(other.midi - midi) <= width)
      most = Math.max(most, odds(other.leaning));
  return most;
}

/** How sure the less sure is of two pitches whose difference, sum, or twice the lower less the upper is this one: what a drive makes of two strings. */
function mixtures(others: readonly LookedAt[], midi: Midi): [number, number, number] {
  const made: [number, number, number] = [ABSENT, ABSENT, ABSENT];
  const sounding = others
    .filter(({ leaning }) => leaning > -3)
    .map((other) => ({ ...other, hz: midiToHz(other.midi) }));
  for (const lower of sounding)
    for (const upper of sounding) {
      if (upper.hz <= lower.hz * 1.03) continue;
      const both = odds(Math.min(lower.leaning, upper.leaning));
      [upper.hz - lower.hz, upper.hz + lower.hz, 2 * lower.hz - upper.hz].forEach((hz, kind) => {
        if (hz > 20 && Math.abs(hzToMidi(hz) - midi) < NEAR_PITCH) made[kind] = Math.max(made[kind]!, both);
      });
    }
  return made;
}

/** The first of those in order whose frame is not before. */
function lowerBound(notes: readonly { readonly frame: number }[], frame: number): number {
  let [low, high] = [0, notes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (notes[middle]!.frame < frame) low = middle + 1;
    else high = middle;
  }
  return low;
}
