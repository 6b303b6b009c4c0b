import { nearestOf, refused, type Outcome } from '../shared';
import { type Chord } from './chord';
import type { Reader } from './symbolReader';

/** Spellings offered when a symbol is refused; the nearest by edits wins. */
export const OFFERED = [
  '',
  'maj7',
  'm',
  'm7',
  '7',
  '9',
  '11',
  '13',
  '6',
  '69',
  'm6',
  'm9',
  'm11',
  'm7b5',
  'ø7',
  'dim',
  'dim7',
  'aug',
  '+7',
  'maj9',
  'maj7#11',
  'sus4',
  'sus2',
  '7sus4',
  '9sus',
  '7b9sus',
  '7b9',
  '7#9',
  '7#11',
  '7b13',
  '7b5',
  '7#5',
  '7b9b13',
  '7alt',
  'alt',
  'mMaj7',
  'm(maj7)',
  'add9',
  'add11',
  '5',
  '13b9',
  '7#5#9',
];

export const unknown = (symbol: string, at: number, message: string, suggestion?: string): Outcome<Chord> =>
  refused({
    code: 'chord.unknown',
    message,
    column: at + 1,
    length: Math.max(1, symbol.length - at),
    ...(suggestion === undefined ? {} : { suggestion }),
  });

/** The same with a capital where that makes a chord; else what a bar may hold in its place. */
export function suggestRoot(symbol: string, isChord: (symbol: string) => boolean): string {
  const first = symbol.charAt(0).toUpperCase();
  if (!/[A-G]/.test(first)) return nearestOf(symbol, ['C', 'N.C.', '%']) ?? 'C';
  const capital = first + symbol.slice(1);
  return capital !== symbol && isChord(capital) ? capital : first;
}

export function unknownQuality(
  symbol: string,
  rootLength: number,
  reader: Reader,
  body: string,
): Outcome<Chord> {
  const at = rootLength + Math.min(reader.at, Math.max(0, body.length - 1));
  const rest = reader.rest();
  const root = symbol.slice(0, rootLength);
  const nearest = root + (nearestOf(body, OFFERED) ?? '');
  const dangling = /^[b#]$/.exec(rest);
  let message: string;
  if (dangling) message = `The ${rest === 'b' ? '♭' : '♯'} after ${symbol.slice(0, at)} has no number.`;
  else if (rest === '') message = `A parenthesis in “${symbol}” is not closed.`;
  else message = `“${rest}” in “${symbol}” is not a chord spelling this chart knows.`;
  return unknown(symbol, at, message, dangling ? `${symbol.slice(0, at)}${rest}9` : nearest);
}
