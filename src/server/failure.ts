import type { Problem } from '@/core/shared';

/** A request that cannot be served, with the status and a sentence for the player. */
export class Failure extends Error {
  constructor(
    readonly status: 400 | 403 | 404 | 408 | 409 | 410 | 411 | 413 | 415 | 422,
    readonly problem: Problem,
  ) {
    super(problem.message);
  }
}

export const notFound = (what: string): Failure =>
  new Failure(404, {
    code: 'not-found',
    message: `This ${what} does not exist, or has been removed.`,
    suggestion: `Open the list of ${what}s.`,
  });
