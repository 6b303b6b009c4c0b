import { LIMITS } from '@/core/contracts';
import { rm } from 'node:fs/promises';
import { backupFolder, bringBackup, keepBackup, listBackups, uploadPath } from '@/server/backup';
import { writeBody } from '@/server/body';
import { Failure } from '@/server/failure';
import { respond } from '@/server/respond';

/** The backups beside the database, the newest first, and the folder they lie in. */
export const GET = (): Promise<Response> =>
  respond(async () => ({ folder: backupFolder(), backups: await listBackups() }));

/** Makes a backup now. Answers line by line: what it is busy with, then `{"name"}` or `{"error"}`. */
export function POST(): Response {
  const encoder = new TextEncoder();
  const lines = new ReadableStream<Uint8Array>({
    async start(controller) {
      const say = (line: object) => controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      try {
        say({ name: await keepBackup('asked', (phase) => say({ phase })) });
      } catch (error) {
        if (!(error instanceof Failure)) console.error(error);
        const problem =
          error instanceof Failure
            ? error.problem
            : { code: 'backup.failed', message: 'The backup could not be made; earlier ones are untouched.' };
        say({ error: problem });
      }
      controller.close();
    },
  });
  return new Response(lines, { headers: { 'content-type': 'application/x-ndjson' } });
}

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
