import { addDays } from 'date-fns';
import type { Dates } from '@/presentation';
import { attemptSize, CATALOGUE } from '@/core/drills';
import { lineLevelName } from '@/presentation';
import type { StoredDrill } from '@/server/drillRows';
import { DAY_MS, FEWEST, HELD, type KindCourse, type Progress, type SessionStep } from '@/core/scheduling';
import { typeset } from '@/core/music';
import { takeMoment } from '@/presentation';
import type { Today } from '@/server/practice';
import type { TunePractice } from '@/server/practiceState';
import { aheadWhy, drillName, forGoal, takeWhy } from './stepWords';
import type { TakeProfileData } from '@/ui/form/TakeProfile';
import { elementAt, present } from '@/core/shared';

/** Something that can be started now: its place, its two lines, and why it is here. */
export type TodayItem = {
  readonly href: string;
  readonly name: string;
  readonly where: string;
  readonly words: string;
  readonly bold: string | null;
  readonly minutes: number;
  /** Why it is here, in one line. */
  readonly why: string;
};
export type TodayView = {
  readonly goal: {
    readonly words: string;
    readonly days: number;
    readonly day: string;
    readonly charts: readonly string[];
    readonly minutes: number;
  } | null;
  readonly first: TodayItem | null;
  readonly also: readonly TodayItem[];
  readonly minutes: number;
  /** The minutes there are. */ readonly given: number;
  readonly rests: number;
  readonly since: readonly { readonly title: string; readonly words: string }[];
  readonly tunes: readonly TunePractice[];
  readonly last: {
    readonly id: string;
    readonly number: number;
    readonly title: string;
    readonly when: string;
    readonly choruses: number;
    readonly profile: TakeProfileData;
  } | null;
  readonly minutesThisWeek: number;
  /** The tunes of the coming days, from today. */
  readonly spread: readonly { readonly day: string; readonly titles: readonly string[] }[];
};

/** What starts the things that are due besides, in their order. */
export const ALSO_COMMANDS = ['today.second', 'today.third', 'today.fourth', 'today.fifth'] as const;
const MOST_ALSO = ALSO_COMMANDS.length;

/** The first screen of the day out of what the server knows. @param moment how a moment is said */
export function todayView(today: Today, dates: Dates): TodayView {
  const items = today.steps.flatMap((step) => itemOf(step, today) ?? []);
  const [first = null, ...rest] = items;
  const { goal, last } = today;
  return {
    goal:
      goal && today.daysLeft !== null && today.daysLeft >= 0
        ? {
            words: goal.words,
            days: today.daysLeft,
            day: goal.day,
            charts: goal.charts,
            minutes: goal.minutes,
          }
        : null,
    first,
    also: rest.slice(0, MOST_ALSO),
    minutes: today.steps.reduce((sum, { minutes }) => sum + minutes, 0),
    given: today.minutes,
    rests: today.steps.filter(({ kind }) => kind === 'rest').length,
    since: sinceLastWeek(today.progress),
    tunes: today.tunes,
    last: last && {
      id: last.take.id,
      number: last.take.number,
      title: last.take.title,
      when: takeMoment(last.take.createdAt, dates),
      choruses: last.take.choruses,
      profile: last.line.profile,
    },
    minutesThisWeek: Math.round(today.minutesThisWeek),
    spread: today.spread.slice(0, 7).map(({ day, charts }) => ({
      day: dayName(today.now, day, dates),
      titles: charts.flatMap((chart) => today.tunes.find((tune) => tune.chart === chart)?.title ?? []),
    })),
  };
}

const dayName = (now: number, ahead: number, dates: Dates): string => {
  if (ahead === 0) return 'today';
  if (ahead === 1) return 'tomorrow';
  return dates.weekday(addDays(now, ahead));
};

const itemOf = (step: SessionStep, today: Today): TodayItem | null => {
  if (step.kind === 'rest') return null;
  if (step.kind === 'course') return courseItem(step, today);
  return step.kind === 'take' ? takeItem(step, today) : drillItem(step, today);
};

type StepOf<K extends SessionStep['kind']> = Extract<SessionStep, { kind: K }>;

function takeItem(step: StepOf<'take'>, { tunes, now, goal }: Today): TodayItem | null {
  const tune = tunes.find(({ chart }) => chart === step.chart);
  if (!tune) return null;
  const days = tune.lastPlayed === null ? null : Math.floor((now - tune.lastPlayed) / DAY_MS);
  return {
    href: `/record?chart=${step.chart}`,
    name: tune.tempo === null ? `A take of ${tune.title}` : `A take of ${tune.title} at ${tune.tempo}`,
    where: lastPlayedWords(days),
    words: '',
    bold: null,
    minutes: step.minutes,
    why: takeWhy(step.why, goal),
  };
}

