import { LIMITS } from '@/core/contracts';
import { rm } from 'node:fs/promises';
import {
  backupFolder,
  bringBackup,
  keepBackup,
  listBackups,
  uploadPath,
  type BackupPhase,
} from '@/server/backup';
import { writeBody } from '@/server/body';
import { respond, respondInSteps } from '@/server/respond';

/** The backups beside the database, the newest first, and the folder they lie in. */
export const GET = (): Promise<Response> =>
  respond(async () => ({ folder: backupFolder(), backups: await listBackups() }));

/**
 * Makes a backup now. Answers line by line: what it is busy with, then `{"name"}` or `{"error"}`. Where nobody reads on
 * it is given up before its next step.
 */
export const POST = (): Response =>
  respondInSteps<{ phase: BackupPhase }>(async (onStep, signal) => ({
    name: await keepBackup('asked', (phase) => {
      signal.throwIfAborted();
      onStep({ phase });
    }),
  }));

/** Takes a backup file of the player's into the list. */
export const PUT = (request: Request): Promise<Response> =>
  respond(async () => {
    const file = await uploadPath();
    try {
      await writeBody(request, file, LIMITS.request.importBytes);
      return { name: await bringBackup(file) };
    } finally {
      await rm(file, { force: true });
    }
  });
