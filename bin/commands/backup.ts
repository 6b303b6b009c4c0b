import path from 'node:path';
import { backUp } from '@/server/backup';
import { migrateDatabase } from '@/server/db/client';
import { argumentsOf, onlyFile, printJson } from './input';
import { onWhatIsKept } from './kept';

/** `backup out.zip`: all that is kept, in one file. */
export async function backupCommand(args: string[]): Promise<void> {
  const { values, positionals } = argumentsOf(args, { json: { type: 'boolean' } });
  const out = path.resolve(onlyFile(positionals, 'the ZIP to write'));
  const { bytes } = await onWhatIsKept(async () => {
    await migrateDatabase();
    return backUp(out);
  });
  if (values.json) printJson({ ok: true, file: out, bytes });
  else process.stderr.write(`All that is kept is in ${out} (${(bytes / 1e6).toFixed(1)} MB).\n`);
}
