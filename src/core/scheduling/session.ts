import { DAY_MS, type Timestamp } from './due';
import { present } from '../shared';

/** What may be practised: a drill that comes back, or a tune that is to be played. */
export type DueDrill = {
  readonly id: string;
  readonly chart: string | null;
  readonly dueAt: Timestamp;
  readonly minutes: number;
  /** The chance that it would still be passed, 0 to 1. */ readonly still: number;
  /** Nothing takes it before it is due, a goal neither. */ readonly waitsForItsDay?: boolean;
  /** Days until it would come back if it were played well now. */ readonly backAfter?: number;
};
export type DueTune = {
  readonly chart: string;
  readonly lastPlayed: Timestamp | null;
  readonly minutes: number;
  /** Kinds of change that are held, of how many. */ readonly held: number;
  readonly of: number;
};
/** Something to be ready for: which tunes, by when. */
export type Goal = { readonly words: string; readonly date: Timestamp; readonly charts: readonly string[] };

export type SessionStep =
  | {
      readonly kind: 'drill';
      readonly id: string;
      readonly minutes: number;
      readonly why: 'due' | 'goal' | 'new' | 'ahead';
    }
  | {
      readonly kind: 'take';
      readonly chart: string;
      readonly minutes: number;
      readonly why: 'goal' | 'not-played';
    }
  /** The next drill of the course through a tune, which has not been started yet. */
  | { readonly kind: 'course'; readonly chart: string; readonly minutes: number }
  | { readonly kind: 'rest'; readonly minutes: number };

export type SessionRequest = {
  readonly minutes: number;
  readonly drills: readonly DueDrill[];
  readonly tunes: readonly DueTune[];
  /** A tune whose course has a drill that was not started yet. */
  readonly course?: { readonly chart: string; readonly minutes: number } | null;
  readonly goal: Goal | null;
  readonly now: Timestamp;
  /** Minutes of playing after which hands rest. */ readonly restAfter: number;
};

const REST_MINUTES = 3;
/** With so many drills in a session nothing new is begun. */
const MOST_BESIDE_NEW = 4;
/** A tune of the goal that was not played for so long is played today. */
const STALE_DAYS = 2;

/**
 * What to do with the minutes there are: first what is due, the likeliest forgotten and the goal's tunes
 * before others, never two of one
 * tune in a row where another waits; one take of the tune that is longest unplayed at the end; rests between.
 */
export function sessionOf(request: SessionRequest): SessionStep[] {
  const { minutes, drills, tunes, goal, now, restAfter, course } = request;
  const wanted = goal && goal.date >= now ? new Set(goal.charts) : new Set<string>();
  const open = [...drills].sort(
    (a, b) =>
      urgency(b, wanted, now) - urgency(a, wanted, now) || a.dueAt - b.dueAt || a.id.localeCompare(b.id),
  );
  const take = takeFor(tunes, wanted, now);
  const steps: SessionStep[] = [];
  let left = minutes - (take && take.minutes <= minutes ? take.minutes : 0);
  let played = 0;
  const add = (step: SessionStep) => {
    if (played > 0 && played + step.minutes > restAfter && left >= step.minutes + REST_MINUTES) {
      steps.push({ kind: 'rest', minutes: REST_MINUTES });
      left -= REST_MINUTES;
      played = 0;
    }
    steps.push(step);
    left -= step.minutes;
    played += step.minutes;
  };
  let last: string | null = null;
  while (open.length > 0) {
    const fits = (one: DueDrill) => one.minutes <= left;
    const isDue = ({ dueAt }: DueDrill) => dueAt <= now;
    const urgent = open.filter((one) => isDue(one) && fits(one));
    // what is not due yet fills what is left, as long as it belongs to the goal
    const pool =
      urgent.length > 0
        ? urgent
        : open.filter(
            (one) => fits(one) && !one.waitsForItsDay && one.chart !== null && wanted.has(one.chart),
          );
    const next = pool.find(({ chart }) => chart !== last) ?? pool[0];
    if (!next) break;
    open.splice(open.indexOf(next), 1);
    add({
      kind: 'drill',
      id: next.id,
      minutes: next.minutes,
      why: reasonFor(isDue, next, wanted),
    });
    last = next.chart;
  }
  // something new only where little is due: a course is begun step by step
  if (course && course.minutes <= left && steps.length < MOST_BESIDE_NEW) add({ kind: 'course', ...course });
  if (take && take.minutes <= minutes) {
    left += take.minutes;
    add({
      kind: 'take',
      chart: take.chart,
      minutes: take.minutes,
      why: wanted.has(take.chart) ? 'goal' : 'not-played',
    });
  }
  return steps;
}

