import { readJson } from '@/server/body';
import { writeGoal } from '@/server/goal';
import { respond } from '@/server/respond';
import { goalBody } from '@/server/validation';

/** What to be ready for, and by when; none. */
export const PUT = (request: Request): Promise<Response> =>
  respond(async () => ({ goal: await writeGoal(await readJson(request, goalBody)) }));
