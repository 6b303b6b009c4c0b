import type { PlayedNote } from '@/core/analyse';
import { harmonyOf, LIBRARY, readChart, soundingAt, timelineOf, type Chart } from '@/core/chart';
import { unwrap, modulo, seededRandom, present } from '@/core/shared';

/** A form of 32 bars. */
export const orchard = unwrap(readChart(present(LIBRARY.find(({ id }) => id.includes('orchard'))).text));

/** Thirteen notes a bar through the chord-scales, a few outside, a few rests: as dense as anyone plays. */
export function denseLine(form: Chart, choruses: number): PlayedNote[] {
  const timeline = timelineOf(form, 120);
  const { readings } = harmonyOf(form, timeline);
  const random = seededRandom(5);
  const played: PlayedNote[] = [];
  const step = 4 / 14;
  let midi = 64;
  for (let beat = 0; beat < timeline.formBeats * choruses; beat += random() < 0.06 ? 2 * step : step) {
    const pcs = present(readings[soundingAt(timeline, beat).span.index]).scale.pcs;
    let to = midi + (random() < 0.5 ? 1 : -1) * (1 + Math.floor(random() * 4));
    if (random() < 0.85) while (!pcs.includes(modulo(to, 12))) to++;
    midi = withinTheNeck(to);
    played.push({ onsetBeat: beat, durationBeats: step, midi });
  }
  return played;
}

function withinTheNeck(to: number) {
  if (to > 80) return to - 12;
  if (to < 50) return to + 12;
  return to;
}
