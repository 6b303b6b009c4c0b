import type { TakeSession, TakeSettings } from '@/audio/takeSession';
import type { AfterTake } from '../shell/preferences';
/** A take that is over: kept, or on its way there. */
export type FinishedTake = {
  readonly id: string;
  readonly title: string;
  readonly passes: number;
  readonly tempo: number;
  /** False while only this computer has it. */
  readonly kept: boolean;
  readonly cut: boolean;
  readonly judging: boolean;
};

/** What the screen shows. */
export type RecordScene = 'setup' | 'live' | 'waiting' | 'finished' | 'silent' | 'no-input';

export type FlowState = {
  readonly scene: RecordScene;
  /** The take that runs, or is counted in behind a result. */
  readonly session: TakeSession | null;
  readonly finished: FinishedTake | null;
  /** The next take comes by itself. */
  readonly rolling: boolean;
  readonly trouble: string | null;
};

/** What the flow needs of the world: to be given others in a test. */
export type World = {
  readonly openInput: () => Promise<boolean>;
  readonly makeSession: (settings: TakeSettings) => TakeSession;
  readonly afterTake: () => AfterTake;
  readonly review: (id: string, cut: boolean) => void;
  /** A take lies in the trash and can be brought back. */
  readonly trashed: (id: string) => void;
};
