import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { restoreTake } from '@/server/trash';

/** Brings a take back out of the trash. */
export const POST = (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => ({ take: await restoreTake(knownId((await params).id, 'take')) }));
