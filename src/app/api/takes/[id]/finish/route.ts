import { readJson } from '@/server/body';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { reviewOf } from '@/server/reviews';
import { finishTake } from '@/server/takes';
import { finishBody } from '@/server/validation';

/** Closes a take with its notes; the review is made before the answer, so that the page that follows finds it ready. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    const take = await finishTake(knownId((await params).id, 'take'), await readJson(request, finishBody));
    await reviewOf(take.id);
    return take;
  });
