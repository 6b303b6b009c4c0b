import type { Report } from '../../analyse';
import type { Timeline } from '../../chart';
import type { RuleCheck } from '../rule';
import { NEAR, startOfBar } from './context';
import type { RuleKind } from './ruleKind';

/** In every so many-th bar out of the chords, and home on a chord tone at the bar line after it. */
export type HomeRule = { readonly kind: 'home'; readonly every: number };

/**
 * Bars that were played in before a bar line to come home at: something above the scale in them, and a chord
 * tone on the line.
 */
function placesAtHome(report: Report, timeline: Timeline, every: number): RuleCheck[] {
  const places: RuleCheck[] = [];
  const last = report.notes[report.notes.length - 1]?.onsetBeat ?? -1;
  for (let bar = every; startOfBar(timeline, bar) <= last + NEAR; bar += every) {
    const [from, home] = [startOfBar(timeline, bar - 1), startOfBar(timeline, bar)];
    const inBar = report.notes.filter(
      ({ onsetBeat, function: role }) =>
        role !== 'grace' && onsetBeat >= from - NEAR && onsetBeat < home - NEAR,
    );
    const arrival = report.notes.find(({ onsetBeat, top }) => top && Math.abs(onsetBeat - home) <= NEAR);
    if (inBar.length > 0)
      places.push({
        beat: home,
        met: inBar.filter(({ height }) => height >= 3).length >= 3 && arrival?.height === 0,
      });
  }
  return places;
}

const ORDINALS: Readonly<Record<number, string>> = { 2: 'second', 3: 'third', 4: 'fourth', 8: 'eighth' };

export const HOME: RuleKind<HomeRule> = {
  id: 'home',
  judge: ({ every }, { report, timeline }) => placesAtHome(report, timeline, every),
  counted: () => 'arrivals',
  words: ({ every }) =>
    `Every ${ORDINALS[every] ?? `${every}th`} bar out of the chords, and home on a chord tone at the bar line.`,
  example: ({ every }, recipe) => ({ ...recipe, out: every }),
};
