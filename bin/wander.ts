import { BadInput, EXIT } from './commands/exit';

type Command = (args: string[]) => Promise<void> | void;

/** Each command is loaded when it is called: `theory` need not wait for what `transcribe` needs. */
const COMMANDS: Record<string, () => Promise<Command>> = {
  transcribe: async () => (await import('./commands/transcribe')).transcribeCommand,
  analyse: async () => (await import('./commands/analyse')).analyseCommand,
  chart: async () => (await import('./commands/chart')).chartCommand,
  study: async () => (await import('./commands/study')).studyCommand,
  neck: async () => (await import('./commands/neck')).neckCommand,
  theory: async () => (await import('./commands/theory')).theoryCommand,
  drill: async () => (await import('./commands/drill')).drillCommand,
  band: async () => (await import('./commands/band')).bandCommand,
  play: async () => (await import('./commands/play')).playCommand,
  export: async () => (await import('./commands/export')).exportCommand,
  backup: async () => (await import('./commands/backup')).backupCommand,
  restore: async () => (await import('./commands/restore')).restoreCommand,
};

const USAGE = `wander: hear a solo, hold it against the chords, say what each note did

  wander transcribe take.wav --json [--frames] [--tuning auto|440]
  wander analyse take.wav|notes.json|line.mid --chart chart.txt --tempo 96 [--offset 0.0|auto] [--plan outline]
                 [--home "Bb minor pentatonic"] [--choruses N] [--overlay changes.txt] [PLAN …] [--before earlier.json[@84] …] [--json]
  wander chart check chart.txt [--json]
  wander chart convert chart.txt|chart.musicxml|chart.mid --to text|musicxml|midi [--out file]
  wander chart transpose chart.txt --to Eb | --by 3 [--out file] [--json]
  wander study chart.txt [PLAN …] [--json]    what the plan plays over each chord, its targets, shapes and clashes
      PLAN: [--plan ID] [--home SCALE] [--target third] [--degrees "1 b3 4 5 6"] [--aims "3 5"] [--mode dorian] [--tonic-six]
      [--changes superimposed.txt] [--part "every I: major-minor-blend"] [--part "bars 5-8, chorus 2: home-scale; home=A minor pentatonic"] …
  wander neck chord "Cm7" [--position 5] [--tuning "E2 A2 D3 G3 B3 E4"] [--json]
  wander neck scale "F dorian" [--position 5] [--tuning …] [--json]
  wander neck path notes.json [--tuning …] [--json]
  wander theory chord "Ebm7b5/Bbb" [--json]
  wander theory scale "F melodic minor" [--json]
  wander drill chart.txt [--kind third-from-below | --words "enclose the root"] [--bars 9-10] [--tempo 72] [--plan ID] [--home SCALE] [--seed 1] [--level easy|usual|rich] [--choruses 1] [--notes attempt.json [--offset 0.0]] [--json]    --list names them all
  wander band chart.txt --tempo 96 --choruses 2 --out band.wav [--seed 1] [--count-in 1] [--chords keys|guitar] [--click every|two-and-four|one]
      [--bars 9-12] [--tempo-step 4] [--key-step 5] [--drop-out 2,4] [--json]    loops, rising tempo, moving keys, choruses alone; --json prints what is played
  wander play chart.txt --tempo 96 --plan outline --seed 7 [--profile profile.json] --out take.wav --truth truth.json
  wander export TAKE --format midi|musicxml|csv|json|wav [--out file]    a take by its number or address; csv: its notes, with --changes its changes
  wander backup out.zip
  wander restore in.zip    all that is kept: charts, takes with sound, words, settings

Results go to the standard output, messages to the standard error. Exit: 0 done, 2 bad input, 1 failure.
`;

/** A reader that has seen enough closes the pipe: that is no failure. */
for (const stream of [process.stdout, process.stderr])
  stream.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EPIPE') process.exit(EXIT.ok);
    throw error;
  });

async function main(): Promise<void> {
  const [name, ...args] = process.argv.slice(2);
  if (name === undefined || name === '--help' || name === '-h' || name === 'help') {
    if (name === undefined) throw new BadInput(USAGE.trimEnd());
    process.stdout.write(USAGE);
    return;
  }
  const command = COMMANDS[name];
  if (!command)
    throw new BadInput(`There is no command “${name}”. Commands: ${Object.keys(COMMANDS).join(', ')}.`);
  await (
    await command()
  )(args);
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
