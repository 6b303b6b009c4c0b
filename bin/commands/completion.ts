import { COMMANDS, optionsOf, wordsOf } from '../catalogue';
import { BadUsage } from './exit';

type Shell = (words: readonly (readonly [command: string, words: readonly string[]])[]) => string;

/** A line of `case` for every command: what may follow it. */
const SHELLS: Readonly<Record<string, Shell>> = {
  bash: (words) => `_wander() {
  local current=\${COMP_WORDS[COMP_CWORD]} words
  if [ "$COMP_CWORD" -eq 1 ]; then
    words="${words.map(([name]) => name).join(' ')} --help --version"
  else
    case \${COMP_WORDS[1]} in
${words.map(([name, following]) => `      ${name}) words="${following.join(' ')}" ;;`).join('\n')}
    esac
  fi
  COMPREPLY=($(compgen -W "$words" -- "$current"))
}
complete -o default -F _wander wander
`,
  zsh: (words) => `#compdef wander
_wander() {
  if (( CURRENT == 2 )); then
    compadd -- ${words.map(([name]) => name).join(' ')} --help --version
  else
    case $words[2] in
${words.map(([name, following]) => `      ${name}) compadd -- ${following.join(' ')} ;;`).join('\n')}
    esac
    _files
  fi
}
compdef _wander wander
`,
  fish: (words) =>
    [
      `complete -c wander -n __fish_use_subcommand -a '${words.map(([name]) => name).join(' ')}'`,
      ...words.map(
        ([name, following]) =>
          `complete -c wander -n '__fish_seen_subcommand_from ${name}' -a '${following.join(' ')}'`,
      ),
      '',
    ].join('\n'),
};

/** `completion bash`: a script for the shell, made from the catalogue of commands. */
export function completionCommand(args: string[]): void {
  const [shell, ...more] = args;
  if (shell === undefined || more.length > 0 || !Object.hasOwn(SHELLS, shell))
    throw new BadUsage(`Name one shell: ${Object.keys(SHELLS).join(', ')}.`);
  const words = Object.entries(COMMANDS).map(
    ([name, entry]) => [name, [...wordsOf(entry), ...optionsOf(entry)]] as const,
  );
  process.stdout.write(SHELLS[shell]?.(words) ?? '');
}
