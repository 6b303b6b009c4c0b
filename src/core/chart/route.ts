import { LIMITS } from '../contracts';
import {
  accepted,
  unwrap,
  refused,
  type BeatsPerMinute,
  type Outcome,
  type Semitones,
  defined,
} from '../shared';
import { keyName } from '../music';
import type { Chart } from './chart';
import { harmonyOf } from './harmony';
import type { Pace } from './pace';
import { passage } from './passage';
import { readChart } from './readChart';
import { timelineOf } from './timeline';
import { transposeText } from './transpose';
import { writeChart } from './writeChart';

/** What of a chart is played, how often, how fast, and how tempo and key move from one pass to the next. */
export type RouteWords = {
  /** Bars to go round in, from 1, both included; the whole form where left out. */
  readonly bars?: readonly [number, number];
  readonly passes: number;
  readonly tempo: BeatsPerMinute;
  /** Beats a minute that each pass is faster than the one before. */
  readonly tempoStep?: number;
  /** Semitones that each pass lies higher: 5 goes round in fourths. */
  readonly keyStep?: Semitones;
};

/** A route as it is played and judged: a chart with so many choruses, and its pace. */
export type Route = {
  readonly text: string;
  readonly chart: Chart;
  readonly choruses: number;
  readonly pace: Pace;
};

/**
 * Works a route out. Where the key moves the passes are written out one after another, since no two have
 * the same chords; else the form is
 * played so many times.
 */
export function routeOf(text: string, words: RouteWords): Outcome<Route> {
  const { bars, passes, tempo, tempoStep = 0, keyStep = 0 } = words;
  const read = readChart(text);
  if (!read.ok) return read;
  const whole = read.value;
  const all = whole.bars.length;
  if (bars && !(bars[0] >= 1 && bars[0] <= bars[1] && bars[1] <= all))
    return refused({
      code: 'route.bars',
      message: `Bars ${bars[0]} to ${bars[1]} are not in this form of ${all}.`,
      suggestion: `1 to ${all}`,
    });
  const isPart = bars !== undefined && (bars[0] > 1 || bars[1] < all);
  const round = isPart ? passage(whole, bars[0], bars[1]) : whole;
  const pace = paceOf(round, passes, tempo, tempoStep);
  if (keyStep % 12 === 0 || passes === 1)
    return accepted({ text: isPart ? round.text : text, chart: round, choruses: passes, pace });
  const written = round.bars.length * passes;
  if (written > LIMITS.chart.bars)
    return refused({
      code: 'route.long',
      message: `${passes} passes in moving keys are ${written} bars; ${LIMITS.chart.bars} can be written out.`,
      suggestion: 'Play fewer passes.',
    });
  const moved = movedThrough(round, passes, keyStep);
  return accepted({ text: moved.text, chart: moved, choruses: 1, pace });
}

/** The tempo of each pass, within the limits; one where it does not move. */
function paceOf(round: Chart, passes: number, tempo: number, tempoStep: number): Pace {
  const [slowest, fastest] = LIMITS.tempo;
  const tempi = Array.from({ length: passes }, (_, pass) =>
    Math.max(slowest, Math.min(fastest, tempo + pass * tempoStep)),
  );
  return { passBeats: timelineOf(round, tempo).formBeats, tempi: tempoStep === 0 ? [tempo] : tempi };
}

/** All passes as one form, each a section in its own key. */
function movedThrough(round: Chart, passes: number, keyStep: Semitones): Chart {
  const parts = Array.from({ length: passes }, (_, pass) => {
    const chart =
      pass === 0 ? round : unwrap(readChart(unwrap(transposeText(round.text, { by: pass * keyStep }))));
    const key = chart.key ?? defined(harmonyOf(chart, timelineOf(chart, 120)).regions[0]).key;
    const named = (section: string | null) => `${section ? `${section} ` : ''}${pass + 1} in ${keyName(key)}`;
    return {
      key,
      overrides: chart.overrides.map((one) => ({ ...one, bar: one.bar + pass * round.bars.length })),
      bars: chart.bars.map((bar) => ({
        ...bar,
        section: named(bar.section),
        key: bar.key && bar.key !== chart.key ? bar.key : key,
      })),
    };
  });
  // the first pass states its key as the chart's, so that every later one is written out
  const whole = {
    ...round,
    key: defined(parts[0]).key,
    overrides: parts.flatMap((part) => part.overrides),
    bars: parts.flatMap((part) => part.bars),
  };
  return unwrap(readChart(writeChart(whole)));
}
