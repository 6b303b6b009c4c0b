import type { Mix, Profile } from '@/core/band';
import type { PlanId } from '@/core/plan';

/** What is asked of the studio worker: the band as audio, or a solo of the stand-in player. */
export type StudioRequest = {
  readonly chartText: string;
  readonly tempo: number;
  readonly choruses: number;
  readonly rate: number;
  readonly seed: number;
} & (
  | { readonly type: 'band'; readonly countInBars: number; readonly mix?: Mix }
  | { readonly type: 'solo'; readonly planId: PlanId; readonly home?: string; readonly profile?: Partial<Profile>; readonly leadSeconds: number }
);

export type StudioReply = { readonly samples: Float32Array };
