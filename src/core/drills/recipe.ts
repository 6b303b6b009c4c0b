import type { Midi, Semitones } from '../shared';
import type { Aim } from './aims';
import type { Motif } from './rules/motif';
import type { TradeRule } from './rules/trade';

/** How the notes before a change lead into it, in semitones up: the last of them is the landing. */
export type LeadIn = readonly (readonly number[])[];

/** How an example of a drill is made: what it lands on, what it is made of, how it leads in, and its rhythm. */
export type Recipe = {
  readonly land: readonly Aim[];
  readonly material: 'chord' | 'plan';
  readonly lead?: LeadIn;
  /** Tones are led into inside the bar as well as at the change, where any chord tone may stand. */
  readonly inside?: true;
  /** Every fourth time another way in, counted from `phase`: some changes have no room for the first one. */
  readonly otherLead?: LeadIn;
  readonly phase?: number;
  /**
   * Notes in the lead-in may lie outside the material; `only`: they lie outside the chord they are played
   * over.
   */
  readonly chromatic?: true | 'only';
  /** Changes want a note of their own wherever the line is playing. */
  readonly lands?: true;
  readonly rhythm: 'eighths' | 'running' | 'quarters' | 'triplets' | 'anticipate' | 'offbeats' | 'phrases';
  /** Nearly all notes of one value. */
  readonly plain?: true;
  /** No phrase takes up the rhythm of the one before it. */
  readonly varies?: true;
  /** For phrases: the beat they begin on, from 1, how long they are and the rest after them, in bars. */
  readonly phrase?: {
    readonly beat: number;
    readonly bars: number;
    readonly rest: number;
    /** Each phrase a beat later than the one before, round the bar. */ readonly turn?: true;
    /** Begun earlier or later than that, each pair of phrases in another place. */
    readonly varied?: true;
  };
  /** Four notes that move by step, up an arpeggio, or in threes of the scale. */
  readonly shape?: 'arpeggio' | 'run' | 'thirds';
  /** The shape is that of another chord, laid over the one that sounds. */
  readonly borrows?: true;
  /** The lowest fret of the one place it is played in. */
  readonly place?: number;
  /** Landings are slid into from a fret or two below. */
  readonly glide?: true;
  /** Every phrase ends on the root or the third, held. */
  readonly rests?: true;
  /** Every phrase ends on one of these. */
  readonly endsOn?: readonly Aim[];
  /** The lowest and the highest pitch. */
  readonly register?: readonly [Midi, Midi];
  /** No move inside a phrase is wider. */
  readonly widest?: Semitones;
  /** Low phrases and high phrases in turn. */
  readonly wide?: true;
  /** Once a bar a scale tone that is no colour of the chord. */
  readonly high?: true;
  /** Out of the scale in every so many-th bar. */
  readonly out?: number;
  /** What is written out bar by bar and not searched for. */
  readonly written?: WrittenExample;
};

/**
 * Figures that are laid into each bar of one chord, phrases of one shape, and bars of chords between bars of
 * line.
 */
export type WrittenExample =
  | { readonly kind: 'pattern'; readonly cell: 2 | 3 | 4 }
  | { readonly kind: 'up-and-down'; readonly up: 'arpeggio' | 'scale-run' }
  | { readonly kind: 'motif'; readonly like?: Motif }
  | TradeRule;
