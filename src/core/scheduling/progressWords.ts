import { elementAt } from '../shared';
import { FEWEST, HELD, type KindCourse, type Progress, type ProgressVerdict, lastRate } from './progress';
/** The two sentences over the picture: what moved, and what is still rare. */
export function progressWords(
  { kinds }: Progress,
  typeset: (symbol: string) => string,
): { readonly soft: string; readonly bold: string } {
  const count = (verdict: ProgressVerdict) => kinds.filter((kind) => kind.verdict === verdict).length;
  const [better, probably, worse] = [
    count('better'),
    count('probably better'),
    count('worse') + count('probably worse'),
  ];
  const told = kinds.filter(({ verdict }) => verdict !== 'too few to judge');
  if (told.length === 0)
    return {
      soft: 'Too few landings to judge yet.',
      bold: 'Two or three takes more, and this page can say something.',
    };
  const said = (n: number, what: string) =>
    `${numeral(n)} ${n === 1 ? 'kind of change is' : 'kinds of change are'} ${what}`;
  const moved = better + probably + worse > 0;
  let soft: string;
  if (!moved) {
    if (told.every(({ verdict }) => verdict === 'first week'))
      soft = 'One week so far: this is where you begin.';
    else soft = 'Nothing has moved surely yet, for better or worse.';
  } else
    soft = `${capital([better > 0 ? said(better, 'better than in the first week') : '', probablyBetter(probably, better, said), worse > 0 ? `${numeral(worse)} ${worse === 1 ? 'has' : 'have'} slipped` : ''].filter(Boolean).join(', '))}.`;
  const rarest = told
    .filter(({ weeks }) => elementAt(weeks, weeks.length - 1).of >= FEWEST)
    .reduce<KindCourse | null>(
      (low, kind) => (low === null || lastRate(kind) < lastRate(low) ? kind : low),
      null,
    );
  if (!rarest || lastRate(rarest) >= HELD)
    return {
      soft,
      bold: 'Every change is met four times in five or more. Faster, another key, or another tune.',
    };
  const { met, of } = elementAt(rarest.weeks, rarest.weeks.length - 1);
  return {
    soft,
    bold: `From the ${typeset(rarest.from)} into the ${typeset(rarest.to)} the third or seventh is ${met / of < 0.4 ? 'still rare' : 'not sure yet'}: ${met} of ${of} in the last week.`,
  };
}

export const NUMERALS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];

export const numeral = (n: number): string => NUMERALS[n] ?? `${n}`;

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export function probablyBetter(probably: number, better: number, said: (n: number, what: string) => string) {
  if (probably > 0) {
    if (better > 0) return `${numeral(probably)} probably`;
    return said(probably, 'probably better than in the first week');
  }
  return '';
}
