import { readJson } from '@/server/body';
import { keepEdits } from '@/server/corrections';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { editsBody } from '@/server/validation';

/** The player's edits of what was heard, all of them in order; an empty list is the take as it was heard. */
export const PUT = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () =>
    keepEdits(knownId((await params).id, 'take'), (await readJson(request, editsBody)).edits),
  );
