import { measure, throughBar, type FindingContext, type Measure } from './finding';
import { present } from '../../shared';

/** Landings that were led into: the target of a figure. */
export function noApproaches(context: FindingContext): Measure[] {
  const { report } = context;
  const led = new Set(report.figures.map((figure) => figure.targetIndex));
  const all = report.changes.filter(
    ({ landing, connection }) =>
      landing.noteIndex !== null &&
      landing.timing !== 'held' &&
      connection.kind !== 'fresh' &&
      connection.kind !== null,
  );
  const met = all.filter(({ landing }) => led.has(present(landing.noteIndex)));
  return measure(context, {
    kind: 'no-approaches',
    where: {
      bars: all.filter((change) => !met.includes(change)).map((change) => throughBar(context, change)),
    },
    met: met.length,
    of: all.length,
    limit: 0.25,
    worth: 0.3,
    title: 'Leading into the change',
    sentence: `Of ${all.length} landings ${met.length} were led into by a step from above or below.`,
    drill: { target: 'a half step below the target', pass: 'lead into 8 of 12 changes' },
  });
}

export function approachOneSide(context: FindingContext): Measure[] {
  const all = context.report.figures.filter(
    ({ kind }) => kind === 'approach-below' || kind === 'approach-above',
  );
  const below = all.filter(({ kind }) => kind === 'approach-below').length;
  const rarer = Math.min(below, all.length - below);
  const side = below * 2 >= all.length ? 'below' : 'above';
  return measure(context, {
    kind: 'approach-one-side',
    where: { bars: [] },
    met: rarer,
    of: all.length,
    limit: 0.2,
    worth: 0.25,
    title: `Approaches from ${side === 'below' ? 'above' : 'below'} too`,
    sentence: `${all.length - rarer} of ${all.length} approaches came from ${side}.`,
    drill: {
      target: `the target from ${side === 'below' ? 'above' : 'below'}`,
      pass: 'both sides in turn, 8 of 12',
    },
  });
}

/** Notes of neither scale that lead nowhere; what a plan means to play outside is not held against it. */
export function approachUnresolved(context: FindingContext): Measure[] {
  const { report, plan } = context;
  if (plan.id === 'step-out' || plan.id === 'free') return [];
  const all = report.notes.filter(
    (note) => note.top && note.height >= 3 && !note.inPlan && note.function !== 'grace',
  );
  const met = all.filter(
    (note) => note.flags.includes('resolved') || note.function === 'passing' || note.function === 'neighbour',
  );
  return all.length < 12
    ? []
    : measure(context, {
        kind: 'approach-unresolved',
        where: { bars: [] },
        met: met.length,
        of: all.length,
        limit: 0.55,
        worth: 0.4,
        title: 'Where the half steps go',
        sentence: `${all.length - met.length} of ${all.length} notes outside the scale did not move on by a step.`,
        drill: { target: 'a chord tone a half step away', pass: 'resolve 10 of 12' },
      });
}

export function noEnclosures(context: FindingContext): Measure[] {
  const { report } = context;
  const all = report.changes.filter(
    ({ landing, connection }) => landing.noteIndex !== null && connection.kind !== 'fresh',
  );
  const met = report.figures.filter(({ kind }) => kind === 'enclosure').length;
  return measure(context, {
    kind: 'no-enclosures',
    where: { bars: [] },
    met: Math.min(met, all.length),
    of: all.length,
    limit: 0.06,
    worth: 0.04,
    title: 'Enclosures',
    sentence: `You enclosed a target from both sides ${met === 0 ? 'never' : `${met} times`} in ${all.length} changes.`,
    drill: { target: 'above, below, then the target', pass: 'enclose 8 of 12' },
  });
}
