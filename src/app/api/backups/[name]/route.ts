import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { backupNamed, listBackups, removeBackup } from '@/server/backup';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ name: string }> };

/** The file itself, to be kept elsewhere. */
export const GET = (_request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    const { name } = await params;
    const file = await backupNamed(name);
    return new Response(Readable.toWeb(createReadStream(file)) as ReadableStream<Uint8Array>, {
      headers: {
        'content-type': 'application/zip',
        'content-length': String((await stat(file)).size),
        'content-disposition': `attachment; filename="${name}"`,
      },
    });
  });

export const DELETE = (_request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    await removeBackup((await params).name);
    return { backups: await listBackups() };
  });
