import { accepted, refused, type Outcome, present } from '../../shared';
import { degreeName, readChord, toneByRole, type Chord } from '../../music';

/**
 * A chord as MusicXML 4.0 says it (W3C, element `harmony`): a kind, and degrees that add to it, alter it or
 * take away from it.
 * `alter` of an added degree counts from a dominant chord: an added 7 with alter 0 is the minor seventh.
 */
export type KindDegree = {
  readonly value: number;
  readonly alter: number;
  readonly type: 'add' | 'alter' | 'subtract';
};
export type HarmonyKind = { readonly kind: string; readonly degrees: readonly KindDegree[] };

const add = (value: number, alter: number): KindDegree => ({ value, alter, type: 'add' });
const change = (value: number, alter: number): KindDegree => ({ value, alter, type: 'alter' });

/** Tensions as MusicXML numbers them: a ♭3 above the root of a dominant is its ♯9, a 6 its 13. */
const tensionsOf = (chord: Chord): KindDegree[] =>
  chord.colours.map(({ interval }) => {
    const number = Number(interval.replace(/\D/g, ''));
    let alter: 1 | -1 | 0;
    if (interval.startsWith('b')) alter = -1;
    else if (interval.startsWith('#')) alter = 1;
    else alter = 0;
    const TENSION: Record<number, number> = { 3: 9, 4: 11, 5: interval === 'b5' ? 11 : 13, 6: 13, 2: 9 };
    return add(TENSION[number] ?? number, tensionAlter(interval, alter));
  });

/**
 * Kinds that hold their natural ninth, eleventh and thirteenth: the largest that fits takes those tensions in.
 */
const STACKS: Record<string, readonly [string, string, string]> = {
  dominant: ['dominant-ninth', 'dominant-11th', 'dominant-13th'],
  'major-seventh': ['major-ninth', 'major-11th', 'major-13th'],
  'minor-seventh': ['minor-ninth', 'minor-11th', 'minor-13th'],
};

/** A chord's kind and degrees. A foreign bass is not part of them. */
export function kindOf(chord: Chord): HarmonyKind {
  const { kind, degrees } = seventhKind(chord);
  const tensions = tensionsOf(chord);
  const stack = STACKS[kind];
  const has = (value: number) => tensions.some((one) => one.value === value && one.alter === 0);
  if (!stack || !has(9)) return { kind, degrees: [...degrees, ...tensions] };
  // a 13th chord is written without its eleventh here, as it is played
  let level: 0 | 2 | 1;
  if (has(13) && !has(11)) level = 2;
  else if (has(11) && !has(13)) level = 1;
  else if (has(11)) level = 2;
  else level = 0;
  const inside = present([[9], [9, 11], [9, 11, 13]][level]);
  return {
    kind: stack[level],
    degrees: [...degrees, ...tensions.filter((one) => one.alter !== 0 || !inside.includes(one.value))],
  };
}

/** The kind by third, fifth and seventh, with the fifth altered where the kind does not say so. */
function seventhKind(chord: Chord): Kind {
  if (chord.quality === 'power') return { kind: 'power', degrees: [] };
  const role = (...roles: Parameters<typeof toneByRole>[1][]) => toneByRole(chord, ...roles)?.semitones;
  const [third, sus, fifth, seventh] = [role('third'), role('sus'), role('fifth'), role('seventh')];
  const bent = bentFifth(fifth);
  if (sus !== undefined)
    return {
      kind: sus === 2 ? 'suspended-second' : 'suspended-fourth',
      degrees: [...bent, ...(seventh === undefined ? [] : [add(7, seventh === 11 ? 1 : 0)])],
    };
  if (chord.altered) return { kind: 'dominant', degrees: [{ value: 5, alter: 0, type: 'subtract' }] };
  if (role('sixth') !== undefined)
    return { kind: third === 3 ? 'minor-sixth' : 'major-sixth', degrees: bent };
  return (
    diminishedOrAugmented({ third, fifth, seventh }) ?? {
      kind: plainKind(third === 3, seventh),
      degrees: bent,
    }
  );
}

type Kind = { kind: string; degrees: KindDegree[] };
type Size = number | undefined;

function bentFifth(fifth: Size): KindDegree[] {
  if (fifth === 6) return [change(5, -1)];
  return fifth === 8 ? [change(5, 1)] : [];
}

function diminishedOrAugmented({
  third,
  fifth,
  seventh,
}: Record<'third' | 'fifth' | 'seventh', Size>): Kind | null {
  if (third === 3 && fifth === 6)
    return { kind: diminishedKind(seventh), degrees: seventh === 11 ? [add(7, 1)] : [] };
  if (third !== 4 || fifth !== 8) return null;
  if (seventh === undefined) return { kind: 'augmented', degrees: [] };
  return seventh === 10 ? { kind: 'augmented-seventh', degrees: [] } : null;
}

function plainKind(isMinor: boolean, seventh: Size): string {
  if (seventh === undefined) return isMinor ? 'minor' : 'major';
  if (isMinor) return seventh === 11 ? 'major-minor' : 'minor-seventh';
  return seventh === 11 ? 'major-seventh' : 'dominant';
}

