import { beatsToSeconds, elementAt } from '../../shared';
import { mostCommon } from '../mostCommon';
import { measure, type FindingContext, type Measure } from './finding';

const LIMIT_MS = 30;
const UNEVEN_MS = 25;
const ENOUGH_NOTES = 24;

const onsetsOf = ({ report }: FindingContext): number[] => report.events.map((event) => event.onsetBeat);

/** Early or late of the nearest place of the beat, in ms; the second eighth where the take's swing puts it. */
function deviations(context: FindingContext): number[] {
  const { swing } = context.report.time;
  const second = swing === null ? 0.5 : swing / (1 + swing);
  return onsetsOf(context).map((onset) => {
    const inBeat = onset - Math.floor(onset);
    const off = [0, second, 1, 1 / 3, 2 / 3, 0.25, 0.75]
      .slice(0, 3)
      .map((line) => inBeat - line)
      .reduce((best, one) => (Math.abs(one) < Math.abs(best) ? one : best));
    return beatsToSeconds(off, context.tempoAt(onset)) * 1000;
  });
}

export function aheadOrBehind(context: FindingContext): Measure[] {
  const { offsetMs } = context.report.time;
  const all = deviations(context);
  if (offsetMs === null || all.length < ENOUGH_NOTES) return [];
  const met = all.filter((off) => Math.abs(off) < LIMIT_MS).length;
  const ahead = offsetMs < 0;
  return measure(context, {
    kind: ahead ? 'rushes' : 'drags',
    where: { bars: [] },
    met,
    of: all.length,
    limit: 0.6,
    worth: 0.7,
    ...(Math.abs(offsetMs) < LIMIT_MS ? { raised: false } : {}),
    title: ahead ? 'Sitting back' : 'Moving up',
    praised: 'Close to the beat',
    sentence: `You played ${Math.abs(Math.round(offsetMs))} ms ${ahead ? 'ahead of' : 'behind'} the beat; ${met} of ${all.length} notes were within ${LIMIT_MS} ms of it.`,
    drill: { target: 'the click on two and four', pass: '9 of 10 notes within 30 ms' },
  });
}

export function uneven(context: FindingContext): Measure[] {
  const { spreadMs, offsetMs } = context.report.time;
  if (spreadMs === null) return [];
  const all = deviations(context).map((off) => off - (offsetMs ?? 0));
  const met = all.filter((off) => Math.abs(off) < UNEVEN_MS).length;
  return all.length < ENOUGH_NOTES
    ? []
    : measure(context, {
        kind: 'uneven',
        where: { bars: [] },
        met,
        of: all.length,
        limit: 0.8,
        worth: 0.5,
        ...(spreadMs < UNEVEN_MS ? { raised: false } : {}),
        title: 'Even time',
        sentence: `Your notes spread ${Math.round(spreadMs)} ms around their place; ${met} of ${all.length} lay within ${UNEVEN_MS}.`,
        drill: { target: 'even eighths', pass: 'spread under 20 ms' },
      });
}

export function noUpbeats(context: FindingContext): Measure[] {
  const onsets = onsetsOf(context);
  if (onsets.length < ENOUGH_NOTES) return [];
  const up = onsets.filter((onset) => Math.abs(onset - Math.round(onset)) > 0.2).length;
  return measure(context, {
    kind: 'no-upbeats',
    where: { bars: [] },
    met: up,
    of: onsets.length,
    limit: 0.15,
    worth: 0.6,
    title: 'Off the beat',
    sentence: `${up} of ${onsets.length} notes began off the beat.`,
    drill: { target: 'start on the and', pass: 'half the phrases off the beat' },
  });
}

export function oneRhythm(context: FindingContext): Measure[] {
  const onsets = onsetsOf(context);
  const gaps = onsets
    .slice(1)
    .map((onset, index) => Math.round((onset - elementAt(onsets, index)) * 4) / 4)
    .filter((gap) => gap > 0);
  const common = mostCommon(gaps);
  if (!common || gaps.length < ENOUGH_NOTES) return [];
  return measure(context, {
    kind: 'one-rhythm',
    where: { bars: [] },
    met: gaps.length - common.count,
    of: gaps.length,
    limit: 0.25,
    worth: 0.35,
    ...(common.count / gaps.length < 0.8 ? { raised: false } : {}),
    title: 'More than one rhythm',
    sentence: `${common.count} of ${gaps.length} notes followed at the same distance.`,
    drill: { target: 'long and short in turn', pass: 'three values in every phrase' },
  });
}
