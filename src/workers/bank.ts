import { Instruments } from '@/core/band';
import type { Hz } from '@/core/shared';

/**
 * Where the recorded instruments are served from; the number changes with the bank, so that it can be kept for
 * ever.
 */
export const BANK = '/band/instruments-1.sf2';

/** The band's instruments in a worker, fetched once a page and then from the browser's cache. */
export async function instrumentsAt(rate: Hz): Promise<Instruments> {
  const answer = await fetch(BANK);
  if (!answer.ok) throw new Error(`The band's instruments did not come: ${answer.status}.`);
  return Instruments.load(await answer.arrayBuffer(), rate);
}
