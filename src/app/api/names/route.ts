import { listNames } from '@/server/names';
import { respond } from '@/server/respond';

/** Names of charts, takes and drills, for finding one by typing. */
export const GET = (): Promise<Response> => respond(listNames);
