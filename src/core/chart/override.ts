import { accepted, modulo, refused, type Outcome } from '../shared';
import {
  noteAtDegree,
  noteName,
  pitchClass,
  readScale,
  rootPc,
  type Chord,
  type Key,
  type Scale,
} from '../music';

/** A player's own reading of one chord: its degree, its scale or both. */
export type Override = {
  readonly bar: number;
  readonly nth: number;
  readonly degree: string | null;
  /** As written, without its root. */ readonly scale: string | null;
};

const NUMERAL = '(?:b|#)?(?:VII|VI|IV|V|III|II|I|vii|vi|iv|v|iii|ii|i)';
const DEGREE = new RegExp(`^(?:${NUMERAL}|(?:V|vii|ii|subV)/${NUMERAL}|subV)$`);

/**
 * Reads what stands after `reading:`: `8 = subV/ii, altered` or `11.2 = , 1 b3 4 5 6`: bar (as played, from
 * 1), chord of the bar (1 unless
 * told), degree, scale on the chord's root; degree or scale may be left out.
 */
export function readOverride(text: string): Outcome<Override> {
  const found = /^(\d{1,4})(?:\.(\d{1,2}))?\s*=\s*([^,]*?)\s*(?:,\s*(.+?))?\s*$/.exec(text);
  const degree = found?.[3] ?? '';
  const scale = found?.[4] ?? null;
  const wrong = (message: string) =>
    refused({ code: 'chart.reading', message, suggestion: '8 = V/ii, mixolydian' });
  if (!found || (degree === '' && scale === null))
    return wrong('A reading is written as bar = degree, scale: reading: 8 = V/ii, mixolydian.');
  if (degree !== '' && !DEGREE.test(degree))
    return wrong(`“${degree}” is not a degree like ii, V/ii, subV or bVII.`);
  const read = scale === null ? null : readScale(`C ${scale}`);
  if (read && !read.ok) return wrong(`“${scale}” is not a scale. Write its name or its degrees.`);
  return accepted({ bar: Number(found[1]), nth: Number(found[2] ?? 1), degree: degree || null, scale });
}

/** The override as the chart writes it. */
export const writeOverride = ({ bar, nth, degree, scale }: Override): string =>
  `reading: ${bar}${nth === 1 ? '' : `.${nth}`} = ${degree ?? ''}${scale === null ? '' : `, ${scale}`}`;

/** The scale an override names, on the chord's root; null where it names none. */
export function overriddenScale({ scale }: Override, chord: Chord): Scale | null {
  if (scale === null) return null;
  const read = readScale(`${noteName(chord.root)} ${scale}`);
  return read.ok ? read.value : null;
}

const STEPS: Record<string, number> = { i: 0, ii: 2, iii: 4, iv: 5, v: 7, vi: 9, vii: 11 };

/** Semitones of a plain numeral above its tonic. */
export function numeralStep(numeral: string): number {
  let mark: 1 | -1 | 0;
  if (numeral.startsWith('b')) mark = -1;
  else if (numeral.startsWith('#')) mark = 1;
  else mark = 0;
  return modulo((STEPS[numeral.slice(mark === 0 ? 0 : 1).toLowerCase()] ?? 0) + mark, 12);
}

/** The key that makes a chord the plain degree it is said to be; the same tonic for `V/ii` and its like. */
export function impliedKey(degree: string, chord: Chord, key: Key): Key {
  if (degree.includes('/') || degree.startsWith('subV')) return key;
  const down = modulo(-numeralStep(degree), 12);
  const tonic = modulo(rootPc(chord) + down, 12);
  if (tonic === pitchClass(key.tonic)) return key;
  const number = Number(
    { 0: 1, 1: 7, 2: 7, 3: 6, 4: 6, 5: 5, 6: 5, 7: 4, 8: 3, 9: 3, 10: 2, 11: 2 }[modulo(-down, 12)] ?? 1,
  );
  const plain = noteAtDegree(chord.root, { number: modulo(1 - number, 7) + 1, alter: 0 });
  const alter = modulo(tonic - pitchClass(plain) + 6, 12) - 6;
  return { tonic: { letter: plain.letter, alter: plain.alter + alter }, minor: key.minor };
}
