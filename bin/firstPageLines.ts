import type { Finding, FirstPage } from '@/core/findings';
import { elementAt } from '@/core/shared';

const WIDTH = 96;

/** What comes first: a strength, what to practise or the next step, then what else was noticed. */
export function firstPageLines({ strength, progress, practise, step }: FirstPage): string[] {
  return [
    ...(strength ? wrapped(`Went well: ${strength.sentence} Hear bar ${strength.bar} again.`) : []),
    ...(progress ? wrapped(`Better: ${progress.sentence}`) : []),
    ...(practise ? findingLines(practise, 'To practise: ') : []),
    ...(step ? wrapped(`Next step: ${step.sentence}`) : []),
  ];
}

export function findingLines(
  { sentence, detail, advice, drill, where, before, met, of }: Finding,
  label = '',
): string[] {
  const bars =
    where.bars.length > 0
      ? ` Bars ${where.bars.slice(0, 8).join(', ')}${where.bars.length > 8 ? ' …' : ''}.`
      : '';
  const earlier = before ? ` Before ${before.met} of ${before.of}, now ${met} of ${of}.` : '';
  const over =
    drill &&
    (drill.span[0] === drill.span[1] ? `bar ${drill.span[0]}` : `bars ${drill.span[0]} to ${drill.span[1]}`);
  return [
    ...wrapped(`${label}${[sentence, detail, advice].filter(Boolean).join(' ')}${bars}${earlier}`),
    ...(drill ? [`   Drill: ${drill.kind}, ${over}, at ${drill.tempo}.`] : []),
  ];
}

/** Words in lines of the terminal, the second and those after it set in. */
export function wrapped(text: string): string[] {
  const lines = [''];
  for (const word of text.split(' ')) {
    const last = elementAt(lines, lines.length - 1);
    if (last.length + word.length + 1 > WIDTH && last !== '') lines.push(`   ${word}`);
    else lines[lines.length - 1] = last === '' ? word : `${last} ${word}`;
  }
  return lines;
}
