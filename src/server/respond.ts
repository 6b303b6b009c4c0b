import type { Problem } from '@/core/shared';
import { Failure } from './failure';

/**
 * Runs a handler; failures become JSON with their status, everything else a 500 that tells nothing of the
 * inside.
 */
export async function respond(work: () => Promise<Response | object>): Promise<Response> {
  try {
    const result = await work();
    return result instanceof Response ? result : Response.json(result);
  } catch (error) {
    const { problem, status } = failureIn(error);
    return Response.json({ error: problem }, { status });
  }
}

function failureIn(error: unknown): { readonly problem: Problem; readonly status: number } {
  if (error instanceof Failure) return error;
  console.error(error);
  return {
    status: 500,
    problem: {
      code: 'server',
      message: 'Something went wrong here; nothing was changed.',
      suggestion: 'Try again.',
    },
  };
}

/** How an answer in steps is asked for. */
const IN_STEPS = 'application/x-ndjson';

/** Does this request want to hear what is being done? */
export const wantsSteps = (request: Request): boolean => request.headers.get('accept') === IN_STEPS;

/** What long work is busy with, and how much of that is done, 0 to 1. */
export type WorkStep = { readonly phase: string; readonly share?: number };

/**
 * Runs a handler that takes long: one JSON object a line for each step as it is reached, the last one what came of
 * the work, or its `error`. The work is told by its signal when nobody reads on.
 */
export function respondInSteps<Step extends WorkStep>(
  work: (onStep: (step: Step) => void, signal: AbortSignal) => Promise<object>,
): Response {
  const reader = new AbortController();
  const encoder = new TextEncoder();
  const lines = new ReadableStream<Uint8Array>({
    async start(controller) {
      const say = (line: object) => {
        if (!reader.signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      try {
        say(await work(say, reader.signal));
      } catch (error) {
        if (!reader.signal.aborted) say({ error: failureIn(error).problem });
      }
      if (!reader.signal.aborted) controller.close();
    },
    cancel: () => reader.abort(),
  });
  return new Response(lines, { headers: { 'content-type': IN_STEPS } });
}
