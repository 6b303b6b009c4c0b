import { modulo, defined } from '../shared';
import {
  FLAT_NAMES,
  isDominant,
  keyName,
  noteName,
  pitchClass,
  rootPc,
  toneByRole,
  type Chord,
  type Key,
} from '../music';
import { fallsAFifth, numeral, restsInBlues, stepInKey } from './degree';
import type { HarmonicReadingContext } from './context';

/** Another way to hear a chord, with what speaks for it. */
export type OtherReading = { readonly degree: string; readonly reason: string };

/**
 * Why a chord is read as it is, in one sentence. Chords and keys are written in chart symbols.
 * @param lender the scale it is borrowed from, or null
 */
export function reasonOf(context: HarmonicReadingContext, degree: string, lender: string | null): string {
  const { chord, next, key } = context;
  const home = tonicName(key);
  if (degree.startsWith('subV'))
    return `${chord.symbol} slips down a half step into ${next.symbol}: it stands in for ${rootName(chord, 6)}7, whose third and seventh it shares.`;
  if (degree.startsWith('V/'))
    return `${chord.symbol} falls a fifth to ${next.symbol}: it is that chord’s own dominant.`;
  if (degree.startsWith('vii/') || (degree === 'vii' && chord.quality.startsWith('diminished')))
    return `${chord.symbol} lies a half step under ${next.symbol} and leads into it.`;
  if (restsInBlues(context))
    return `In a blues the ${stepInKey(chord, key) === 0 ? 'tonic' : 'fourth degree'} carries its own minor seventh: ${chord.symbol} rests and need not resolve.`;
  if (lender !== null) return `${chord.symbol} is not of ${keyName(key)}: it is borrowed from ${lender}.`;
  if (degree === 'V')
    return key.minor
      ? minorFive(chord, home)
      : `${chord.symbol} is the dominant: it wants to go home to ${home}.`;
  if (isRelatedTwo(context)) return `${chord.symbol} prepares ${next.symbol}: the two are a ii–V.`;
  if (stepInKey(chord, key) === 0) return `${chord.symbol} is home in ${keyName(key)}.`;
  return `${chord.symbol} stands on the ${ORDINALS[stepInKey(chord, key)]} degree of ${keyName(key)}.`;
}

const ORDINALS = [
  'first',
  'lowered second',
  'second',
  'lowered third',
  'third',
  'fourth',
  'raised fourth',
  'fifth',
  'lowered sixth',
  'sixth',
  'lowered seventh',
  'seventh',
];

const tonicName = (key: Key): string => noteName(key.tonic) + (key.minor ? 'm' : '');

const rootName = (chord: Chord, up: number): string => defined(FLAT_NAMES[modulo(rootPc(chord) + up, 12)]);

function minorFive(chord: Chord, home: string): string {
  const third = toneByRole(chord, 'third');
  return third?.semitones === 4
    ? `${chord.symbol} is the dominant of ${home}: its ${noteName(third.note)} comes from the harmonic minor and leads home.`
    : `${chord.symbol} is the fifth degree of ${home}.`;
}

const isMinorSeventh = (chord: Chord): boolean =>
  (chord.quality === 'minor' || chord.quality === 'half-diminished') &&
  toneByRole(chord, 'seventh') !== undefined;

/** A m7 or m7♭5 followed by a dominant a fourth up. */
export const isRelatedTwo = (context: HarmonicReadingContext): boolean =>
  isMinorSeventh(context.chord) && isDominant(context.next) && fallsAFifth(context);

/**
 * The reading that comes next, where a chord can be heard two ways.
 * Rule T2.5: ambiguous, best reading and runner-up.
 */
export function runnerUpOf(context: HarmonicReadingContext, degree: string): OtherReading | null {
  const { chord, key } = context;
  const plain = numeral(chord, key);
  const step = stepInKey(chord, key);
  if (degree.includes('/') || (degree.startsWith('subV') && plain !== degree))
    return {
      degree: plain,
      reason: `Heard without where it goes, ${chord.symbol} is the chord on the ${ORDINALS[step]} degree.`,
    };
  if (isDominant(chord) && degree === 'bVII') return flatSevenOtherwise(context);
  if (isRelatedTwo(context) && degree !== 'ii') {
    const related = relatedTwoOtherwise(context);
    if (related) return related;
  }
  if (chord.quality === 'diminished-seventh' && !degree.startsWith('vii'))
    return {
      degree: 'vii/V',
      reason:
        'A diminished seventh is the same chord from each of its tones: one of them may lead to the next chord.',
    };
  if (isDominant(chord) && step === 0 && !key.minor)
    return { degree: 'V/IV', reason: 'A tonic with a minor seventh can lead on to the fourth degree.' };
  return null;
}

function flatSevenOtherwise(context: HarmonicReadingContext): OtherReading | null {
  const { key, next } = context;
  if (fallsAFifth(context))
    return { degree: `V/${numeral(next, key)}`, reason: `It falls a fifth to ${next.symbol}.` };
  if (stepInKey(next, key) !== 0) return null;
  return {
    degree: 'subV/vi',
    reason: 'It shares its third and seventh with the dominant of the sixth degree, where it could slip to.',
  };
}

function relatedTwoOtherwise({ key, next }: HarmonicReadingContext): OtherReading | null {
  const aim = modulo(rootPc(next) + 5 - pitchClass(key.tonic), 12);
  if (aim === 0) return null;
  return { degree: `ii/${BY_STEP[aim]}`, reason: `With ${next.symbol} it is the ii–V of another degree.` };
}

const BY_STEP = ['I', 'bII', 'ii', 'bIII', 'iii', 'IV', 'bV', 'V', 'bVI', 'vi', 'bVII', 'vii'];
