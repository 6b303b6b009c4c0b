import { elementAt } from '../../shared';
import { ENOUGH } from '../finding';
import { marksOf } from '../marks';
import { throughBar } from '../bars';
import { defineStrength } from '../strength';
import { counted } from '../words';

type Facts = { readonly met: number; readonly of: number; readonly row: number; readonly bar: number };

const WELL = 0.55;
const LONG_ROW = 3;

/** Most changes are met, and the longest row of them. */
export const landingsMet = defineStrength<Facts>({
  id: 'landings-met',
  detect: (context) => {
    const { report, plan, chart, tempo } = context;
    const marks = marksOf(report, plan, chart, tempo);
    const judged = report.changes.flatMap((change, index) => {
      const mark = elementAt(marks, index);
      return mark === 'rest' ? [] : [{ change, isMet: mark === 'target' || mark === 'target-late' }];
    });
    const met = judged.filter(({ isMet }) => isMet).length;
    if (judged.length < ENOUGH || met / judged.length < WELL) return null;
    let [row, best, start] = [0, 0, 0];
    judged.forEach(({ isMet }, index) => {
      row = isMet ? row + 1 : 0;
      if (row > best) [best, start] = [row, index - row + 1];
    });
    const bar = throughBar(context, elementAt(judged, start).change);
    return { bar, score: met / judged.length, facts: { met, of: judged.length, row: best, bar } };
  },
  say: ({ met, of, row, bar }) => {
    const inARow = row >= LONG_ROW && row < of ? `, ${row} in a row from bar ${bar}` : '';
    return `You met ${met === of ? `all ${counted(of, 'change')}` : `${met} of ${counted(of, 'change')}`}${inARow}.`;
  },
  examples: [
    { met: 21, of: 26, row: 8, bar: 5 },
    { met: 12, of: 12, row: 12, bar: 1 },
    { met: 4, of: 6, row: 2, bar: 3 },
  ],
});
