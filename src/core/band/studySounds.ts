import { modulo, type Beats, type Midi, type PitchClass } from '../shared';
import { rootPc, type Chord, type Scale } from '../music';
import { guideToneLineOf, timelineOf, type Chart } from '../chart';
import type { PlayedNote } from '../analyse';
import { voiceLed } from './keys/voicing';
import type { BandEvent } from './events';

/** Something to be heard: a band's chords, and a guitar's line over them, in beats. */
export type StudySound = {
  readonly events: readonly BandEvent[];
  readonly line: readonly PlayedNote[];
  readonly beats: Beats;
};

const LOUD = 0.62;

/** Root in the bass and the chord's tones in a keyboard's middle. */
function held(
  chord: Chord,
  beat: Beats,
  beats: Beats,
  hand: readonly Midi[] = [57, 60, 64, 67],
): { events: BandEvent[]; hand: Midi[] } {
  const voiced = voiceLed(chord, hand);
  const bass = 36 + modulo(rootPc(chord) - 36, 12);
  return {
    hand: voiced,
    events: [
      { part: 'bass', beat, beats, midi: bass < 40 ? bass + 12 : bass, loudness: 0.7 },
      ...voiced.map((midi): BandEvent => ({ part: 'chords', beat, beats, midi, loudness: LOUD })),
    ],
  };
}

/** The chord alone, struck once and once broken from the bottom. */
export function chordSound(chord: Chord): StudySound {
  const { events } = held(chord, 0, 4);
  let last = 47;
  const line = chord.tones.map((tone, index): PlayedNote => {
    last += modulo(tone.pc - last, 12) || 12;
    return { onsetBeat: 2 + index * 0.5, durationBeats: 1, midi: last };
  });
  return { events, line, beats: 5 };
}

/** The scale up an octave and down to a target, over the chord held. */
export function scaleSound(chord: Chord, scale: Pick<Scale, 'pcs'>, target: PitchClass | null): StudySound {
  const from = 52 + modulo(rootPc(chord) - 52, 12);
  const up = [...scale.pcs].map((pc) => from + modulo(pc - from, 12)).sort((a, b) => a - b);
  const notes = [...up, from + 12, ...[...up].reverse()];
  const end = target === null ? [] : [from + modulo(target - from, 12)];
  const line = [...notes, ...end].map((midi, index, all): PlayedNote => ({
    onsetBeat: index * 0.5,
    durationBeats: index === all.length - 1 ? 2 : 0.5,
    midi,
  }));
  const beats = line.length * 0.5 + 2;
  return { events: held(chord, 0, beats).events, line, beats };
}

/** The guide-tone thread over the whole form: both voices held, roots below. */
export function threadSound(chart: Chart): StudySound {
  const timeline = timelineOf(chart, 120);
  const stops = guideToneLineOf(timeline.chordSpans.map(({ chord }) => chord));
  const events: BandEvent[] = [];
  timeline.chordSpans.forEach(({ chord, start, end }, index) => {
    const stop = stops[index];
    if (!chord || !stop) return;
    events.push({
      part: 'bass',
      beat: start,
      beats: (end - start) * 0.9,
      midi: 40 + modulo(rootPc(chord) - 40, 12),
      loudness: 0.6,
    });
    for (const { midi } of stop)
      events.push({ part: 'chords', beat: start, beats: end - start, midi, loudness: LOUD });
  });
  return { events, line: [], beats: timeline.formBeats };
}

/** Chords of a chart held under a line: what a plan sounds like. */
export function chordsUnder(chart: Chart, line: readonly PlayedNote[]): StudySound {
  const timeline = timelineOf(chart, 120);
  let hand: Midi[] = [57, 60, 64, 67];
  const events = timeline.chordSpans.flatMap(({ chord, start, end }) => {
    if (!chord) return [];
    const laid = held(chord, start, (end - start) * 0.95, hand);
    hand = laid.hand;
    return laid.events;
  });
  return { events, line, beats: timeline.formBeats };
}
