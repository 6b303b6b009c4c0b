import { soundStored } from '@/server/audio';
import { readJson } from '@/server/body';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { reviewOf, reviewResponse } from '@/server/reviews';
import { amendTake, takeById } from '@/server/takes';
import { deleteTake, removeTake } from '@/server/trash';
import { patchTakeBody } from '@/server/validation';

type Context = { params: Promise<{ id: string }> };
const idOf = async ({ params }: Context): Promise<string> => knownId((await params).id, 'take');

/** A ready take with its review; one that was cut off with the sound that is there. */
export const GET = (_: Request, context: Context): Promise<Response> =>
  respond(async () => {
    const id = await idOf(context);
    return (await reviewResponse(id)) ?? { take: await takeById(id), ...(await soundStored(id)) };
  });

export const PATCH = (request: Request, context: Context): Promise<Response> =>
  respond(async () => {
    const take = await amendTake(await idOf(context), await readJson(request, patchTakeBody));
    return take.state === 'ready' ? reviewOf(take.id) : { take };
  });

/** Puts a take in the trash, with `?more=1` before all of it has arrived; with `?permanently=1` it is deleted. */
export const DELETE = (request: Request, context: Context): Promise<Response> =>
  respond(async () => {
    const id = await idOf(context);
    const { searchParams } = new URL(request.url);
    if (searchParams.get('permanently') !== '1')
      return removeTake(id, { hasMore: searchParams.get('more') === '1' });
    await deleteTake(id);
    return { recoverable: false };
  });
