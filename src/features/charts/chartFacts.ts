import { changesOf, harmonyOf, timelineOf, type Chart } from '@/core/chart';
import { keyName } from '@/core/music';
import { typeset } from '@/core/music';
import { intervalLabel } from '@/ui/intervalLabel';
import { elementAt } from '@/core/shared';

/** What the machine reads in a chart, as short facts beside it. */
export type ChartFacts = {
  readonly summary: string;
  readonly readAs: string;
  readonly home: string;
  readonly functions: readonly { chord: string; degree: string }[];
  readonly changes: string;
  /** ii–Vs and turnarounds with their bars; empty without any. */ readonly brackets: string;
};

export function chartFacts(chart: Chart): ChartFacts {
  const timeline = timelineOf(chart, chart.tempo ?? 120);
  const harmony = harmonyOf(chart, timeline);
  const first = harmony.readings.find((reading) => reading !== null);
  const key = typeset(first ? keyName(first.key) : 'C major');
  const { blues, minorBlues, vamp } = harmony.character;
  const seen = new Map<string, string>();
  for (const reading of harmony.readings)
    if (reading && !seen.has(`${reading.chord.symbol} ${reading.degree}`))
      seen.set(`${reading.chord.symbol} ${reading.degree}`, reading.degree);
  const perChorus = changesOf(timeline, 2).filter((change) => change.chorus === 1);
  const kinds = new Set(perChorus.map((change) => `${change.from.symbol} ${change.to.symbol}`)).size;
  const barOf = (stretch: number) => elementAt(timeline.chordSpans, stretch).bar + 1;
  const span = ({ from, to }: { from: number; to: number }) =>
    barOf(from) === barOf(to - 1) ? `${barOf(from)}` : `${barOf(from)}–${barOf(to - 1)}`;
  const spans = (kind: 'ii-V' | 'turnaround') =>
    harmony.brackets.filter((one) => one.kind === kind).map(span);
  const said = (name: string, all: readonly string[]) =>
    all.length === 0
      ? []
      : [
          `${name} in ${all.length === 1 && !elementAt(all, 0).includes('–') ? 'bar' : 'bars'} ${all.slice(0, 6).join(', ')}${all.length > 6 ? ' and more' : ''}`,
        ];
  const runnerUp = harmony.regions.length === 1 ? elementAt(harmony.regions, 0).runnerUp : null;
  const near = runnerUp ? `; ${typeset(keyName(runnerUp))} is near` : '';
  const readAsWords = () => {
    if (minorBlues) return `minor blues in ${key}`;
    if (blues) return `blues in ${key.split(' ')[0]}`;
    if (vamp) return `vamp on ${key.replace(' major', '')}`;
    return chart.key ? key : `${key}, found from its cadences${near}`;
  };
  return {
    brackets: [...said('ii–V', spans('ii-V')), ...said('turnaround', spans('turnaround'))].join('; '),
    summary: [
      `${chart.bars.length} bars in ${key.replace(' major', '')}`,
      chart.feel,
      chart.tempo,
      chart.pickup > 0 && `pickup of ${chart.pickup} ${chart.pickup === 1 ? 'beat' : 'beats'}`,
    ]
      .filter(Boolean)
      .join(', '),
    readAs: readAsWords(),
    home: typeset(harmony.homeScales[0]?.name ?? ''),
    functions: [...seen].map(([id, degree]) => ({
      chord: id.slice(0, id.lastIndexOf(' ')),
      degree: intervalLabel(degree),
    })),
    changes:
      perChorus.length === 0
        ? 'none: one chord throughout'
        : `${perChorus.length} a chorus, ${kinds} ${kinds === 1 ? 'kind' : 'kinds'}`,
  };
}
