import { pick, type Random } from '../vocabulary';
import type { BandEvent, Drum } from './events';
import { offBeat, type BandFeel } from './feel';
import { barsOf, type Tune } from './walk';

/** Time on the ride or hat, the foot on two and four, kicks and snares by the feel, a small fill into each section. */
export function drumming(tune: Tune, feel: BandFeel, random: Random): BandEvent[] {
  const late = offBeat(feel, tune.timeline.tempo);
  const events: BandEvent[] = [];
  const hit = (drum: Drum, beat: number, loudness: number) =>
    events.push({ part: 'drums', drum, beat, loudness: loudness * (0.88 + 0.12 * random()) });
  for (const { start, end, section } of barsOf(tune)) {
    for (let beat = start; beat < end - 1e-6; beat++) {
      const place = Math.round(beat - start);
      const back = place % 2 === 1;
      if (feel === 'swing') {
        hit('ride', beat, back ? 0.62 : 0.5);
        if (back) hit('ride', beat + late, 0.4);
        if (back) hit('hat', beat, 0.45);
        if (place === 0) hit('kick', beat, 0.32);
        if (random() < 0.16) hit('snare', beat + late, 0.22);
      } else if (feel === 'shuffle') {
        hit('hat', beat, back ? 0.6 : 0.5);
        hit('hat', beat + late, 0.34);
        if (back) hit('snare', beat, 0.6);
        else hit('kick', beat, 0.62);
      } else {
        hit('hat', beat, 0.5);
        hit('hat', beat + 0.5, 0.32);
        if (back) hit('snare', beat, 0.55);
        else hit('kick', beat, 0.62);
        if (place === 2 || (place === 0 && random() < 0.3)) hit('kick', beat + 0.5, 0.4);
      }
    }
    if (section) fill(end, late, random, hit);
  }
  return events;
}

function fill(end: number, late: number, random: Random, hit: (drum: Drum, beat: number, loudness: number) => void): void {
  const figure = pick(random, [[-1, late - 1], [-2 + late, -1, late - 1], [-1 + late]]);
  figure.forEach((at, index) => hit('snare', end + at, 0.36 + 0.1 * index));
}
