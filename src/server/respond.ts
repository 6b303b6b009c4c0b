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
    if (error instanceof Failure) return Response.json({ error: error.problem }, { status: error.status });
    console.error(error);
    return Response.json(
      {
        error: {
          code: 'server',
          message: 'Something went wrong here; nothing was changed.',
          suggestion: 'Try again.',
        },
      },
      { status: 500 },
    );
  }
}
