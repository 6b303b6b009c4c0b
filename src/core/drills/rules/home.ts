import { elementAt, type Beats } from '../../shared';
import { outsideAt } from '../drillContext';
import type { RuleCheck } from '../rule';
import { NEAR, startOfBar, type AttemptContext } from './context';
import type { RuleKind } from './ruleKind';

/** In every so many-th bar out of the chords, and home on a chord tone at the bar line after it. */
export type HomeRule = { readonly kind: 'home'; readonly every: number };

/**
 * Bars that were played in before a bar line to come home at: something above the scale in them, and a chord
 * tone on the line.
 */
function placesAtHome(context: AttemptContext, every: number): RuleCheck[] {
  const { report, timeline } = context;
  // what goes out elsewhere has to come home too
  const places: RuleCheck[] = report.stepOuts
    .filter(({ homeIndex }) => homeIndex === null)
    .map(({ noteIndices }) => ({
      beat: elementAt(report.notes, elementAt(noteIndices, 0)).onsetBeat,
      met: false,
    }));
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
        met:
          inBar.filter(({ height }) => height >= 3).length >= leastOut(context, from) &&
          arrival?.height === 0,
      });
  }
  return places.sort((a, b) => a.beat - b.beat);
}

/** Three notes say that a line has left; one has to do over a chord whose scales leave nearly nothing out. */
const leastOut = (context: AttemptContext, from: Beats): number =>
  outsideAt(context, from + NEAR).length >= 4 ? 3 : 1;

const ORDINALS: Readonly<Record<number, string>> = { 2: 'second', 3: 'third', 4: 'fourth', 8: 'eighth' };

export const HOME: RuleKind<HomeRule> = {
  id: 'home',
  judge: ({ every }, context) => placesAtHome(context, every),
  counted: () => 'arrivals',
  words: ({ every }) =>
    `Every ${ORDINALS[every] ?? `${every}th`} bar out of the chords, and home on a chord tone at the bar line.`,
  example: ({ every }, recipe) => ({ ...recipe, out: every }),
};
