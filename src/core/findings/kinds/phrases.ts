import { formPositionOf } from '../../chart';
import { median, elementAt, present } from '../../shared';
import { mostCommon } from '../mostCommon';
import { barAt, measure, type FindingContext, type Measure } from './finding';

const NEAR_ONE = 0.3;

/** Where in its bar a phrase starts, in beats; just before a bar line counts as on it. */
function startInBar({ timeline }: FindingContext, startBeat: number): number {
  const { bar, beatInBar } = formPositionOf(timeline, Math.max(0, startBeat) + 1e-6);
  const span = elementAt(timeline.bars, bar);
  return beatInBar > span.end - span.start - NEAR_ONE ? 0 : beatInBar;
}

export function startsOnOne(context: FindingContext): Measure[] {
  const { phrases } = context.report;
  const on = phrases.filter((phrase) => startInBar(context, phrase.startBeat) <= NEAR_ONE);
  return measure(context, {
    kind: 'starts-on-one',
    where: { bars: on.map((phrase) => barAt(context, phrase.startBeat)) },
    met: phrases.length - on.length,
    of: phrases.length,
    limit: 0.5,
    worth: 0.5,
    title: 'Other places to start',
    sentence: `${on.length} of ${phrases.length} phrases started on beat one.`,
    drill: { target: 'start on two, then three, then four', pass: 'each beat in turn' },
  });
}

export function startsAlike(context: FindingContext): Measure[] {
  const { phrases } = context.report;
  const common = mostCommon(
    phrases.map((phrase) => Math.round(startInBar(context, phrase.startBeat) * 2) / 2),
  );
  return common
    ? measure(context, {
        kind: 'starts-alike',
        where: { bars: [] },
        met: phrases.length - common.count,
        of: phrases.length,
        limit: 0.5,
        worth: 0.5,
        title: 'Other places to start',
        sentence: `${common.count} of ${phrases.length} phrases started in the same place of the bar.`,
        drill: { target: 'start on each beat in turn', pass: 'each beat in turn' },
      })
    : [];
}

/** Less than 8 % of the time in rests, counted in beats. */
export function noSpace(context: FindingContext): Measure[] {
  const { phrases, summary } = context.report;
  const total = Math.round(summary.choruses * context.timeline.formBeats);
  const played = phrases.reduce((sum, phrase) => sum + phrase.endBeat - phrase.startBeat, 0);
  const rest = Math.max(0, Math.round(total - played));
  if (context.report.notes.length < 40) return [];
  return measure(context, {
    kind: 'no-space',
    where: { bars: [] },
    met: rest,
    of: total,
    limit: 0.08,
    worth: 0.5,
    title: 'Room to breathe',
    sentence: `${rest} of ${total} beats were silence; a listener needs a breath between phrases.`,
    drill: { target: 'two bars on, one bar off', pass: 'rest in every third bar' },
  });
}

const SHORT: number = 4;

export function phrasesTooShort(context: FindingContext): Measure[] {
  const lengths = context.report.phrases.map((phrase) => phrase.endBeat - phrase.startBeat);
  const middle = median(lengths);
  if (middle === null) return [];
  const met = lengths.filter((length) => length >= SHORT).length;
  return measure(context, {
    kind: 'phrases-too-short',
    where: { bars: [] },
    met,
    of: lengths.length,
    limit: 0.5,
    worth: 0.5,
    ...(middle >= SHORT ? { raised: false } : {}),
    title: 'Longer phrases',
    sentence: `${lengths.length - met} of ${lengths.length} phrases were shorter than ${SHORT} beats.`,
    drill: { target: 'phrases of two bars', pass: '8 of 10 over four beats long' },
  });
}

export function neverCrosses(context: FindingContext): Measure[] {
  const { phrases } = context.report;
  const met = phrases.filter((phrase) => phrase.changesCrossed > 0).length;
  return measure(context, {
    kind: 'never-crosses-changes',
    where: { bars: [] },
    met,
    of: phrases.length,
    limit: 0.3,
    worth: 0.4,
    title: 'Across the change',
    sentence: `${met} of ${phrases.length} phrases went across a change.`,
    drill: { target: 'a phrase over every change', pass: 'cross 8 of 12' },
  });
}

export function endsAsking(context: FindingContext): Measure[] {
  const { phrases } = context.report;
  const asking = phrases.filter((phrase) => phrase.end === 'asks');
  return measure(context, {
    kind: 'ends-asking',
    where: {
      bars: asking.map(({ noteIndices }) =>
        barAt(
          context,
          present(context.report.notes[elementAt(noteIndices, noteIndices.length - 1)]).onsetBeat,
        ),
      ),
    },
    met: phrases.length - asking.length,
    of: phrases.length,
    limit: 0.55,
    worth: 0.45,
    ...(asking.length < 0.6 * phrases.length ? { raised: false } : {}),
    title: 'Phrases that ask',
    praised: 'Phrases that come to rest',
    sentence: `${asking.length} of ${phrases.length} phrases ended on a note that wants to go on.`,
    drill: { target: 'root or third', pass: 'end 8 of 10 phrases at home' },
  });
}

export function noMotif(context: FindingContext): Measure[] {
  const { phrases } = context.report;
  const met = phrases.filter((phrase) => phrase.motif !== undefined || phrase.theme !== undefined).length;
  return phrases.length < 10
    ? []
    : measure(context, {
        kind: 'no-motif',
        where: { bars: [] },
        met,
        of: phrases.length,
        limit: 0.1,
        raised: met === 0,
        title: 'Say it again',
        sentence: `${met === 0 ? 'No idea' : `An idea of ${met} phrases`} came back in ${phrases.length} phrases.`,
        drill: { target: 'the same motif, moved', pass: 'answer every other phrase', tempo: context.tempo },
        weight: 0.02,
      });
}

export function sameShape(context: FindingContext): Measure[] {
  const { phrases } = context.report;
  const common = mostCommon(phrases.flatMap((phrase) => phrase.motif ?? []));
  return common
    ? measure(context, {
        kind: 'same-shape',
        where: { bars: [] },
        met: phrases.length - common.count,
        of: phrases.length,
        limit: 0.5,
        worth: 1.2,
        title: 'Another shape',
        praised: 'More than one shape',
        sentence: `${common.count} of ${phrases.length} phrases had the same shape.`,
        drill: { target: 'the same rhythm, another contour', pass: 'no shape three times running' },
      })
    : [];
}
