import { soundStored } from '@/server/audio';
import { readJson } from '@/server/body';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { reviewOf, reviewResponse } from '@/server/reviews';
import { amendTake, deleteTake, takeById } from '@/server/takes';
import { patchTakeBody } from '@/server/validation';

type Context = { params: Promise<{ id: string }> };
const idOf = async ({ params }: Context): Promise<string> => knownId((await params).id, 'take');

/** A ready take with its review; one that was cut off with the sound that is there. */
export const GET = (_: Request, context: Context): Promise<Response> =>
  respond(async () => {
    const take = await takeById(await idOf(context));
    return take.state === 'ready' ? reviewResponse(take) : { take, ...(await soundStored(take.id)) };
  });

export const PATCH = (request: Request, context: Context): Promise<Response> =>
  respond(async () => {
    const take = await amendTake(await idOf(context), await readJson(request, patchTakeBody));
    return take.state === 'ready' ? reviewOf(take.id) : { take };
  });

export const DELETE = (_: Request, context: Context): Promise<Response> =>
  respond(async () => {
    await deleteTake(await idOf(context));
    return new Response(null, { status: 204 });
  });
