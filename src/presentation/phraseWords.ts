import type { PhraseEnd, Report } from '@/core/analyse';
import { rangeInWords } from '@/core/music';
import type { Found, Transfer, Variation } from '@/core/phrases';

const TRANSFER_WORDS: Record<Transfer, { readonly name: string; readonly what: string }> = {
  degree: { name: 'by degree', what: 'The same degrees of every chord, major or minor as that chord is.' },
  step: { name: 'by scale step', what: 'The same way through each chord’s own scale.' },
  contour: {
    name: 'by contour',
    what: 'The same rhythm and turns; chord tones on strong beats and at the end.',
  },
  exact: { name: 'exactly', what: 'Every interval as it was, moved with the root.' },
};
/** What a way of carrying a phrase is called, and what it keeps. */
export const transferWords = (transfer: Transfer) => TRANSFER_WORDS[transfer];

const VARIATION_WORDS: Record<Variation, string> = {
  reversed: 'backwards',
  inverted: 'upside down',
  'other-rhythm': 'another rhythm',
  'beat-later': 'a beat later',
  'eighth-later': 'an eighth later',
  halved: 'twice as fast',
  doubled: 'half as fast',
  'other-ending': 'another last note',
  extended: 'extended',
};
export const variationWords = (variation: Variation): string => VARIATION_WORDS[variation];

const END_WORDS: Record<PhraseEnd, string> = { home: 'comes home', floats: 'floats', asks: 'wants to go on' };
export const endWords = (end: PhraseEnd): string => END_WORDS[end];

/** Where a last note would have to go to come home. */
export function homeWords(by: number | null): string {
  if (by === null) return 'no tone near it';
  if (by === 0) return '–';
  return stepWords(by);
}

/** `a minor third up`; in semitones, down below zero. */
export const stepWords = (by: number): string => `${rangeInWords(Math.abs(by))} ${by > 0 ? 'up' : 'down'}`;

/** How far a moving cell leaves the chords, and whether it comes home. */
export function cellWords({ notes, stepOuts }: Pick<Report, 'notes' | 'stepOuts'>): string {
  const outside = notes.filter(({ tier }) => tier === 'outside').length;
  const [out] = stepOuts;
  if (out?.homeIndex !== null && out !== undefined)
    return `It steps out over ${out.noteIndices.length} notes and comes home.`;
  if (outside === 0) return 'Every note stays inside the scales of the chords.';
  return `${outside} ${outside === 1 ? 'note is' : 'notes are'} outside the scales, scattered: begin on a chord whose tones the cell holds.`;
}

/** `Played 3 times in 2 takes.` */
export function playedAgainWords(counts: readonly number[]): string {
  const total = counts.reduce((sum, count) => sum + count, 0);
  if (total === 0) return 'In none of your takes so far.';
  const times = total === 1 ? 'once' : `${total} times`;
  return `Played ${times} in ${counts.length} ${counts.length === 1 ? 'take' : 'takes'}.`;
}

/** `2 as it is, 1 moved, 1 with a note changed` */
export function foundWords(found: readonly Found[]): string {
  const count = (how: Found['how']) => found.filter((one) => one.how === how).length;
  const changed = Math.max(0, ...found.map((one) => one.changed.length));
  const parts: readonly (readonly [number, string])[] = [
    [count('exact'), 'as it is'],
    [count('moved'), 'moved'],
    [count('fitted'), changed > 1 ? 'with notes changed' : 'with a note changed'],
  ];
  return parts
    .filter(([n]) => n > 0)
    .map(([n, words]) => `${n} ${words}`)
    .join(', ');
}
