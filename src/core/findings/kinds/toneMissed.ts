import { readChord, toneByRole, type ToneRole } from '../../music';
import { unwrap } from '../../shared';
import type { Counted, FindingContext, ToneName } from '../finding';
import { counted } from '../words';
import { restingOnLandings } from '../evidence';
import { throughBar } from '../bars';
import { defineKind } from '../measure';
import { times } from '../../music';
import { landedOn, pcAt, targetsAt, type LandedChange } from './landed';

type Facts = { readonly tone: ToneName };

const ROLES: Readonly<Record<ToneName, readonly ToneRole[]>> = {
  root: ['root'],
  third: ['third', 'sus'],
  fifth: ['fifth'],
  seventh: ['seventh', 'sixth'],
};
const NAMES: readonly ToneName[] = ['root', 'third', 'fifth', 'seventh'];
const OTHER_GUIDE: Partial<Record<ToneName, ToneName>> = { third: 'seventh', seventh: 'third' };

const toneAt = (change: LandedChange, name: ToneName) =>
  toneByRole(unwrap(readChord(change.to)), ...ROLES[name]);

/**
 * One target tone that hardly ever is the landing, over all changes that ask for it.
 * Rule T13.7: only thirds and sevenths, but on the ladder's own rungs; nothing where the other guide tone is met
 * at half of the same changes.
 */
function detect(context: FindingContext): Counted<Facts>[] {
  const landed = landedOn(context);
  const isRung = context.plan.id === 'single-target';
  return NAMES.flatMap((tone): Counted<Facts>[] => {
    if (!isRung && OTHER_GUIDE[tone] === undefined) return [];
    const asked = landed.filter((change) => {
      const pc = toneAt(change, tone)?.pc;
      return pc !== undefined && targetsAt(context, change).includes(pc);
    });
    const meets = (change: LandedChange, name: ToneName) =>
      pcAt(context, change.landing.noteIndex) === toneAt(change, name)?.pc;
    const missed = asked.filter((change) => !meets(change, tone));
    const other = OTHER_GUIDE[tone];
    const otherMet = other === undefined ? 0 : asked.filter((change) => meets(change, other)).length;
    return [
      {
        where: { tone, bars: missed.map((change) => throughBar(context, change)) },
        met: asked.length - missed.length,
        of: asked.length,
        rests: restingOnLandings(asked, missed),
        limit: 0.2,
        worth: 0.5,
        ...(otherMet * 2 >= asked.length ? { raised: false } : {}),
        facts: { tone },
      },
    ];
  });
}

/** A tone of the chord that is hardly ever landed on. */
export const toneMissed = defineKind<Facts>({
  id: 'tone-missed',
  name: 'one tone missed',
  hides: ['target-missed', 'targets-missed'],
  drill: ({ tone = 'third' }) => `ladder-${tone}s` as const,
  detect,
  say: ({ met, of, facts: { tone } }) => ({
    title: `Landing on the ${tone}`,
    sentence:
      met === 0
        ? `You never landed on the ${tone} in ${counted(of, 'change')}.`
        : `You landed on the ${tone} ${times(met)} in ${counted(of, 'change')}.`,
    advice: `Play the ${tone} on each new chord, and nothing else.`,
  }),
  example: { tone: 'third' },
});
