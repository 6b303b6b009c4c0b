import { migrateDatabase } from '@/server/db/client';
import { exportTake, type ExportFormat } from '@/server/takeFiles';
import { takeByNumber } from '@/server/takes';
import { BadInput } from './exit';
import { argumentsOf, writeFile } from './input';
import { onWhatIsKept } from './kept';

const FORMATS: Record<string, ExportFormat> = {
  midi: 'midi',
  musicxml: 'musicxml',
  csv: 'notes-csv',
  json: 'json',
  wav: 'wav',
  archive: 'archive',
};

/** `export TAKE --format midi`: a take as a file, or on the standard output. */
export async function exportCommand(args: string[]): Promise<void> {
  const { values, positionals } = argumentsOf(args, {
    format: { type: 'string' },
    out: { type: 'string' },
    changes: { type: 'boolean' },
    json: { type: 'boolean' },
  });
  const [take, ...more] = positionals;
  if (take === undefined || more.length > 0) throw new BadInput('Name one take: its number, or its address.');
  const format = FORMATS[values.format ?? ''];
  if (!format)
    throw new BadInput(
      `--format takes ${Object.keys(FORMATS).join(', ')}${values.format === undefined ? '' : `, not “${values.format}”`}.`,
    );
  const bytes = await onWhatIsKept(async () => {
    await migrateDatabase();
    const id = /^\d{1,9}$/.test(take)
      ? (await takeByNumber(Number(take))).id
      : (/[^/]+$/.exec(take)?.[0] ?? take);
    return new Uint8Array(
      await (
        await exportTake(id, format === 'notes-csv' && values.changes ? 'changes-csv' : format)
      ).arrayBuffer(),
    );
  });
  if (values.out === undefined) process.stdout.write(bytes);
  else writeFile(values.out, bytes);
}
