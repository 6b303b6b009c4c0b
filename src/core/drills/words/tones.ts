import { present } from '../../shared';
import type { Aim } from '../aims';

const TONES: readonly Aim[] = ['root', 'third', 'fifth', 'seventh', 'sixth', 'ninth', 'fourth'];
const ONE = '(?:root|third|fifth|seventh|sixth|ninth|fourth|chord tone|target)s?';

/** One tone or several, as a pattern: `third or seventh`. */
export const TONE_LIST = `(${ONE}(?:(?:,? or |,? and |, | )${ONE})*)`;

/** The tones that a list names. */
export function aimsIn(list: string | undefined): Aim[] {
  const words = present(list);
  const named = TONES.filter((tone) => new RegExp(`\\b${tone}`).test(words));
  if (named.length > 0) return named;
  return words.includes('target') ? ['third', 'seventh'] : ['chord'];
}