/** The next drill of a course: chosen on the drills' screen, where the whole course stands. */
function courseItem(step: StepOf<'course'>, { course }: Today): TodayItem | null {
  if (!course) return null;
  const { kind, level } = course.step;
  return {
    href: `/drills?chart=${course.chart}&course=${kind}`,
    name: typeset(CATALOGUE[kind].name),
    where: course.title,
    words: 'first try',
    bold: null,
    minutes: step.minutes,
    why: `next in the course: ${lineLevelName(level)}`,
  };
}

function drillItem(step: StepOf<'drill'>, today: Today): TodayItem | null {
  const found = today.items.find(({ drill }) => drill.id === step.id);
  if (!found) return null;
  const { drill, runs } = found;
  const [last] = runs;
  return {
    href: `/drills/${drill.id}?go=1`,
    name: drillName(drill),
    where: drill.title,
    minutes: step.minutes,
    bold: last ? `${last.met} of ${last.of}` : null,
    why: whyWords(step.why, drill, today),
    words: last ? wordsAhead(found) : 'first try',
  };
}

/** Why a drill is here today. */
function whyWords(why: StepOf<'drill'>['why'], { dueAt, origin }: StoredDrill, { now, goal }: Today): string {
  const late = Math.floor((now - dueAt) / DAY_MS);
  if (why === 'new') return origin ? `found in take ${origin.take}` : 'new';
  if (why === 'ahead') return aheadWhy(goal);
  const due = late < 1 ? 'due today' : `due for ${late === 1 ? 'a day' : `${late} days`}`;
  return why === 'goal' ? `${due}, ${forGoal(goal)}` : due;
}

/** What is still missing until the next tempo. */
function wordsAhead({ drill: { drill, ladder }, runs }: Today['items'][number]): string {
  const tempo = elementAt(ladder.rungs, ladder.at);
  const { pass, places } = attemptSize(drill, tempo);
  const next = ladder.rungs[ladder.at + 1];
  const ahead = next === undefined ? 'it is learnt' : `you go to ${next}`;
  const passedHere = (run: (typeof runs)[number] | undefined) => run?.passed === true && run.tempo === tempo;
  const onceMore = ladder.up === 2 && passedHere(runs[0]) && !passedHere(runs[1]);
  if (onceMore) return `once more at ${pass} or better and ${ahead}`;
  return `${pass} of ${places} ${inARowWords(ladder.up)}and ${ahead}`;
}

const rate = ({ met, of }: { met: number; of: number }): number => (of === 0 ? 0 : met / of);

/** Up to three things that changed, held or stood still between the last two weeks with takes in them. */
export function sinceLastWeek({ kinds }: Progress): { title: string; words: string }[] {
  const pairs = kinds.flatMap((kind) => {
    const [before, now] = kind.weeks.slice(-2);
    return before && now && before !== now && now.of >= FEWEST
      ? [{ kind, before, now, by: rate(now) - rate(before) }]
      : [];
  });
  const name = ({ from, to }: KindCourse) => `${typeset(from)} to ${typeset(to)}`;
  const said: { title: string; words: string }[] = [];
  const best = [...pairs].sort((a, b) => b.by - a.by)[0];
  if (best && best.by > 0.05)
    said.push({
      title: `${name(best.kind)} ${rate(best.now) >= HELD ? 'is holding' : 'is better'}`,
      words: `third or seventh in ${best.now.met} of ${best.now.of} landings, was ${best.before.met} of ${best.before.of}`,
    });
  const stuck = pairs
    .filter((pair) => pair !== best && rate(pair.now) < 0.6)
    .sort((a, b) => rate(a.now) - rate(b.now))[0];
  if (stuck)
    said.push({
      title: `${name(stuck.kind)} ${stuck.by < -0.1 ? 'has slipped' : 'has hardly moved'}`,
      words: `${stuck.now.met} of ${stuck.now.of}, was ${stuck.before.met} of ${stuck.before.of}${Math.abs(stuck.by) <= 0.15 ? '; too close to call' : ''}`,
    });
  const flat = pairs.find(({ kind }) => kind.plateau !== null);
  if (flat && flat !== stuck && flat !== best)
    said.push({
      title: `${name(flat.kind)} stands still`,
      words: `${present(flat.kind.plateau).weeks} weeks the same: try it ${ADVICE[present(flat.kind.plateau).advice]}`,
    });
  return said.slice(0, 3);
}

export const ADVICE = {
  slower: 'slower',
  smaller: 'over two bars only',
  other: 'by another way in',
} as const;

function lastPlayedWords(days: number | null) {
  if (days === null) return 'not played yet';
  if (days < 1) return 'played today';
  if (days === 1) return 'played yesterday';
  return `not played for ${days} days`;
}

/** How often an attempt must be passed before the ladder climbs. */
function inARowWords(times: number): string {
  if (times === 1) return '';
  return times === 2 ? 'twice in a row ' : `${times} times in a row `;
}
