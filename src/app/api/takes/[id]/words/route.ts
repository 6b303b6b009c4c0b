import { readJson } from '@/server/body';
import { keepWords } from '@/server/corrections';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { wordsBody } from '@/server/validation';

/** Stars, tags and remarks on a take. */
export const PUT = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () =>
    keepWords(knownId((await params).id, 'take'), (await readJson(request, wordsBody)).words),
  );
