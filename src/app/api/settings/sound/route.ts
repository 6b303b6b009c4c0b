import { spaceUsed } from '@/server/audio';
import { readJson } from '@/server/body';
import { respond } from '@/server/respond';
import { readSoundSettings, soundSettings, writeSoundSettings } from '@/server/settings';

/** How long sound is kept, and what it weighs. */
export const GET = (): Promise<Response> =>
  respond(async () => ({ ...(await readSoundSettings()), space: await spaceUsed() }));

export const PUT = (request: Request): Promise<Response> =>
  respond(async () => {
    const gone = await writeSoundSettings(await readJson(request, soundSettings, 1024));
    return { ...(await readSoundSettings()), gone, space: await spaceUsed() };
  });
