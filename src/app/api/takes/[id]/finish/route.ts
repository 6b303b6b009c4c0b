import { readJson } from '@/server/body';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { reviewOf } from '@/server/reviews';
import { finishTake } from '@/server/takes';
import { finishBody } from '@/server/validation';

/** Closes a take with its notes; the review is the answer, so that nobody need ask for it. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    const take = await finishTake(knownId((await params).id, 'take'), await readJson(request, finishBody));
    return reviewOf(take.id);
  });
