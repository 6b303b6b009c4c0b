import { noteName, readChord, readScale, scaleNotes, toneList } from '@/core/music';
import { BadUsage, valueOf } from './exit';
import { argumentsOf, printJson } from './input';

/** `theory chord SYMBOL`, `theory scale NAME`. */
export function theoryCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, { json: { type: 'boolean' } });
  const [what, text, ...more] = positionals;
  if ((what !== 'chord' && what !== 'scale') || text === undefined || more.length > 0)
    throw new BadUsage('Say theory chord "Ebm7b5" or theory scale "F melodic minor".');
  const result = what === 'chord' ? chordFacts(text) : scaleFacts(text);
  if (values.json) printJson(result);
  else
    process.stdout.write(
      `${Object.entries(result)
        .map(([name, value]) => `${name}: ${plain(value)}`)
        .join('\n')}\n`,
    );
}

function chordFacts(symbol: string) {
  const chord = valueOf(readChord(symbol));
  return {
    root: noteName(chord.root),
    bass: noteName(chord.bass),
    tones: toneList(chord.tones),
    colours: toneList(chord.colours),
  };
}

function scaleFacts(name: string) {
  const scale = valueOf(readScale(name));
  return { pcs: scale.pcs, names: scaleNotes(scale).map(noteName) };
}

const plain = (value: unknown): string =>
  Array.isArray(value)
    ? value
        .map((one: unknown) =>
          typeof one === 'object' && one !== null ? Object.values(one).join(' ') : String(one),
        )
        .join(', ')
    : String(value);
