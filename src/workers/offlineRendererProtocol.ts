import type { StandInCharacter, StandInProfile } from '@/core/band';
import type { PlayedNote } from '@/core/analyse';
import type { Pulse } from '@/core/align';
import type { Pace } from '@/core/chart';
import type { PlanWords } from '@/core/plan';

/** What is asked of the studio worker: the band, a solo of the stand-in player, or what Study lets be heard. */
export type OfflineRequest = {
  readonly chartText: string;
  readonly tempo: number;
  readonly choruses: number;
  readonly rate: number;
  readonly seed: number;
} &
  /** The band over a chart as the editor and the library let it be heard. */
  (
    | { readonly type: 'band'; readonly countInBars: number; readonly pace?: Pace }
    | {
        readonly type: 'solo';
        readonly plan: PlanWords;
        readonly profile?: Partial<StandInProfile>;
        readonly character?: StandInCharacter;
        readonly pace?: Pace;
        readonly leadSeconds: number;
      }
    /** Notes as a plucked string plays them: what a take without its sound is heard by. */
    | {
        readonly type: 'line';
        readonly notes: readonly PlayedNote[];
        readonly pace?: Pace;
        readonly leadSeconds: number;
      }
    | { readonly type: 'study'; readonly what: StudyAsk }
  );

/** What Study lets be heard. Bars count from 1; `stretch` is a chord of the form. */
export type StudyAsk =
  | { readonly kind: 'chord'; readonly stretch: number }
  | { readonly kind: 'note'; readonly stretch: number; readonly pc: number }
  | { readonly kind: 'scale'; readonly stretch: number; readonly plan: PlanWords }
  | { readonly kind: 'thread' }
  | {
      readonly kind: 'plans';
      readonly bars: readonly [number, number];
      readonly plans: readonly PlanWords[];
    };

/** Asks for the pulse of a recording: its tempo and bar 1. */
export type PulseRequest = { readonly type: 'pulse'; readonly samples: Float32Array; readonly rate: number };

export type RenderReply =
  { readonly samples: Float32Array } | { readonly pulse: Pulse | null } | { readonly refused: string };
