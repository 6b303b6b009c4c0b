import type { Beats, Midi, Slur } from '../../shared';
import type { IntervalName } from '../../music';
import type { Flag, TensionLevel, NoteFunction, NoteSpan, Tier, Voice } from '../notes/voice';

/** A note of the report (docs/architecture.md, “Report”). */
export type NoteReport = {
  readonly index: number;
  /** Without the take's lean (T1.6). */
  readonly onsetBeat: Beats;
  /** As it was played, where a lean was taken out. */
  readonly playedBeat?: Beats;
  readonly durationBeats: Beats;
  readonly midi: Midi;
  /** How likely it is that the note was played as it is written, 0 to 1; absent where it is not in question. */
  readonly confidence?: number;
  /** The lowest fret of the hand, where the player has said it. */
  readonly position?: number;
  /** Where the fretting hand began it: slurred to the note before. */
  readonly slur?: Slur;
  readonly event: number;
  readonly top: boolean;
  readonly chord: string | null;
  readonly interval: IntervalName | null;
  readonly tier: Tier;
  readonly height: TensionLevel;
  readonly inPlan: boolean;
  readonly function: NoteFunction;
  readonly chromatic?: true;
  readonly appoggiatura?: true;
  readonly from?: number;
  readonly flags: readonly Flag[];
  readonly targetIndex?: number;
  readonly spans: readonly NoteSpan[];
};

/** A note of the report with what later steps need and the contract does not print. */
export type JudgedNote = {
  readonly note: NoteReport;
  readonly voice: Voice;
  /** Does it begin on a strong beat? */
  readonly isStrong: boolean;
  /** Where the chord it belongs to begins. */
  readonly homeStart: Beats;
  /** Index of the chord span under each of its spans. */
  readonly chordSpans: readonly number[];
};
