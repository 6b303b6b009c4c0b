import type { LineLevel } from '@/core/drills';
import type { Together } from '@/core/analyse';
import type { ChorusLevel, LeadInto, SpelledShape } from '@/core/findings';
import { rangeInWords, times, typeset } from '@/core/music';

/** An arpeggio as players name it, from the chord: `minor seventh on the 6`. */
export function shapeWords({ name, relation }: Pick<SpelledShape, 'name' | 'relation'>): string {
  const words = name.replaceAll('-', ' ');
  if (relation === null) return words;
  return relation === '1' ? `${words} on the root` : `${words} on the ${typeset(relation)}`;
}

/** With how often and where: `minor seventh on the 6, twice, bars 3 and 7`. */
export const spelledWords = (shape: SpelledShape): string =>
  `${shapeWords(shape)}, ${times(shape.count)}, ${shape.bars.length === 1 ? 'bar' : 'bars'} ${shape.bars.join(', ')}`;

const LEVELS: Readonly<Record<LineLevel, string>> = {
  locked: 'locked to the chords',
  'one-scale': 'one scale over everything',
  'borrowed-shapes': 'shapes of other chords',
  free: 'free, and home again',
};

const INVERSIONS = ['root position', 'first inversion', 'second inversion'] as const;

/** What was struck together with a note: `a sixth: ♭7 and 5`, `C, first inversion`; empty for a single note. */
export function togetherWords({ dyad, name, inversion }: Together): string {
  if (dyad) {
    const degrees = dyad.degrees.map((degree) => (degree === null ? '–' : typeset(degree))).join(' and ');
    return `${dyad.semitones > 12 ? `an octave and ${rangeInWords(dyad.semitones - 12)}` : rangeInWords(dyad.semitones)}: ${degrees}`;
  }
  if (!name) return '';
  return inversion === undefined ? typeset(name) : `${typeset(name)}, ${INVERSIONS[inversion]}`;
}

/** A level of the course by name. */
export const lineLevelName = (level: LineLevel): string => LEVELS[level];

/** `locked to the chords, as meant`, or what was meant instead. */
export function levelWords({ level, meant }: Omit<ChorusLevel, 'chorus'>): string {
  if (level === null) return 'too few notes to tell';
  if (meant === null || meant === level) return `${LEVELS[level]}, as meant`;
  return `${LEVELS[level]}; meant was ${LEVELS[meant]}`;
}

/** Where a tone was led from: `from ♭3`, `from above, 4`, `slid into`. */
export function leadWords({ from, side }: Pick<LeadInto, 'from' | 'side'>): string {
  if (from === 'slide') return 'slid into';
  if (from === 'bend') return 'bent into';
  if (from === 'grace') return `by a grace note from ${side}`;
  return `from ${typeset(from)} ${side}`;
}
