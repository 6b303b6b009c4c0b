import type { Beats, Midi } from '../shared';

export type Drum =
  | 'ride'
  | 'ride-bell'
  | 'crash'
  | 'hat'
  | 'hat-open'
  | 'hat-foot'
  | 'kick'
  | 'snare'
  | 'rim'
  | 'brush-tap'
  | 'brush-sweep'
  | 'tom-high'
  | 'tom-low'
  | 'shaker'
  | 'click'
  | 'click-accent';

/** One thing the band does; beats from bar 1 of the first chorus, negative in the count-in. Loudness 0 to 1. */
export type BandEvent =
  | {
      readonly part: 'bass' | 'chords';
      readonly beat: Beats;
      readonly beats: Beats;
      readonly midi: Midi;
      readonly loudness: number;
    }
  | {
      readonly part: 'drums' | 'click';
      readonly beat: Beats;
      readonly drum: Drum;
      readonly loudness: number;
    };

export type BandPart = BandEvent['part'];
export const BAND_PARTS: readonly BandPart[] = ['drums', 'bass', 'chords', 'click'];
