export type Run = (args: string[]) => Promise<void> | void;

/** One command: how it is called, what it does, and a call to copy. */
export type CommandEntry = {
  readonly usage: readonly string[];
  readonly does: string;
  readonly example: string;
  /** Loaded when it is called: `theory` need not wait for what `transcribe` needs. */
  readonly load: () => Promise<Run>;
};

const PLAN = `PLAN: [--plan ID] [--home SCALE] [--target third] [--degrees "1 b3 4 5 6"] [--aims "3 5"]
      [--mode dorian] [--tonic-six] [--changes superimposed.txt] [--part "every I: major-minor-blend"]
      [--part "bars 5-8, chorus 2: home-scale; home=A minor pentatonic"] …`;

/** Every command by its name, in the order of a player's work. */
export const COMMANDS: Readonly<Record<string, CommandEntry>> = {
  transcribe: {
    usage: ['take.wav [--json] [--frames] [--tuning auto|440]'],
    does: 'Hears a recording: onset, end, pitch, bend, slide, vibrato and confidence of each note.',
    example: 'wander transcribe take.wav --json > notes.json',
    load: async () => (await import('./commands/transcribe')).transcribeCommand,
  },
  analyse: {
    usage: [
      `take.wav|notes.json|line.mid --chart chart.txt --tempo 96 [--offset 0.0|auto] [--choruses N]
      [--overlay changes.txt] [PLAN …] [--before earlier.json[@84] …] [--json]`,
      PLAN,
    ],
    does: 'Holds a solo against the chords: landings, approaches, coverage, and what to practise.',
    example: 'wander analyse take.wav --chart blues.txt --tempo 96 --plan outline',
    load: async () => (await import('./commands/analyse')).analyseCommand,
  },
  chart: {
    usage: [
      'check chart.txt [--json]',
      'convert chart.txt|chart.musicxml|chart.mid --to text|musicxml|midi [--out file]',
      'transpose chart.txt --to Eb | --by 3 [--out file] [--json]',
    ],
    does: 'Checks, converts or transposes a chord chart.',
    example: 'wander chart transpose blues.txt --to Eb --out blues-in-eb.txt',
    load: async () => (await import('./commands/chart')).chartCommand,
  },
  study: {
    usage: ['chart.txt [PLAN …] [--json]', PLAN],
    does: 'Says what the plan plays over each chord: its notes, targets, shapes and clashes.',
    example: 'wander study blues.txt --plan home-scale --home "A minor pentatonic"',
    load: async () => (await import('./commands/study')).studyCommand,
  },
  neck: {
    usage: [
      'chord "Cm7" [--position 5] [--tuning "E2 A2 D3 G3 B3 E4"] [--json]',
      'scale "F dorian" [--position 5] [--layout position|one|two|three|octave|string] [--shape 1] [--tuning …] [--json]',
      'path notes.json [--tuning …] [--json]',
    ],
    does: 'Shows where a chord, a scale or a line lies on the neck.',
    example: 'wander neck scale "F dorian" --layout three --shape 1',
    load: async () => (await import('./commands/neck')).neckCommand,
  },
  theory: {
    usage: ['chord "Ebm7b5/Bbb" [--json]', 'scale "F melodic minor" [--json]'],
    does: 'Spells a chord or a scale.',
    example: 'wander theory chord Ebm7b5',
    load: async () => (await import('./commands/theory')).theoryCommand,
  },
  drill: {
    usage: [
      `chart.txt [--kind third-from-below | --words "enclose the root"] [--bars 9-10] [--tempo 72]
      [--plan ID] [--home SCALE] [--seed 1] [--level easy|usual|rich] [--choruses 1] [--lines 8] [--json]`,
      'chart.txt … --notes attempt.json [--offset 0.0] [--json]',
      '--list',
    ],
    does: 'Makes a drill over bars of a chart with a line that passes it, or judges an attempt.',
    example: 'wander drill blues.txt --words "enclose the root" --bars 5-8',
    load: async () => (await import('./commands/drill')).drillCommand,
  },
  band: {
    usage: [
      `chart.txt --tempo 96 --choruses 2 --out band.wav [--seed 1] [--count-in 1] [--chords keys|guitar]
      [--click every|two-and-four|one] [--bars 9-12] [--tempo-step 4] [--key-step 5] [--drop-out 2,4] [--json]`,
    ],
    does: 'Renders the backing band: loops, rising tempo, moving keys, choruses alone.',
    example: 'wander band blues.txt --tempo 96 --choruses 2 --out band.wav',
    load: async () => (await import('./commands/band')).bandCommand,
  },
  play: {
    usage: [
      'chart.txt --tempo 96 --plan outline --seed 7 [--profile profile.json] --out take.wav --truth truth.json',
    ],
    does: 'Lets the stand-in player improvise, with the notes it played as truth.',
    example: 'wander play blues.txt --tempo 96 --plan outline --seed 7 --out take.wav --truth truth.json',
    load: async () => (await import('./commands/play')).playCommand,
  },
  export: {
    usage: ['TAKE --format midi|musicxml|csv|json|wav [--changes] [--out file]'],
    does: 'Writes a take, by its number or address; csv gives its notes, with --changes its changes.',
    example: 'wander export 12 --format musicxml --out take.musicxml',
    load: async () => (await import('./commands/export')).exportCommand,
  },
  backup: {
    usage: ['out.zip'],
    does: 'Saves all that is kept in one file, and proves it by a trial restore.',
    example: 'wander backup wander.zip',
    load: async () => (await import('./commands/backup')).backupCommand,
  },
  restore: {
    usage: ['in.zip'],
    does: 'Restores a backup: charts, takes with sound, words, settings. What was there is kept beside it.',
    example: 'wander restore wander.zip',
    load: async () => (await import('./commands/restore')).restoreCommand,
  },
  completion: {
    usage: ['bash|zsh|fish'],
    does: 'Prints a script that completes commands and options in your shell.',
    example: 'source <(wander completion bash)',
    load: async () => (await import('./commands/completion')).completionCommand,
  },
};

