import type { JudgedTake } from './judgeRequest';

/**
 * What a judging thread answers, one request at a time; `lost` where the thread itself did not come to an end.
 */
export type JudgingAnswer =
  { readonly judged: JudgedTake } | { readonly error: string; readonly lost?: true };

/** A sentence for the player on what went wrong. */
export const failed = (error: unknown): string => {
  const why = error instanceof Error ? error.message : String(error);
  return `Judging it failed: ${why.replace(/\.$/, '')}.`;
};
