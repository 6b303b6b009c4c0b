import type { TakeKeeper } from './takeKeeper';

/** What a take needs of whoever keeps its sound. */
export type Keeper = Pick<TakeKeeper, 'add' | 'amend' | 'finish' | 'discard' | 'abandon' | 'safety'>;

/** For what is only listened to: its sound is let go of, block by block. */
export const KEEPS_NOTHING: Keeper = {
  add: () => undefined,
  amend: () => undefined,
  finish: () => Promise.resolve(true),
  discard: () => Promise.resolve(false),
  abandon: () => undefined,
  safety: { waitingSeconds: 0, serverAnswers: true, storageTrouble: null, refused: null },
};
