import { gaussian, secondsToBeats, seededRandom, type Random, elementAt } from '../../shared';
import { beatsPerBar, timelineOf, type Chart } from '../../chart';
import { planOn, type PlanChoice } from '../../plan';
import type { PlayedNote } from '../../analyse';
import { STEADY, type StandInProfile } from './profile';
import { soloOf, type SoloNote } from './solo';

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
  const notes = soloOf({
    timeline,
    plan,
    profile,
    random,
    bar: beatsPerBar(chart.meter),
    tempo,
    choruses,
    seed,
  });
  return humanise(notes, profile, tempo, random);
}

/** Before a breath a note is let go by so much of its length; inside a phrase it lasts to the next. */
const LET_GO = 0.15;

/** Swing, lean and spread of a hand. */
function humanise(
  notes: readonly SoloNote[],
  profile: StandInProfile,
  tempo: number,
  random: Random,
): PlayedNote[] {
  const swung = (beat: number) =>
    Math.abs((beat % 1) - 0.5) < 1e-6 ? Math.floor(beat) + profile.swing : beat;
  const onsets = notes.map(
    ({ beat }) =>
      swung(beat) + secondsToBeats((profile.biasMs + gaussian(random) * profile.spreadMs) / 1000, tempo),
  );
  return notes.map(({ midi, beat, duration }, index) => {
    const onset = elementAt(onsets, index);
    const next = onsets[index + 1] ?? Infinity;
    const end = swung(beat + duration);
    const isLegato = next - end < 0.25;
    const until = isLegato ? next : Math.min(next, end - LET_GO * duration * random());
    const gap = Math.min(secondsToBeats(0.012, tempo), (until - onset) * 0.1);
    return { onsetBeat: onset, durationBeats: Math.max(0.08, until - onset - gap), midi };
  });
}
