import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { backUp, restore } from '@/server/backup';
import { closeDatabase, migrateDatabase } from '@/server/db/client';
import { Failure } from '@/server/failure';
import { exportTake, type ExportFormat } from '@/server/takeFiles';
import { takeByNumber } from '@/server/takes';
import { BadInput, sentence } from './exit';
import { argumentsOf, onlyFile, printJson, writeFile } from './input';

const FORMATS: Record<string, ExportFormat> = { midi: 'midi', musicxml: 'musicxml', csv: 'notes-csv', json: 'json', wav: 'wav', archive: 'archive' };
/** The command may be called from anywhere; what is kept lies with the program. */
const HOME = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', '..');

/** Work on what is kept: the database opened and closed, its refusals as bad input. */
async function onWhatIsKept<T>(work: () => Promise<T>): Promise<T> {
  const from = process.cwd();
  process.chdir(HOME);
  try {
    return await work();
  } catch (error) {
    if (error instanceof Failure) throw new BadInput(sentence(error.problem));
    throw error;
  } finally {
    closeDatabase();
    process.chdir(from);
  }
}

/** `export TAKE --format midi`: a take as a file, or on the standard output. */
export async function exportCommand(args: string[]): Promise<void> {
  const { values, positionals } = argumentsOf(args, { format: { type: 'string' }, out: { type: 'string' }, changes: { type: 'boolean' }, json: { type: 'boolean' } });
  const [take, ...more] = positionals;
  if (take === undefined || more.length > 0) throw new BadInput('Name one take: its number, or its address.');
  const format = FORMATS[values.format ?? ''];
  if (!format) throw new BadInput(`--format takes ${Object.keys(FORMATS).join(', ')}${values.format === undefined ? '' : `, not “${values.format}”`}.`);
  const bytes = await onWhatIsKept(async () => {
    await migrateDatabase();
    const id = /^\d{1,9}$/.test(take) ? (await takeByNumber(Number(take))).id : (/[^/]+$/.exec(take)?.[0] ?? take);
    return new Uint8Array(await (await exportTake(id, format === 'notes-csv' && values.changes ? 'changes-csv' : format)).arrayBuffer());
  });
  if (values.out === undefined) process.stdout.write(bytes);
  else writeFile(values.out, bytes);
}

export async function backupCommand(args: string[]): Promise<void> {
  const { values, positionals } = argumentsOf(args, { json: { type: 'boolean' } });
  const out = path.resolve(onlyFile(positionals, 'the ZIP to write'));
  const { bytes } = await onWhatIsKept(async () => { await migrateDatabase(); return backUp(out); });
  if (values.json) printJson({ ok: true, file: out, bytes });
  else process.stderr.write(`All that is kept is in ${out} (${(bytes / 1e6).toFixed(1)} MB).\n`);
}

export async function restoreCommand(args: string[]): Promise<void> {
  const { values, positionals } = argumentsOf(args, { json: { type: 'boolean' } });
  const file = path.resolve(onlyFile(positionals, 'the ZIP to restore from'));
  const { before } = await onWhatIsKept(() => restore(file).catch((error: unknown) => {
    throw (error as NodeJS.ErrnoException).code === 'ENOENT' ? new BadInput(`${file} cannot be read: ENOENT.`) : error;
  }));
  if (values.json) printJson({ ok: true, before });
  else process.stderr.write(`Restored. What was there before is in ${before}.\n`);
}
