import { heightIntent } from '../../plan';
import { barAt, measure, type FindingContext, type Measure } from './finding';
import { elementAt, present } from '../../shared';

/**
 * Sounding beats by height over the whole take; chord hits are judged by themselves, and what the plan plays is
 * never outside.
 */
function beatsAt({ report }: FindingContext): { low: number; ground: number; all: number } {
  let [ground, high, all] = [0, 0, 0];
  for (const note of report.notes)
    if (report.events[note.event]?.kind !== 'chord')
      for (const { height, beats } of note.spans) {
        all += beats;
        if (height === 0) ground += beats;
        if (height >= 3 && !note.inPlan) high += beats;
      }
  return { low: Math.round(all - high), ground: Math.round(ground), all: Math.round(all) };
}

export function staysOutside(context: FindingContext): Measure[] {
  const { low, all } = beatsAt(context);
  if (heightIntent(context.plan, 0) === 'high') return [];
  return measure(context, {
    kind: 'stays-outside',
    where: { bars: [] },
    met: low,
    of: all,
    limit: 0.76,
    worth: 2.2,
    title: 'Coming home',
    sentence: `${all - low} of ${all} beats lay outside the chords and their scales.`,
    drill: { plan: 'outline', target: 'a chord tone at the end of every bar', pass: 'home in 10 of 12 bars' },
  });
}

export function staysOnGround(context: FindingContext): Measure[] {
  const { ground, all } = beatsAt(context);
  if (!['high', 'low'].includes(heightIntent(context.plan, 0))) return [];
  return measure(context, {
    kind: 'stays-on-ground',
    where: { bars: [] },
    met: all - ground,
    of: all,
    limit: heightIntent(context.plan, 0) === 'high' ? 0.3 : 0.1,
    worth: 0.3,
    title: 'Off the ground',
    sentence: `${ground} of ${all} beats were chord tones, though the plan means to float higher.`,
    drill: { target: 'a ninth or a thirteenth', pass: 'one colour in every bar' },
  });
}

export function stepOutLost(context: FindingContext): Measure[] {
  const { stepOuts, notes } = context.report;
  const lost = stepOuts.filter(({ homeIndex }) => homeIndex === null);
  return measure(context, {
    kind: 'step-out-lost',
    where: {
      bars: lost.map(({ noteIndices }) =>
        barAt(context, present(notes[elementAt(noteIndices, 0)]).onsetBeat),
      ),
    },
    met: stepOuts.length - lost.length,
    of: stepOuts.length,
    limit: 0.65,
    worth: 0.9,
    title: 'The way home',
    sentence: `${lost.length} of ${stepOuts.length} steps out did not come home to a chord tone.`,
    drill: { plan: 'step-out', target: 'a chord tone at the arrival', pass: 'come home in 8 of 10' },
  });
}
