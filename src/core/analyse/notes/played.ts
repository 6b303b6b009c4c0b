import type { Attack, Beats, Cents, Midi, Seconds } from '../../shared';

/** A bend as it was heard: seconds from the onset, cents above the note's `midi`. */
export type BendCurve = readonly (readonly [Seconds, Cents])[];
/** Where a slide came from and how long the glide took. */
export type Slide = { readonly fromMidi: Midi; readonly seconds: Seconds };

export type PhraseBorder = 'begins' | 'goes-on';

/** One note as it is handed to the analysis, in beats from bar 1 of the first chorus. */
export type PlayedNote = {
  readonly onsetBeat: Beats;
  readonly durationBeats: Beats;
  readonly midi: Midi;
  readonly cents?: Cents | undefined;
  readonly bend?: BendCurve | undefined;
  readonly slide?: Slide | undefined;
  readonly attack?: Attack | undefined;
  readonly confidence?: number | undefined;
  /** The player's own phrase border (T10.7): a phrase begins with this note, or goes on through it. */
  readonly phrase?: PhraseBorder | undefined;
  /** Where the player says it was played: the lowest fret of the hand. Pitches cannot tell (T9.3). */
  readonly position?: number | undefined;
  /** Peak level in dBFS, where the note was heard. */
  readonly level?: number | undefined;
};
