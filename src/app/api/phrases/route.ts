import { readJson } from '@/server/body';
import { keepPhrase, listPhrases } from '@/server/phrases';
import { respond } from '@/server/respond';
import { phraseBody } from '@/server/validation';

export const dynamic = 'force-dynamic';

export const GET = (): Promise<Response> => respond(async () => ({ phrases: await listPhrases() }));

/** Keeps a phrase: from a take, typed, from a file, an example of a drill, or a variation. */
export const POST = (request: Request): Promise<Response> =>
  respond(async () => keepPhrase(await readJson(request, phraseBody)));
