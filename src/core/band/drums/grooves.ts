import type { Random } from '../../shared';
import type { Drum } from '../events';
import type { BandFeel } from '../feel';

export type DrumHit = (drum: Drum, beat: number, loudness: number) => void;
/**
 * One bar of time. `late` is where the feel's off-beat eighth falls; `backbeat` tells the second and fourth of
 * a bar.
 */
export type Groove = (
  bar: {
    readonly start: number;
    readonly beats: number;
    readonly late: number;
    readonly brushes: boolean;
    readonly random: Random;
  },
  hit: DrumHit,
) => void;

const eachBeat = (start: number, beats: number, work: (beat: number, place: number) => void) => {
  for (let place = 0; place < beats - 1e-6; place++) work(start + place, place);
};

/**
 * Ride (or the brush) in quarters and skips, the foot on two and four, soft kicks, a comment of the snare here
 * and there.
 */
const swing: Groove = ({ start, beats, late, brushes, random }, hit) =>
  eachBeat(start, beats, (beat, place) => {
    const back = place % 2 === 1;
    if (brushes) {
      hit('brush-sweep', beat, back ? 0.3 : 0.36);
      if (back) {
        hit('brush-tap', beat, 0.5);
        hit('brush-tap', beat + late, 0.3);
      }
    } else {
      hit('ride', beat, back ? 0.62 : 0.5);
      if (back) hit('ride', beat + late, 0.4);
      if (random() < 0.16) hit('snare', beat + late, 0.2);
    }
    if (back) hit('hat-foot', beat, 0.45);
    if (place === 0 || random() < 0.12) hit('kick', beat, 0.3);
  });

const ballad: Groove = ({ start, beats, late, random }, hit) =>
  eachBeat(start, beats, (beat, place) => {
    hit('brush-sweep', beat, place % 2 ? 0.26 : 0.34);
    if (place % 2 === 1) hit('brush-tap', beat, 0.34);
    if (place % 2 === 1) hit('hat-foot', beat, 0.3);
    if (place === 0) hit('kick', beat, 0.24);
    if (random() < 0.14) hit('brush-tap', beat + late, 0.2);
  });

const waltz: Groove = ({ start, beats, late, brushes, random }, hit) =>
  eachBeat(start, beats, (beat, place) => {
    hit(brushes ? 'brush-sweep' : 'ride', beat, place === 0 ? 0.56 : 0.46);
    if (place === 1) hit(brushes ? 'brush-tap' : 'ride', beat + late, 0.36);
    if (place > 0) hit('hat-foot', beat, place === 1 ? 0.42 : 0.32);
    if (place === 0) hit('kick', beat, 0.4);
    if (random() < 0.12) hit(brushes ? 'brush-tap' : 'snare', beat + late, 0.2);
  });

/** Three and two: the second group begins on the fourth beat. */
const five: Groove = ({ start, beats, late, brushes, random }, hit) =>
  eachBeat(start, beats, (beat, place) => {
    hit(brushes ? 'brush-sweep' : 'ride', beat, place === 0 || place === 3 ? 0.58 : 0.46);
    if (place === 1 || place === 3) hit(brushes ? 'brush-tap' : 'ride', beat + late, 0.36);
    if (place === 0 || place === 3) hit('kick', beat, place === 0 ? 0.42 : 0.34);
    if (place === 2 || place === 4) hit('hat-foot', beat, 0.42);
    if (random() < 0.12) hit('snare', beat + late, 0.2);
  });

const shuffle: Groove = ({ start, beats, late }, hit) =>
  eachBeat(start, beats, (beat, place) => {
    hit('hat', beat, place % 2 ? 0.6 : 0.5);
    hit('hat', beat + late, 0.34);
    hit(place % 2 ? 'snare' : 'kick', beat, 0.6);
  });

const straight: Groove = ({ start, beats, random }, hit) =>
  eachBeat(start, beats, (beat, place) => {
    hit('hat', beat, 0.5);
    hit('hat', beat + 0.5, 0.32);
    hit(place % 2 ? 'snare' : 'kick', beat, place % 2 ? 0.55 : 0.62);
    if (place === 2 || (place === 0 && random() < 0.3)) hit('kick', beat + 0.5, 0.4);
  });

/** The rim's two-bar figure is told apart by which bar it is; kick on one, two-and, three, four-and. */
const bossa: Groove = ({ start, beats }, hit) => {
  eachBeat(start, beats, (beat, place) => {
    hit('shaker', beat, 0.46);
    hit('shaker', beat + 0.5, 0.34);
    if (place % 2 === 0) hit('kick', beat, 0.42);
    if (place % 2 === 1) {
      hit('kick', beat + 0.5, 0.3);
      hit('hat-foot', beat, 0.34);
    }
  });
  const second = Math.round(start / Math.max(1, beats)) % 2 === 1;
  for (const at of second ? [1, 2.5] : [0, 1.5, 3]) if (at < beats) hit('rim', start + at, 0.5);
};

const funk: Groove = ({ start, beats, random }, hit) => {
  eachBeat(start, beats, (beat, place) => {
    for (const sixteenth of [0, 0.25, 0.5, 0.75]) hit('hat', beat + sixteenth, sixteenthAccent(sixteenth));
    if (place % 2 === 1) hit('snare', beat, 0.66);
    else hit('kick', beat, 0.66);
    if (place % 2 === 1 && random() < 0.5) hit('snare', beat + 0.75, 0.2);
    if (place === 1) hit('kick', beat + 0.75, 0.44);
    if (place === 2 && random() < 0.7) hit('kick', beat + 0.5, 0.5);
  });
  if (random() < 0.35) hit('hat-open', start + beats - 0.5, 0.36);
};

export const GROOVES: Record<BandFeel, Groove> = {
  swing,
  ballad,
  waltz,
  five,
  shuffle,
  straight,
  bossa,
  funk,
};

function sixteenthAccent(sixteenth: number) {
  if (sixteenth === 0) return 0.52;
  if (sixteenth === 0.5) return 0.42;
  return 0.26;
}
