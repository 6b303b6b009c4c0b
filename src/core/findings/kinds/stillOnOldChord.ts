import { readChord } from '../../music';
import { unwrap } from '../../shared';
import type { ChangeReport } from '../../analyse';
import type { Counted, FindingContext } from '../finding';
import { restingOnLandings } from '../evidence';
import { throughBar } from '../bars';
import { defineKind } from '../measure';
import { share } from '../words';
import { landedOn, pcAt } from './landed';

type Facts = Record<string, never>;

/** At the change a tone of the old chord that the new one lacks. */
export function countOldTones(
  context: FindingContext,
  counts: (change: ChangeReport) => boolean = () => true,
): Counted<Facts> {
  const all = landedOn(context).filter(
    (change) => counts(change) && (change.landing.timing === 'on' || change.landing.timing === 'held'),
  );
  const still = all.filter((change) => {
    const pc = pcAt(context, change.landing.noteIndex);
    const has = (symbol: string) => unwrap(readChord(symbol)).tones.some((tone) => tone.pc === pc);
    return has(change.from) && !has(change.to);
  });
  return {
    where: { bars: still.map((change) => throughBar(context, change)) },
    met: all.length - still.length,
    of: all.length,
    rests: restingOnLandings(all, still),
    limit: 0.65,
    worth: 0.8,
    facts: {},
  };
}

/** The line stays on the chord before. */
export const stillOnOldChord = defineKind<Facts>({
  id: 'still-on-old-chord',
  name: 'still on the old chord',
  hides: ['target-missed', 'targets-missed'],
  drill: 'nearest-note',
  detect: (context) => [countOldTones(context)],
  say: ({ missed, of }) => ({
    title: 'Still on the old chord',
    praised: 'Leaving the old chord',
    sentence: `At ${share(missed, of, 'change')} you were still on a note of the chord before.`,
    advice: 'Move to the nearest note of the new chord.',
  }),
  example: {},
});
