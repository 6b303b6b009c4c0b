import { readChart, routeOf, type Route } from '@/core/chart';
import type { ClickBeats } from '@/core/band';
import type { PlanWords } from '@/core/plan';
import { accepted, refused, type Outcome } from '@/core/shared';
import type { TakeSettings } from '@/audio/takeSettings';
import type { Preferences } from '../shell/preferences';

export type RecordChart = { readonly id: string; readonly title: string; readonly text: string };

/** What the next take is to be, as the player set it. Ranges are kept as typed. */
export type Settings = {
  readonly chartId: string;
  /** Bars to go round in; null for the whole form. */ readonly bars: readonly [number, number] | null;
  readonly tempo: number;
  readonly tempoStep: number;
  readonly keyStep: number;
  readonly choruses: number;
  readonly countInBars: number;
  readonly click: ClickBeats;
  readonly aloneChoruses: string;
  readonly aloneBars: string;
  readonly plan: PlanWords;
  /** A backing of the player's own in the band's place. */ readonly backingId: string | null;
};

export const tempoOf = (chart: RecordChart | undefined): number => {
  const read = chart ? readChart(chart.text) : null;
  return read?.ok ? (read.value.tempo ?? 100) : 100;
};

export const defaultSettings = (
  charts: readonly RecordChart[],
  chartId: string,
  plan: PlanWords | null,
): Settings => ({
  chartId,
  bars: null,
  tempo: tempoOf(charts.find((chart) => chart.id === chartId)),
  tempoStep: 0,
  keyStep: 0,
  choruses: 2,
  countInBars: 1,
  click: 'off',
  aloneChoruses: '',
  aloneBars: '',
  plan: plan ?? { id: 'scale-per-chord' },
  backingId: null,
});

/** Another chart: its own tempo and its whole form. */
export const withChart = (settings: Settings, charts: readonly RecordChart[], chartId: string): Settings => ({
  ...settings,
  chartId,
  bars: null,
  aloneBars: '',
  backingId: null,
  tempo: tempoOf(charts.find((one) => one.id === chartId)),
});

/** How keys may move from one pass to the next. */
export const KEY_STEPS = [
  [0, 'stays'],
  [5, 'round in fourths'],
  [1, 'up a half step'],
  [-1, 'down a half step'],
  [2, 'up a whole step'],
  [3, 'up a minor third'],
] as const;

/**
 * Numbers as people write them: `2, 4` or `9-12`, or both.
 * @returns them in order without repetition; a problem where a piece is none, or beyond `most`
 */
export function readNumbers(text: string, most: number): Outcome<number[]> {
  const found = new Set<number>();
  for (const piece of text
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)) {
    const match = /^(\d{1,3})(?:\s*[-–]\s*(\d{1,3}))?$/.exec(piece);
    const [from, to] = match ? [Number(match[1]), Number(match[2] ?? match[1])] : [0, 0];
    if (!match || from < 1 || from > to || to > most)
      return refused({
        code: 'numbers',
        message: `“${piece}” is not among 1 to ${most}.`,
        suggestion: most > 3 ? '2, 4' : '1',
      });
    for (let number = from; number <= to; number++) found.add(number);
  }
  return accepted([...found].sort((a, b) => a - b));
}

export const routeFor = (settings: Settings, text: string): Outcome<Route> =>
  routeOf(text, {
    passes: settings.choruses,
    tempo: settings.tempo,
    tempoStep: settings.tempoStep,
    keyStep: settings.keyStep,
    ...(settings.bars ? { bars: settings.bars } : {}),
  });

/** The settings as a take is begun with them, or what stands in the way. */
export function takeSettings(
  settings: Settings,
  chart: RecordChart,
  { bandLevel, levels, chords }: Preferences,
  seed: number,
): Outcome<TakeSettings> {
  const route = routeFor(settings, chart.text);
  if (!route.ok) return route;
  const choruses = readNumbers(settings.aloneChoruses, settings.choruses);
  if (!choruses.ok)
    return refused({
      ...choruses.problems[0],
      message: `Choruses without the band: ${choruses.problems[0].message}`,
    });
  const bars = readNumbers(settings.aloneBars, route.value.chart.bars.length);
  if (!bars.ok)
    return refused({ ...bars.problems[0], message: `Bars without the band: ${bars.problems[0].message}` });
  const { chartId, tempo, tempoStep, keyStep, countInBars, plan, click } = settings;
  // where every pass is written out the choruses of the player are bars of the form
  const perPass = route.value.chart.bars.length / settings.choruses;
  const dropOut =
    keyStep !== 0 && settings.choruses > 1
      ? {
          bars: [
            ...bars.value,
            ...choruses.value.flatMap((one) =>
              Array.from({ length: perPass }, (_, bar) => (one - 1) * perPass + bar + 1),
            ),
          ],
        }
      : { choruses: choruses.value, bars: bars.value };
  return accepted({
    chartId,
    chartText: chart.text,
    title: chart.title,
    countInBars,
    plan,
    seed,
    route: {
      passes: settings.choruses,
      tempo,
      tempoStep,
      keyStep,
      ...(settings.bars ? { bars: settings.bars } : {}),
    },
    band: { level: bandLevel, levels, chords, click, dropOut },
  });
}

/** Round and round two bars of the take that has just ended; bars count from 1 in what was played. */
export const loopedSettings = (settings: Settings, [first, last]: readonly [number, number]): Settings => {
  const before = (settings.bars?.[0] ?? 1) - 1;
  return {
    ...settings,
    bars: [first + before, last + before],
    choruses: Math.max(4, settings.choruses),
    keyStep: 0,
    aloneBars: '',
    aloneChoruses: '',
  };
};

/** A part of the setup: the settings as they stand, and how to change some of them. */
export type SettingsPart = {
  readonly settings: Settings;
  readonly set: (change: Partial<Settings>) => void;
};
