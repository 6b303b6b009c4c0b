import { nearestOf } from '@/core/shared';
import packageJson from '../package.json';
import { COMMANDS, commandNamed, helpOf, helpOfAll } from './catalogue';
import { BadInput, BadUsage, EXIT } from './commands/exit';

/** A reader that has seen enough closes the pipe: that is no failure. */
for (const stream of [process.stdout, process.stderr])
  stream.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EPIPE') process.exit(EXIT.ok);
    throw error;
  });

const isHelp = (arg: string | undefined): boolean => arg === '--help' || arg === '-h';

async function main(): Promise<void> {
  const [name, ...args] = process.argv.slice(2);
  if (name === undefined) throw new BadInput(helpOfAll().trimEnd());
  if (isHelp(name) || (name === 'help' && args[0] === undefined)) {
    process.stdout.write(helpOfAll());
    return;
  }
  if (name === '--version') {
    process.stdout.write(`wander ${packageJson.version}\n`);
    return;
  }
  const asked = name === 'help' ? (args[0] ?? '') : name;
  const command = commandNamed(asked);
  if (!command) throw new BadInput(unknown(asked));
  if (name === 'help' || args.some(isHelp)) {
    process.stdout.write(helpOf(asked, command));
    return;
  }
  try {
    await (
      await command.load()
    )(args);
  } catch (error) {
    if (error instanceof BadUsage) throw new BadInput(`${error.message}\nSee: wander ${asked} --help`);
    throw error;
  }
}

function unknown(name: string): string {
  const nearest = nearestOf(name, Object.keys(COMMANDS));
  const hint = nearest === undefined ? '' : ` Try: wander ${nearest}`;
  return `There is no command “${name}”.${hint}\nSee: wander --help`;
}

try {
  await main();
} catch (error) {
  if (error instanceof BadInput) {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = EXIT.badInput;
  } else {
    process.stderr.write(`wander failed: ${error instanceof Error ? error.message : String(error)}\n`);
    process.exitCode = EXIT.failure;
  }
}
