import { chorusAt } from '../../chart';
import type { Report } from '../../analyse';
import { elementAt } from '../../shared';
import { defineStrength } from '../strength';

type Facts = {
  readonly by: 'busier' | 'higher' | 'louder';
  readonly peak: number;
  readonly choruses: number;
};

const FEWEST_CHORUSES = 3;
const GROWTH = { busier: 1, higher: 2, louder: 2 } as const;

/** The solo builds over its choruses: more notes, higher, or louder, up to a high point late in it. */
export const builtUp = defineStrength<Facts>({
  id: 'built-up',
  detect: ({ report, timeline }) => {
    const { choruses } = report.summary;
    if (choruses < FEWEST_CHORUSES) return null;
    for (const [by, values] of curves(report, timeline.formBeats)) {
      const peak = values.indexOf(Math.max(...values));
      const rises = values.slice(1, peak + 1).every((value, index) => value >= elementAt(values, index));
      if (peak * 2 < choruses || !rises) continue;
      if (elementAt(values, peak) - elementAt(values, 0) < GROWTH[by]) continue;
      return {
        bar: peak * timeline.bars.length + 1,
        score: 0.62,
        facts: { by, peak: peak + 1, choruses },
      };
    }
    return null;
  },
  say: ({ by, peak, choruses }) =>
    `Your solo built up: each chorus was ${by} than the one before, up to chorus ${peak} of ${choruses}.`,
  examples: [
    { by: 'busier', peak: 3, choruses: 3 },
    { by: 'higher', peak: 4, choruses: 5 },
    { by: 'louder', peak: 2, choruses: 3 },
  ],
});

/** By chorus: notes a bar, middle pitch in semitones, loudness in dB. */
function curves(report: Report, formBeats: number): readonly (readonly [Facts['by'], readonly number[]])[] {
  const { arc, notes } = report;
  const pitches = arc.map(({ chorus }) => {
    const inChorus = notes.filter(
      ({ top, onsetBeat }) => top && chorusAt({ formBeats }, onsetBeat) === chorus - 1,
    );
    return inChorus.reduce((sum, { midi }) => sum + midi, 0) / Math.max(1, inChorus.length);
  });
  const loud = arc.flatMap(({ loudness }) => loudness ?? []);
  return [
    ['busier', arc.map(({ density }) => density)],
    ['higher', pitches],
    ...(loud.length === arc.length ? ([['louder', loud]] as const) : []),
  ];
}
