/** A count as a player would say it: never, once, twice, 3 times. */
export const times = (count: number): string => ['never', 'once', 'twice'][count] ?? `${count} times`;

const INTERVAL_WORDS: Record<string, string> = {
  '1': 'root',
  b9: 'flat ninth',
  '9': 'ninth',
  '#9': 'sharp ninth',
  b3: 'third',
  '3': 'third',
  '4': 'fourth',
  '#11': 'sharp eleventh',
  b5: 'flat fifth',
  '5': 'fifth',
  '#5': 'sharp fifth',
  b13: 'flat thirteenth',
  '6': 'sixth',
  b7: 'seventh',
  '7': 'major seventh',
  n3: 'neutral third',
  n5: 'neutral fifth',
  n7: 'neutral seventh',
};

/** A printed interval in words. */
export const intervalWord = (interval: string): string => INTERVAL_WORDS[interval] ?? interval;

/**
 * Plain text with typeset accidentals, for sentences.
 * @example
 * typeset('Bb7') // 'B♭7'
 * typeset('C7#9') // 'C7♯9'
 */
export const typeset = (text: string): string =>
  text
    .replace(/([A-G])b(?!\w*lues)/g, '$1♭')
    .replace(/([A-G])#/g, '$1♯')
    .replace(/♭b/g, '♭♭')
    .replace(/b(?=\d)/g, '♭')
    .replace(/#(?=\d)/g, '♯');

const RANGES = [
  'one note',
  'a half step',
  'a whole step',
  'a minor third',
  'a third',
  'a fourth',
  'a tritone',
  'a fifth',
  'a minor sixth',
  'a sixth',
  'a seventh',
  'a seventh',
  'an octave',
] as const;

/** A range of semitones as an interval. */
export const rangeInWords = (semitones: number): string => RANGES[semitones] ?? `${semitones} half steps`;
