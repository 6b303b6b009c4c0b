import { readJson } from '@/server/body';
import { knownId } from '@/server/ids';
import { changePhrase, phraseById } from '@/server/phrases';
import { respond } from '@/server/respond';
import { phraseChangeBody } from '@/server/validation';

type RouteContext = { params: Promise<{ id: string }> };

export const GET = (_: Request, { params }: RouteContext): Promise<Response> =>
  respond(async () => ({ phrase: await phraseById(knownId((await params).id, 'phrase')) }));

/** Another name or other tags; removed, or brought back. */
export const PATCH = (request: Request, { params }: RouteContext): Promise<Response> =>
  respond(async () =>
    changePhrase(knownId((await params).id, 'phrase'), await readJson(request, phraseChangeBody)),
  );
