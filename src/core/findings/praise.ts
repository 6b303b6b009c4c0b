import { wilsonInterval } from './wilson';
import { elementAt } from '../shared';
import { ENOUGH, type Finding, type FindingsRequest, type Measure } from './finding';
import { kindOf } from './kinds';

/** Faster by less than this is the same tempo. */
const FASTER = 1.03;
/** What was done this often before was done well; more of it is no news. */
const WELL = 0.9;
/** Praise is said first. */
const FIRST = 10;
/** Which measure it is, whatever it came to. */
export const keyOf = ({ kind, where: { change, chord, tone } }: Finding): string =>
  [kind, change, chord, tone].map((part) => part ?? '').join(' ');

/**
 * What got better with the last take, and what was kept at a faster tempo.
 * Rule T13.4: `improved` (any measure whose interval left the old one), `kept` (held at a faster tempo). A
 * measure has improved where the whole interval of
 * the last take lies above that of the takes before; it is kept where it was well and is no worse. Of what
 * was kept only the landings are said, the most played first.
 */
export function gotBetter(
  takes: readonly FindingsRequest[],
  before: readonly Measure[],
  now: readonly Measure[],
): Finding[] {
  const old = new Map(before.map((one) => [keyOf(one), one]));
  const pairs = now.flatMap((one) => {
    const was = old.get(keyOf(one));
    return was && one.of >= ENOUGH && was.of >= ENOUGH && !kindOf(one.kind)?.isNoProgress
      ? [{ one, was }]
      : [];
  });
  const better = pairs.filter(
    ({ one, was }) =>
      was.met / was.of < WELL && wilsonInterval(one.met, one.of)[0] > wilsonInterval(was.met, was.of)[1],
  );
  const improved = better.map(({ one, was }): Finding =>
    praise(
      one,
      was,
      'improved',
      `${one.praised ?? one.title}: better than before, ${one.met} of ${one.of} now, ${was.met} of ${was.of} then.`,
    ),
  );
  const tempo = elementAt(takes, takes.length - 1).tempo;
  const fastest = Math.max(...takes.slice(0, -1).map((take) => take.tempo));
  const kept =
    tempo < fastest * FASTER
      ? []
      : pairs
          .filter((pair) => !better.includes(pair))
          .filter(
            ({ one, was }) =>
              one.kind === 'target-missed' &&
              was.met / was.of >= was.limit &&
              one.met / one.of >= Math.min(one.limit, was.interval[0]),
          )
          .sort((a, b) => b.one.of - a.one.of)
          .slice(0, 1)
          .map(({ one, was }): Finding =>
            praise(
              one,
              was,
              'kept',
              `${one.praised ?? one.title}: you kept it at ${Math.round(tempo)}, ${one.met} of ${one.of}; before at ${Math.round(fastest)}.`,
            ),
          );
  return [...improved.sort((a, b) => b.weight - a.weight), ...kept];
}

/**
 * Praise weighs what the weakness weighed before. It has no bars: those of a measure are where it was not met.
 */
const praise = (
  { title, interval, met, of, where }: Measure,
  was: Measure,
  kind: 'improved' | 'kept',
  sentence: string,
): Finding => ({
  kind,
  title,
  sentence,
  met,
  of,
  interval,
  certainty: 'sure',
  where: { ...where, bars: [] },
  weight: FIRST + was.weight,
});
