import { LIMITS } from '@/core/contracts';
import { readJson } from '@/server/body';
import { respond } from '@/server/respond';
import { pressBody, sharedStageBody, stageHub, type StageEvent } from '@/server/stageHub';

/** What runs on the stage, as server-sent events, for as long as it is listened to. */
export function GET(request: Request): Response {
  const encoder = new TextEncoder();
  let stop = (): void => undefined;
  const events = new ReadableStream<Uint8Array>({
    start(controller) {
      const tell = (event: StageEvent) =>
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(event)}\n\n`));
      stop = stageHub().listen(tell);
      request.signal.addEventListener('abort', () => stop());
    },
    cancel: () => stop(),
  });
  return new Response(events, { headers: { 'content-type': 'text/event-stream' } });
}

/** Record says what it shows. */
export const PUT = (request: Request): Promise<Response> =>
  respond(async () => {
    stageHub().show(await readJson(request, sharedStageBody, LIMITS.request.chartBytes));
    return {};
  });

/** A press on another screen, for the pedal of Record. */
export const POST = (request: Request): Promise<Response> =>
  respond(async () => {
    await readJson(request, pressBody, 1_024);
    stageHub().press();
    return {};
  });
