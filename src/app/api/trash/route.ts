import { respond } from '@/server/respond';
import { emptyTrash, readTrash, restoreSound } from '@/server/trash';

/** What was removed and can still be brought back. */
export const GET = (): Promise<Response> => respond(readTrash);

/** Brings back the sound that was put away to make room. */
export const POST = (): Promise<Response> =>
  respond(async () => ({ restored: await restoreSound(), trash: await readTrash() }));

/** Deletes everything in the trash, for good. */
export const DELETE = (): Promise<Response> =>
  respond(async () => {
    await emptyTrash(0);
    return readTrash();
  });
