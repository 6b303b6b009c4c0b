import type { Midi, Random } from '../../shared';
import type { BandEvent } from '../events';
import { offBeat, type BandFeel } from '../feel';
import { isStrong, stopsOf, type WalkStop, type WalkForm } from '../walk';
import type { BassNote } from './bassNote';
import { boogie, bossaBass, funkBass, straightBass } from './patterns';
import { twoFeel, walking } from './walking';

/**
 * The bass of all choruses: the root (or the slash bass) at every change, and by the feel what leads from one
 * to the next.
 */
export function bassLine(tune: WalkForm, feel: BandFeel, random: Random): BandEvent[] {
  const late = offBeat(feel, tune.timeline.tempo);
  const strong = (beat: number) => isStrong(tune.timeline, beat);
  const play: Record<BandFeel, (stop: WalkStop, hand: Midi) => BassNote[]> = {
    swing: (stop, hand) => walking(stop, hand, random, strong, late),
    waltz: (stop, hand) => walking(stop, hand, random, strong, late),
    five: (stop, hand) => walking(stop, hand, random, strong, late),
    ballad: (stop, hand) => twoFeel(stop, hand, random, strong, late),
    shuffle: (stop, hand) => boogie(stop, hand, random, late),
    straight: (stop, hand) => straightBass(stop, hand, random),
    bossa: (stop, hand) => bossaBass(stop, hand, random),
    funk: (stop, hand) => funkBass(stop, hand, random),
  };
  let hand: Midi = 36;
  return stopsOf(tune).flatMap((stop) => {
    const notes = play[feel](stop, hand);
    hand = notes[notes.length - 1]?.midi ?? hand;
    return notes.map((note) => ({ part: 'bass' as const, ...note }));
  });
}
