import type { Phrase, Report } from '../../analyse';

/**
 * Phrases without those that state a theme again, fitted to their chord: sameness there is meant (T13.7).
 */
export const withoutThemes = ({ phrases }: Report): Phrase[] =>
  phrases.filter(({ changed }) => !changed?.some(({ toChordTone }) => toChordTone));
