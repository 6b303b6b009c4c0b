import type { PlayedNote } from '@/core/analyse';
import {
  changesOf,
  formPositionOf,
  readChart,
  timelineOf,
  type Chart,
  type Timeline,
  chorusAt,
} from '@/core/chart';
import {
  attemptSize,
  isAtChanges,
  judgeDrill,
  mainPart,
  tonesOver,
  type AttemptSize,
  type Drill,
  countedBy,
} from '@/core/drills';
import type { Climb, Ladder, LadderTry } from '@/core/scheduling';
import { noteName, spellOver, type Chord } from '@/core/music';
import { planFromWords, planOn, type Plan } from '@/core/plan';
import { intervalWord, typeset } from '@/core/music';
import { unwrap, type Beats, elementAt } from '@/core/shared';
import { marksOf } from '@/core/findings';
import { takeOnForm } from '@/ui/form/takeOnForm';
import { intervalLabel } from '@/ui/intervalLabel';

/** A drill as it is played: its bars laid out at a tempo. */
export type DrillStage = {
  readonly drill: Drill;
  readonly chart: Chart;
  readonly timeline: Timeline;
  readonly plan: Plan;
  readonly size: AttemptSize;
};

export function stageOf(drill: Drill, tempo: number): DrillStage {
  const chart = unwrap(readChart(drill.chartText));
  const timeline = timelineOf(chart, tempo);
  return {
    drill: { ...drill, tempo },
    chart,
    timeline,
    plan: planOn(chart, timeline, unwrap(planFromWords(drill.plan))).plan,
    size: attemptSize(drill, tempo),
  };
}

/** A line over a drill's bars as it is drawn: judged by the drill, with its marks at the changes. */
export function drawnLine({ drill, plan, chart }: DrillStage, line: readonly PlayedNote[], passes: number) {
  const { report } = judgeDrill(drill, line, passes);
  return { report, drawn: takeOnForm(report, marksOf(report, plan, chart, drill.tempo)) };
}

/** A place of the running pass as it is drawn: met, not met, or still to come. */
export type DrillPlace = {
  readonly beat: Beats;
  readonly met: boolean | null;
  readonly label: string;
  readonly side: -1 | 0 | 1;
};
export type LiveCount = {
  readonly met: number;
  readonly of: number;
  readonly left: number;
  readonly places: readonly DrillPlace[];
};

/** Bars that one line can show with room for what was landed on. */
const MOST_BARS = 16;

/** The beats the line shows: the whole attempt where it is short, else the pass that runs. */
export function shownSpan({ timeline, size }: DrillStage, beat: Beats): readonly [Beats, Beats] {
  if (timeline.bars.length * size.passes <= MOST_BARS) return [0, timeline.formBeats * size.passes];
  const pass = Math.min(size.passes - 1, chorusAt(timeline, beat));
  return [pass * timeline.formBeats, (pass + 1) * timeline.formBeats];
}

/** A place is judged once the line has gone this far past it: what comes late may still count. */
const SETTLED: Beats = 1.1;

/**
 * How an attempt goes so far, by the drill's rule alone.
 * @param until where the band is; what lies ahead of it has not been missed
 */
export function countSoFar(stage: DrillStage, notes: readonly PlayedNote[], until: Beats): LiveCount {
  const { drill, timeline, size } = stage;
  const [from, to] = shownSpan(stage, until);
  const { places: checks, report } = judgeDrill(drill, notes, size.passes);
  const settled = checks.filter(({ beat }) => beat <= until - SETTLED);
  const atChanges = isAtChanges(drill.rule);
  const changes = changesOf(timeline, size.passes).map(({ at }) => at);
  const coming = (atChanges ? changes : []).filter((at) => at > until - SETTLED);
  const places = [
    ...settled
      .filter(({ beat }) => beat >= from - 1e-6 && beat < to - 1e-6)
      .map(({ beat, met }): DrillPlace => {
        const landing = atChanges
          ? report.changes.find((change) => Math.abs(change.beat - beat) < 1e-6)?.landing
          : undefined;
        return {
          beat: beat - from,
          met,
          label: landing?.interval ? intervalLabel(landing.interval) : '',
          side: landing ? SIDES[landing.timing] : 0,
        };
      }),
    ...coming
      .filter((at) => at >= from - 1e-6 && at < to - 1e-6)
      .map((at): DrillPlace => ({ beat: at - from, met: null, label: '', side: 0 })),
  ];
  return {
    met: settled.filter(({ met }) => met).length,
    of: settled.length,
    left: atChanges ? coming.length : 0,
    places,
  };
}

/** What the rule asks over a chord, by name: `play its third A`; null where the rule names no tone. */
export function aimOver(
  { drill }: DrillStage,
  chord: Chord | null,
): { readonly words: string; readonly names: readonly string[] } | null {
  const rule = mainPart(drill.rule);
  if (!chord || (rule.kind !== 'land' && rule.kind !== 'lead') || rule.tones.includes('chord')) return null;
  const tones = tonesOver(chord, rule.tones);
  if (tones.length === 0) return null;
  return {
    words: tones.length === 1 ? `play its ${intervalWord(elementAt(tones, 0).interval)}` : 'land on',
    names: tones.map(({ pc }) => typeset(noteName(spellOver(chord, pc)))),
  };
}

/** The bar and chorus of a beat, for the words beside the picture. */
export const passAt = ({ timeline, size }: DrillStage, beat: Beats): string =>
  `pass ${Math.min(size.passes, formPositionOf(timeline, Math.max(0, beat)).chorus + 1)} of ${size.passes}`;

/** The thing that is counted, in the plural. */
export const countedThing = ({ rule }: Drill): string => countedBy(rule);

/** What a sitting came to, in two lines, soft and bold. */
export function sittingWords(
  tries: readonly LadderTry[],
  climb: Climb | null,
  ladder: Ladder,
): { readonly soft: string; readonly bold: string } {
  const last = tries[tries.length - 1];
  if (!last) return { soft: 'No attempt was counted.', bold: 'Nothing is changed.' };
  const passes = tries.filter(({ passed }) => passed).length;
  const here = elementAt(ladder.rungs, ladder.at);
  const soft = `${last.met} of ${last.of} at ${last.tempo}${tries.length > 1 ? `, ${passes} of ${tries.length} attempts passed` : ''}.`;
  if (climb === 'learnt') return { soft, bold: 'It is learnt at this tempo.' };
  const first = elementAt(tries, 0).tempo;
  if (here > first) return { soft, bold: `You go to ${here}.` };
  if (here < first) return { soft, bold: `A little slower next time: ${here}.` };
  return { soft, bold: passes > 0 ? `Once more at ${here} next time.` : `${here} stays; the same again.` };
}

/** On which side of the change a mark stands. */
const SIDES = { early: -1, on: 0, held: 0, late: 1, none: 0 } as const;
