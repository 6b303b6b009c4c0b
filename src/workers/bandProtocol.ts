import type { BandPart, ChordInstrument, ClickBeats, DropOut } from '@/core/band';
import type { Pace } from '@/core/chart';

/** Everything that decides what the band plays in a take: the same score is the same sound. */
export type Score = {
  readonly chartText: string;
  readonly choruses: number;
  readonly pace: Pace;
  readonly countInBars: number;
  readonly seed: number;
  readonly click: ClickBeats;
  readonly dropOut: DropOut;
  readonly chords: ChordInstrument;
};

export type BandRequest =
  | { readonly type: 'open'; readonly rate: number }
  /** `id` names the score in its windows: another may be arranged while this one still plays. */
  | { readonly type: 'score'; readonly id: number; readonly score: Score }
  /** A stretch of the score in samples from its first click, half-open. */
  | { readonly type: 'window'; readonly id: number; readonly from: number; readonly to: number };

export type Parts = Readonly<Record<BandPart, Float32Array>>;
export type BandReply =
  | {
      readonly type: 'arranged';
      /** Samples before bar 1 and in all. */ readonly lead: number;
      readonly length: number;
    }
  | { readonly type: 'window'; readonly from: number; readonly parts: Parts }
  | { readonly type: 'refused'; readonly message: string };
