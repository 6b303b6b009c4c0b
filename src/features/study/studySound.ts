import type { Chart } from '@/core/chart';
import type { PlanWords } from '@/core/plan';
import type { OfflineRequest } from '@/workers/offlineRendererProtocol';

/** What Study lets hear. */
export type Heard =
  | 'chord'
  | 'scale'
  | 'thread'
  | 'plans'
  /** A note over a chord of the form. */
  | { readonly pc: number; readonly stretch: number }
  /** A home scale over the chosen chord. */
  | { readonly home: string }
  /** A line over superimposed changes, around the chosen chord. */
  | { readonly overlay: string };

type Place = {
  readonly what: Heard;
  readonly text: string;
  readonly chart: Chart;
  readonly index: number;
  readonly bar: number;
  readonly plan: PlanWords;
  readonly before: PlanWords | null;
};

const CHORD_TEMPO = 100;
const SCALE_TEMPO = 132;
/** Two plans are compared over so many bars. */
const COMPARED_BARS = 4;

/** The sound that is asked for, and its name: asked for again under the same name, it stops. */
export function soundOf(place: Place): {
  readonly id: string;
  readonly request: (rate: number) => OfflineRequest;
} {
  const { what, text, chart, index, plan } = place;
  const base = { type: 'study' as const, chartText: text, choruses: 1, seed: 7 };
  const tempo = chart.tempo ?? 100;
  if (typeof what === 'object' && 'overlay' in what) {
    const { bars } = comparedPlans(place);
    const plans: PlanWords[] = [{ id: 'superimposed', overlay: what.overlay }];
    return {
      id: `overlay ${bars[0]} ${what.overlay}`,
      request: (rate) => ({ ...base, rate, tempo, what: { kind: 'plans', bars, plans } }),
    };
  }
  if (typeof what === 'object' && 'home' in what)
    return {
      id: `home ${what.home} ${index} ${text}`,
      request: (rate) => ({
        ...base,
        rate,
        tempo: SCALE_TEMPO,
        what: { kind: 'scale', stretch: index, plan: { id: 'home-scale', home: what.home } },
      }),
    };
  if (typeof what === 'object')
    return {
      id: `note ${what.pc} ${what.stretch} ${text}`,
      request: (rate) => ({ ...base, rate, tempo: CHORD_TEMPO, what: { kind: 'note', ...what } }),
    };
  switch (what) {
    case 'thread':
      return {
        id: `thread ${text}`,
        request: (rate) => ({ ...base, rate, tempo, what: { kind: 'thread' } }),
      };
    case 'chord':
      return {
        id: `chord ${index} ${text}`,
        request: (rate) => ({ ...base, rate, tempo: CHORD_TEMPO, what: { kind: 'chord', stretch: index } }),
      };
    case 'scale':
      return {
        id: `scale ${index} ${JSON.stringify(plan)} ${text}`,
        request: (rate) => ({
          ...base,
          rate,
          tempo: SCALE_TEMPO,
          what: { kind: 'scale', stretch: index, plan },
        }),
      };
    case 'plans': {
      const { bars, plans } = comparedPlans(place);
      return {
        id: `plans ${bars[0]} ${JSON.stringify(plans)} ${text}`,
        request: (rate) => ({ ...base, rate, tempo, what: { kind: 'plans', bars, plans } }),
      };
    }
  }
}

/** The plan before this one, or another that it can be held against, over the bars around the chosen chord. */
function comparedPlans({ chart, bar, plan, before }: Place): {
  bars: [number, number];
  plans: PlanWords[];
} {
  const first = Math.max(1, Math.min(bar, chart.bars.length - COMPARED_BARS + 1));
  const other: PlanWords = before ?? { id: plan.id === 'home-scale' ? 'outline' : 'home-scale' };
  return {
    bars: [first, Math.min(chart.bars.length, first + COMPARED_BARS - 1)],
    plans: [other, plan],
  };
}
