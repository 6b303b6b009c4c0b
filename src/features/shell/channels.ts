import type { Channel } from '@/audio/input/captureMessage';
import { elementAt } from '@/core/shared';

/** As loud as a note that is played, in dBFS. */
const LIVELY_DB = -48;

/**
 * Another channel than the chosen one, from 0, where something moves; null where none does. @param levels of
 * each channel, in dBFS
 */
export function movingChannel(levels: readonly number[], chosen: Channel): number | null {
  const loudest = levels.reduce((best, level, index) => (level > elementAt(levels, best) ? index : best), 0);
  return levels.length > 1 && elementAt(levels, loudest) > LIVELY_DB && chosen !== loudest ? loudest : null;
}
