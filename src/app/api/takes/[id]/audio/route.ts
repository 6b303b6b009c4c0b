import { soundStored } from '@/server/audio';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { takeById } from '@/server/takes';
import { wavResponse } from '@/server/wavStream';

/** The take's sound as WAV, with HTTP ranges; of a take that was cut off, what is there. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    const take = await takeById(knownId((await params).id, 'take'));
    const frames = take.state === 'ready' ? take.frames : (await soundStored(take.id)).frames;
    return wavResponse({ ...take, frames }, request.headers.get('range'));
  });