/** The spelling of each kind in chart text, with the natural tensions it holds. */
const SPELLED: Record<string, string> = {
  major: '',
  minor: 'm',
  augmented: '+',
  diminished: 'dim',
  dominant: '7',
  'major-seventh': 'maj7',
  'minor-seventh': 'm7',
  'diminished-seventh': 'dim7',
  'augmented-seventh': '7#5',
  'half-diminished': 'm7b5',
  'major-minor': 'mMaj7',
  'major-sixth': '6',
  'minor-sixth': 'm6',
  'dominant-ninth': '9',
  'major-ninth': 'maj9',
  'minor-ninth': 'm9',
  'dominant-11th': '11',
  'major-11th': 'maj11',
  'minor-11th': 'm11',
  'dominant-13th': '13',
  'major-13th': 'maj13',
  'minor-13th': 'm13',
  'suspended-second': 'sus2',
  'suspended-fourth': 'sus4',
  power: '5',
};

/**
 * A chord symbol for a kind with degrees on a root.
 * @returns a symbol that reads to those tones, or what this chart cannot write
 */
export function symbolOf(root: string, { kind, degrees }: HarmonyKind): Outcome<string> {
  const base = SPELLED[kind];
  if (base === undefined)
    return refused({ code: 'musicxml.kind', message: `The chord kind “${kind}” has no chart spelling.` });
  const symbol = root + suffix(base, degrees);
  const read = readChord(symbol);
  return read.ok
    ? accepted(symbol)
    : refused({
        code: 'musicxml.degree',
        message: `A ${kind} chord with ${degrees.map(said).join(', ')} has no chart spelling.`,
      });
}

const said = ({ value, alter, type }: KindDegree): string =>
  `${type} ${degreeName({ number: value, alter })}`;

/** Seventh and extension first, then what is altered or added, in parentheses. */
function suffix(base: string, degrees: readonly KindDegree[]): string {
  if (base === '7' && degrees.some(({ type, value }) => type === 'subtract' && value === 5)) return '7alt';
  const sorted = [...degrees].sort((a, b) => a.value - b.value);
  const head = sorted.reduce(headWith, base);
  const marks = sorted
    .filter((degree) => isMark(degree))
    .map(({ value, alter }) => tensionName(value, `${accidentalOf(alter)}${value}`, alter));
  if (marks.length === 0) return head;
  return head.endsWith(')') ? `${head.slice(0, -1)},${marks.join(',')})` : `${head}(${marks.join(',')})`;
}

const isSeventh = ({ value, type }: KindDegree): boolean => value === 7 && type === 'add';
/** A degree that is written in brackets behind the rest. */
const isMark = (degree: KindDegree): boolean =>
  degree.type !== 'subtract' && degree.alter !== 0 && !isSeventh(degree);

/** What stands before the brackets, with one more degree. */
function headWith(head: string, degree: KindDegree): string {
  const { value, alter, type } = degree;
  if (type === 'subtract') return value === 3 && head === '' ? '5' : head;
  if (isSeventh(degree)) return withSeventh(head, alter);
  if (isMark(degree)) return head;
  if (value === 6 && type === 'add' && (head === '' || head === 'm')) return `${head}6`;
  return value === 5 || type === 'alter' ? head : withNatural(head, value);
}

function withSeventh(head: string, alter: number): string {
  if (alter < 0) return head === 'dim' ? 'dim7' : head;
  const sus = /^sus[24]$/.exec(head)?.[0];
  if (sus) return (alter > 0 ? 'maj7' : '7') + sus;
  if (head === '+') return alter > 0 ? 'maj7(#5)' : '7(#5)';
  if (head === 'dim') return alter === 0 ? 'm7b5' : 'dim(maj7)';
  if (head === 'm') return alter > 0 ? 'mMaj7' : 'm7';
  if (head === '') {
    if (alter > 0) return 'maj7';
    return '7';
  }
  return head;
}

/** A natural 9, 11 or 13 raises the number of a seventh chord, and is added to the others. */
function withNatural(head: string, value: number): string {
  let number: number;
  if (value === 2) number = 9;
  else if (value === 4) number = 11;
  else if (value === 6) number = 13;
  else number = value;
  if (/^(?:6|m6)$/.test(head) && number === 9) return `${head}/9`;
  const raised = head.replace(/(7|9|11)(?=$|sus|\()/, String(number));
  if (raised !== head && number !== 11) return raised;
  if (/^m(?:7|9)$/.test(head) && number === 11) return 'm11';
  if (/^maj(?:7|9)$/.test(head) && number === 11) return 'maj11';
  return number === 9 || number === 11 ? `${head}(add${number})` : head;
}

function tensionAlter(interval: string, alter: 0 | 1 | -1) {
  if (interval === 'b3') return 1;
  if (interval === 'b5') return 1;
  if (interval === '#5') return -1;
  return alter;
}

function diminishedKind(seventh: number | undefined) {
  if (seventh === undefined) return 'diminished';
  if (seventh === 9) return 'diminished-seventh';
  return 'half-diminished';
}

function accidentalOf(alter: number) {
  if (alter < 0) return 'b';
  if (alter > 0) return '#';
  return '';
}

function tensionName(value: number, mark: string, alter: number) {
  if (value === 6) return 'b13';
  if (mark === 'b11') return '3';
  if (value === 4) return '#11';
  if (value === 2) return `${alter < 0 ? 'b' : '#'}9`;
  return mark;
}
