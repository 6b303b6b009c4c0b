import type { ChangeReport } from '../../analyse';
import { elementAt } from '../../shared';
import { ENOUGH, type Counted, type FindingContext } from '../finding';
import { barAt, throughBar } from '../bars';
import { defineKind } from '../measure';
import { beatsInWords } from '../words';
import { detectHomeScaleOnly } from './homeScaleOnly';
import { countOldTones } from './stillOnOldChord';
import { wilsonInterval } from '../wilson';

type Facts = {
  readonly from: number;
  readonly to: number;
  /** Beats by which the line fits the chart earlier; negative: later. */
  readonly lag: number;
};

const LOST_BARS = 4;
const MOST_OF = 0.7;
const HABIT = 0.65;

/** Four bars or more over which the line fits the chart better earlier or later. */
function detect(context: FindingContext): Counted<Facts>[] {
  const { report, timeline } = context;
  const barsIn = ({ fromBeat, toBeat }: (typeof report.place)[number]) =>
    barAt(context, toBeat - 0.01) - barAt(context, fromBeat) + 1;
  const lost = report.place.filter((one) => barsIn(one) >= LOST_BARS);
  const [first] = lost;
  if (!first) return [];
  const bars = lost.flatMap((one) =>
    Array.from({ length: barsIn(one) }, (_, index) => barAt(context, one.fromBeat) + index),
  );
  const all = report.summary.choruses * timeline.bars.length;
  // a line that fits nowhere in particular, or runs behind throughout, is not lost
  if (Math.abs(report.time.lagBeats) >= 0.5 || bars.length > MOST_OF * all || isHabit(context, bars))
    return [];
  return [
    {
      where: { bars },
      met: Math.max(0, all - bars.length),
      of: all,
      limit: 1,
      raised: true,
      weight: 3,
      facts: {
        from: elementAt(bars, 0),
        to: elementAt(bars, bars.length - 1) + 1,
        lag: first.lagBeats,
      },
    },
  ];
}

/**
 * What the player does outside the lost bars too is a habit, no loss: a line of the home scale tells no chord,
 * and tones of the old chord at every change look like a bar behind.
 */
function isHabit(context: FindingContext, lost: readonly number[]): boolean {
  const isOneScale = detectHomeScaleOnly(context).some(
    ({ met, of, limit }) => of >= ENOUGH && wilsonInterval(met, of)[1] < limit,
  );
  if (isOneScale) return true;
  const inside = new Set(lost);
  const isElsewhere = (change: ChangeReport) => !inside.has(throughBar(context, change));
  const { met, of } = countOldTones(context, isElsewhere);
  return of >= ENOUGH && met / of < HABIT;
}

/** The player lost the form for a while. */
export const lostPlace = defineKind<Facts>({
  id: 'lost-place',
  name: 'lost the place',
  drill: 'ladder-roots',
  isNoProgress: true,
  detect,
  say: ({ facts: { from, to, lag } }) => ({
    title: 'Where you are in the form',
    sentence: `From bar ${from} your line fitted the chart ${beatsInWords(lag)} ${lag > 0 ? 'earlier' : 'later'}; you were back in bar ${to}.`,
    advice: 'Sing the root of every fourth bar.',
  }),
  example: { from: 5, to: 13, lag: 4 },
});
