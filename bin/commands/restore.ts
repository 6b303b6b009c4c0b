import path from 'node:path';
import { restore } from '@/server/backup';
import { BadInput } from './exit';
import { argumentsOf, onlyFile, printJson } from './input';
import { onWhatIsKept } from './kept';

/** `restore in.zip`: a backup in the place of all that is kept. */
export async function restoreCommand(args: string[]): Promise<void> {
  const { values, positionals } = argumentsOf(args, { json: { type: 'boolean' } });
  const file = path.resolve(onlyFile(positionals, 'the ZIP to restore from'));
  const { before } = await onWhatIsKept(() =>
    restore(file).catch((error: unknown) => {
      throw (error as NodeJS.ErrnoException).code === 'ENOENT'
        ? new BadInput(`${file} cannot be read: ENOENT.`)
        : error;
    }),
  );
  if (values.json) printJson({ ok: true, before });
  else process.stderr.write(`Restored.${before === null ? '' : ` What was there before is in ${before}.`}\n`);
}
