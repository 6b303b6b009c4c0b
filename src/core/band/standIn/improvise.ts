import {
  gaussian,
  modulo,
  pick,
  pitchClassOf,
  secondsToBeats,
  seededRandom,
  type Beats,
  type Midi,
  type Random,
  elementAt,
} from '../../shared';
import {
  beatsPerBar,
  changesOf,
  soundingAt,
  timelineOf,
  type ChordChange,
  type Chart,
  type Timeline,
} from '../../chart';
import { cellAt, planOn, type Plan, type PlanChoice } from '../../plan';
import type { PlayedNote } from '../../analyse';
import { STEADY, type StandInProfile } from './profile';

export type ImproviseRequest = {
  readonly chart: Chart;
  readonly tempo: number;
  readonly choruses: number;
  readonly plan: PlanChoice;
  readonly seed: number;
  readonly profile?: Partial<StandInProfile>;
};

/** A solo in beats, with the timing of a hand. Same request, same solo. */
export function improvise({
  chart,
  tempo,
  choruses,
  plan: choice,
  seed,
  profile: given,
}: ImproviseRequest): PlayedNote[] {
  const timeline = timelineOf(chart, tempo);
  const plan = planOn(chart, timeline, choice).plan;
  const profile = { ...STEADY, ...given };
  const random = seededRandom(seed);
  const soloist = new Soloist({ timeline, plan, profile, random, bar: beatsPerBar(chart.meter) });
  return humanise(soloist.play(choruses), profile, tempo, random);
}

type Slot = { readonly beat: Beats; readonly midi: Midi };
type Setting = {
  readonly timeline: Timeline;
  readonly plan: Plan;
  readonly profile: StandInProfile;
  readonly random: Random;
  readonly bar: number;
};

/** Beats that a missed target stays missed: the four notes within which a landing may still resolve. */
const MISSED_FOR: Beats = 2.5;

/** Where a line means to be when a chord changes. */
type Anchor = {
  readonly change: ChordChange | null;
  readonly at: Beats;
  readonly beat: Beats;
  readonly midi: Midi;
  readonly meets: boolean;
};

/** Walks the form eighth by eighth from one anchor to the next. */
class Soloist {
  constructor(private readonly set: Setting) {}

  play(choruses: number): Slot[] {
    const anchors = this.anchors(choruses);
    const slots: Slot[] = [];
    let hand: Midi = anchors[0]?.midi ?? 60;
    const end = choruses * this.set.timeline.formBeats;
    let resting = 0;
    for (let beat = 0; beat < end - 0.25; beat += 0.5) {
      const anchor = anchors.find((one) => Math.abs(one.beat - beat) < 1e-6);
      const next = anchors.find((one) => one.beat > beat + 1e-6) ?? null;
      if (resting > 0 && !anchor) {
        resting -= 0.5;
        continue;
      }
      const gap = anchors.some(
        (one) =>
          one.beat !== one.at &&
          beat >= Math.min(one.at, one.beat) - 1e-6 &&
          beat <= Math.max(one.at, one.beat) + 1e-6,
      );
      if (!anchor && (gap || this.leavesOut(beat))) continue;
      const missed = anchors.findLast(
        (one) => one.beat <= beat && !one.meets && beat - one.beat <= MISSED_FOR,
      );
      hand = anchor ? anchor.midi : this.step(hand, beat, next, missed !== undefined);
      slots.push({ beat, midi: hand });
      resting = this.breathes(beat, next) ? 1 + Math.floor(this.set.random() * 3) * 0.5 : 0;
    }
    return slots;
  }

  private leavesOut(beat: Beats): boolean {
    const offBeat = beat % 1 !== 0;
    return (
      this.set.random() > (offBeat ? this.set.profile.density : Math.min(1, this.set.profile.density + 0.12))
    );
  }

  /** A breath never swallows the note that leads into a change. */
  private breathes(beat: Beats, next: Anchor | null): boolean {
    return (
      beat % 1 === 0.5 &&
      (!next || next.beat - beat > 1.4) &&
      this.set.random() < this.set.profile.breathe * 0.6
    );
  }

  private anchors(choruses: number): Anchor[] {
    const { timeline, profile, random } = this.set;
    let hand: Midi = Math.round((profile.lowest + profile.highest) / 2);
    const start = this.targetNear(hand, 0, true);
    const anchors: Anchor[] = [{ change: null, at: 0, beat: 0, midi: start, meets: true }];
    hand = start;
    for (const change of changesOf(timeline, choruses)) {
      const meets = random() < (profile.changes[change.to.symbol] ?? profile.meet);
      const midi = this.targetNear(hand, change.at + 0.01, meets);
      const shift = random();
      const roomy = change.until - change.at >= 2;
      let beat: number;
      if (shift < profile.early) beat = change.at - 0.5;
      else if (roomy && shift < profile.early + profile.late) beat = change.at + 0.5;
      else beat = change.at;
      anchors.push({ change, at: change.at, beat, midi, meets });
      hand = midi;
    }
    return anchors;
  }