/** A drill that was never played has nothing to lose yet: what is being forgotten goes before it. */
const NEW = 0.1;

/**
 * What is nearest to being forgotten comes first; a day overdue counts like a tenth of that, the goal like two
 * tenths.
 */
const urgency = ({ still, dueAt, chart }: DueDrill, wanted: ReadonlySet<string>, now: Timestamp): number =>
  (still === 0 ? NEW : 1 - still) +
  Math.max(0, (now - dueAt) / DAY_MS) * 0.1 +
  (chart !== null && wanted.has(chart) ? 0.2 : 0);

function takeFor(tunes: readonly DueTune[], wanted: ReadonlySet<string>, now: Timestamp): DueTune | null {
  const since = ({ lastPlayed }: DueTune) => (lastPlayed === null ? Infinity : (now - lastPlayed) / DAY_MS);
  const pool = tunes.filter((tune) => (wanted.size > 0 ? wanted.has(tune.chart) : tune.lastPlayed !== null));
  const stale = pool.filter((tune) => since(tune) >= STALE_DAYS);
  const best = (stale.length > 0 ? stale : pool).reduce<DueTune | null>(
    (found, tune) =>
      found === null ||
      since(tune) > since(found) ||
      (since(tune) === since(found) && share(tune) < share(found))
        ? tune
        : found,
    null,
  );
  return best;
}

const share = ({ held, of }: DueTune): number => (of === 0 ? 0 : held / of);

export type GoalDay = { readonly day: number; readonly charts: readonly string[] };

/**
 * The tunes of a goal over the days that are left: each day as many as keep every tune within reach, the
 * ones with most left to learn more
 * often, all of them on the last day. Days count from today, 0.
 */
export function spreadGoal(goal: Goal, tunes: readonly DueTune[], days: number): GoalDay[] {
  const wanted = tunes.filter(({ chart }) => goal.charts.includes(chart));
  if (wanted.length === 0 || days < 0) return [];
  // what is open, and a little for what only has to be kept
  const need = new Map(
    wanted.map((tune) => [tune.chart, tune.of === 0 ? 1 : 0.25 + (tune.of - tune.held) / tune.of]),
  );
  const total = [...need.values()].reduce((sum, one) => sum + one, 0);
  const credit = new Map(wanted.map(({ chart }) => [chart, 0]));
  const each = Math.min(wanted.length, Math.max(1, Math.ceil(wanted.length / 2)));
  return Array.from({ length: days + 1 }, (_, day) => {
    if (day === days) return { day, charts: wanted.map(({ chart }) => chart) };
    for (const [chart, one] of need) credit.set(chart, present(credit.get(chart)) + (one / total) * each);
    const chosen = [...credit]
      .sort((a, b) => b[1] - a[1])
      .slice(0, each)
      .map(([chart]) => chart);
    for (const chart of chosen) credit.set(chart, present(credit.get(chart)) - 1);
    return { day, charts: chosen };
  });
}

function reasonFor(isDue: ({ dueAt }: DueDrill) => boolean, next: DueDrill, wanted: Set<string>) {
  if (!isDue(next)) return 'ahead';
  if (next.still === 0) return 'new';
  if (next.chart !== null && wanted.has(next.chart)) return 'goal';
  return 'due';
}
