import { soundStored } from '@/server/audio';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { damageOf } from '@/server/soundDamage';
import { takeById } from '@/server/takes';
import { wavResponse } from '@/server/wavStream';

/**
 * The take's sound as WAV, with HTTP ranges; of a take that was cut off, what is there. With `?damage=1` what was found
 * damaged, and is silent, in the sound as it was read last: seconds from and to.
 */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    const take = await takeById(knownId((await params).id, 'take'));
    if (new URL(request.url).searchParams.get('damage') === '1')
      return { damaged: damageOf(take.id).map(({ from, to }) => [from / take.rate, to / take.rate]) };
    const frames = take.state === 'ready' ? take.frames : (await soundStored(take.id)).frames;
    return wavResponse({ ...take, frames }, request.headers.get('range'));
  });
