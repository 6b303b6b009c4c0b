import { restartServer, restoreAtNextStart } from '@/server/backup';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ name: string }> };

/** Proves a backup and restores it at the next start, which follows at once where somebody starts the server again. */
export const POST = (_request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    await restoreAtNextStart((await params).name);
    return { restarts: restartServer() };
  });