  /**
   * The nearest target of the plan, or where it is missed the nearest tone of the home scale that is no chord
   * tone.
   */
  private targetNear(hand: Midi, beat: Beats, meets: boolean): Midi {
    const { span: stretch, chorus } = soundingAt(this.set.timeline, beat);
    const cell = cellAt(this.set.plan, stretch.index, chorus);
    const tones = stretch.chord?.tones.map((tone) => tone.pc) ?? [];
    const home = elementAt(this.set.plan.homeScales, stretch.index).pcs.filter((pc) => !tones.includes(pc));
    let wanted: readonly number[];
    if (meets && cell.targets.length > 0) wanted = cell.targets;
    else if (home.length > 0) wanted = home;
    else wanted = cell.material;
    return this.nearest(hand + Math.round(gaussian(this.set.random) * 2), wanted);
  }

  private nearest(to: Midi, pcs: readonly number[]): Midi {
    const { lowest, highest } = this.set.profile;
    let best: Midi | null = null;
    for (let midi = lowest; midi <= highest; midi++)
      if (pcs.includes(pitchClassOf(midi)) && (best === null || Math.abs(midi - to) < Math.abs(best - to)))
        best = midi;
    return best ?? to;
  }

  /**
   * The next note of the plan's material: by step or skip, leaning towards the next anchor, never standing
   * still. A player who missed a
   * target does not stumble on it a beat later: for a while the targets are left out.
   */
  private step(hand: Midi, beat: Beats, next: Anchor | null, missed: boolean): Midi {
    const { timeline, plan, profile, random } = this.set;
    const left = next ? Math.round((next.beat - beat) / 0.5) : 8;
    if (next && left === 1 && random() < profile.approach) return next.midi + pick(random, [-1, 1]);
    const { span, chorus } = soundingAt(timeline, beat);
    if (random() < profile.outside) return hand + pick(random, [-1, 1]);
    const cell = cellAt(plan, span.index, chorus);
    const material = missed ? cell.material.filter((pc) => !cell.targets.includes(pc)) : cell.material;
    const tones = beat % 1 === 0 ? (span.chord?.tones ?? []).map(({ pc }) => pc) : [];
    const isFree = (midi: Midi) =>
      midi !== hand && material.includes(pitchClassOf(midi)) && !(left === 1 && midi === next?.midi);
    const choices = reachOf(hand, profile)
      .filter(isFree)
      .map((midi) => ({ midi, weight: stepWeight(midi, { hand, left, tones, next }) }));
    return weighted(choices, random) ?? this.nearest(hand + 2, material);
  }
}

function weighted(choices: readonly { midi: Midi; weight: number }[], random: Random): Midi | null {
  let left = random() * choices.reduce((sum, { weight }) => sum + weight, 0);
  for (const { midi, weight } of choices) if ((left -= weight) <= 0) return midi;
  return choices[choices.length - 1]?.midi ?? null;
}

/** Swing, lean and spread of a hand; each note lasts nearly to the next, or to the end of its breath. */
function humanise(
  slots: readonly Slot[],
  profile: StandInProfile,
  tempo: number,
  random: Random,
): PlayedNote[] {
  const onset = ({ beat }: Slot) => {
    const swung = beat % 1 === 0 ? beat : Math.floor(beat) + profile.swing;
    return swung + secondsToBeats((profile.biasMs + gaussian(random) * profile.spreadMs) / 1000, tempo);
  };
  const onsets = slots.map(onset);
  return slots.map(({ midi }, index) => {
    const next = onsets[index + 1] ?? Infinity;
    // before a breath a note is let go; inside a phrase it lasts to the next
    const until =
      next - elementAt(onsets, index) > 1.2 ? elementAt(onsets, index) + 0.45 + 0.35 * random() : next;
    const gap = Math.min(secondsToBeats(0.012, tempo), (until - elementAt(onsets, index)) * 0.1);
    return {
      onsetBeat: elementAt(onsets, index),
      durationBeats: Math.max(0.08, until - elementAt(onsets, index) - gap),
      midi,
    };
  });
}

function distanceWeight(distance: number) {
  if (distance <= 2) return 3;
  if (distance <= 4) return 1.5;
  return 0.4;
}

/** Half steps a step may go from where the hand is. */
const REACH = 7;
const CHORD_TONE_ON_BEAT = 1.6;
/** Half steps a line can cover on its way from one eighth to the next. */
const HALF_STEPS_AN_EIGHTH = 2.2;

const reachOf = (hand: Midi, { lowest, highest }: { lowest: Midi; highest: Midi }): Midi[] => {
  const from = Math.max(lowest, hand - REACH);
  return Array.from({ length: Math.max(0, Math.min(highest, hand + REACH) - from + 1) }, (_, n) => from + n);
};

/** How likely the line goes to a note: near, on a tone of the chord, and where the next anchor stays in reach. */
function stepWeight(
  midi: Midi,
  { hand, left, tones, next }: { hand: Midi; left: number; tones: readonly number[]; next: Anchor | null },
): number {
  const ahead = next ? Math.abs(next.midi - midi) - left * HALF_STEPS_AN_EIGHTH : 0;
  const tone = tones.includes(modulo(midi, 12)) ? CHORD_TONE_ON_BEAT : 1;
  return distanceWeight(Math.abs(midi - hand)) * tone * Math.exp(-Math.max(0, ahead) * 0.9);
}