/** A command of that name, own properties alone: `constructor` is none. */
export const commandNamed = (name: string): CommandEntry | undefined =>
  Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;

const callOf = (name: string, usage: string): string =>
  usage.startsWith('PLAN:') ? `  ${usage}` : `  wander ${name} ${usage}`;

/** What `wander NAME --help` prints. */
export const helpOf = (name: string, { usage, does, example }: CommandEntry): string =>
  `${does}\n\n${usage.map((one) => callOf(name, one)).join('\n')}\n\nExample:\n  ${example}\n`;

/** What `wander --help` prints. */
export function helpOfAll(): string {
  const width = Math.max(...Object.keys(COMMANDS).map((name) => name.length));
  const lines = Object.entries(COMMANDS).map(([name, { does }]) => `  ${name.padEnd(width)}  ${does}`);
  return [
    'wander: hear a solo, hold it against the chords, say what each note did',
    '',
    ...lines,
    '',
    '  wander NAME --help    how a command is called, with an example',
    '  wander --version',
    '',
    'Results go to the standard output, messages to the standard error.',
    'Exit: 0 done, 2 bad input, 1 failure.',
    '',
  ].join('\n');
}

/** The options a command takes, as its usage names them. */
export const optionsOf = ({ usage }: CommandEntry): string[] => [
  ...new Set([...usage.join(' ').matchAll(/--[a-z][a-z-]*/g)].map(([option]) => option)),
  '--help',
];

/** The words that may follow a command's name: `chord`, `scale`, `path` of `neck`; the shells of `completion`. */
export const wordsOf = ({ usage }: CommandEntry): string[] =>
  usage.flatMap((one) => (/^[a-z|]+(?= |$)/.exec(one)?.[0] ?? '').split('|').filter(Boolean));
