import Joi from 'joi';
import { deleteAllAtNextStart, restartServer } from '@/server/backup';
import { readJson } from '@/server/body';
import { respond } from '@/server/respond';

const request = Joi.object<{ words: string; backupsToo: boolean }>({
  words: Joi.string().allow('').max(100).required(),
  backupsToo: Joi.boolean().required(),
});

/** Deletes all that is kept at the next start, once the words were typed. */
export const DELETE = (asked: Request): Promise<Response> =>
  respond(async () => {
    const { words, backupsToo } = await readJson(asked, request, 1024);
    await deleteAllAtNextStart(words, backupsToo);
    return { restarts: restartServer() };
  });
