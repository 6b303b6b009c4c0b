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
function seventhKind(chord: Chord): { kind: string; degrees: KindDegree[] } {
  const role = (...roles: Parameters<typeof toneByRole>[1][]) => toneByRole(chord, ...roles)?.semitones;
  const [third, sus, fifth, seventh] = [role('third'), role('sus'), role('fifth'), role('seventh')];
  let bent: KindDegree[];
  if (fifth === 6) bent = [change(5, -1)];
  else if (fifth === 8) bent = [change(5, 1)];
  else bent = [];
  if (chord.quality === 'power') return { kind: 'power', degrees: [] };
  if (sus !== undefined)
    return {
      kind: sus === 2 ? 'suspended-second' : 'suspended-fourth',
      degrees: [...bent, ...(seventh === undefined ? [] : [add(7, seventh === 11 ? 1 : 0)])],
    };
  if (chord.altered) return { kind: 'dominant', degrees: [{ value: 5, alter: 0, type: 'subtract' }] };
  if (role('sixth') !== undefined)
    return { kind: third === 3 ? 'minor-sixth' : 'major-sixth', degrees: bent };
  if (third === 3 && fifth === 6)
    return {
      kind: diminishedKind(seventh),
      degrees: seventh === 11 ? [add(7, 1)] : [],
    };
  if (third === 4 && fifth === 8 && seventh === undefined) return { kind: 'augmented', degrees: [] };
  if (third === 4 && fifth === 8 && seventh === 10) return { kind: 'augmented-seventh', degrees: [] };
  if (seventh === undefined) return { kind: third === 3 ? 'minor' : 'major', degrees: bent };
  if (third === 3) return { kind: seventh === 11 ? 'major-minor' : 'minor-seventh', degrees: bent };
  return { kind: seventh === 11 ? 'major-seventh' : 'dominant', degrees: bent };
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
  if (degrees.some((one) => one.type === 'subtract' && one.value === 5) && base === '7') return '7alt';
  let head = base;
  const marks: string[] = [];
  const sorted = [...degrees].sort((a, b) => a.value - b.value);
  for (const { value, alter, type } of sorted) {
    if (type === 'subtract') {
      if (value === 3 && head === '') head = '5';
      continue;
    }
    const mark = `${accidentalOf(alter)}${value}`;
    if (value === 7 && type === 'add') head = withSeventh(head, alter);
    else if (value === 6 && type === 'add' && alter === 0 && (head === '' || head === 'm')) head += '6';
    else if (alter !== 0) marks.push(tensionName(value, mark, alter));
    else if (value === 5 || type === 'alter') continue;
    else head = withNatural(head, value);
  }
  const plain = head.replace(/\)$/, '');
  if (marks.length === 0) return head;
  if (head.endsWith(')')) return `${plain},${marks.join(',')})`;
  return `${head}(${marks.join(',')})`;
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
