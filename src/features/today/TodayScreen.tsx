'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState, type ReactNode } from 'react';
import { ChordWords } from '@/ui/ChordWords';
import { TakeProfile } from '@/ui/form/TakeProfile';
import { Shell } from '../shell/Shell';
import { useKeys } from '../shell/useKeys';
import { GoalDialog, type GoalChart } from './GoalDialog';
import type { TodayItem, TodayView } from './todayView';

type Props = { view: TodayView; charts: readonly GoalChart[] };

/**
 * The day’s practice: one thing large, started by one key; what is due after it, what moved, how far the tunes
 * have come.
 */
export function TodayScreen({ view, charts }: Props) {
  const router = useRouter();
  const [setting, setSetting] = useState(false);
  const { first, also, goal, last, since, tunes, spread } = view;
  const go = (item: TodayItem | null | undefined) => {
    if (item) router.push(item.href);
  };
  useKeys({ press: () => (first ? go(first) : router.push('/record')) });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        (event.target instanceof HTMLElement &&
          event.target.closest('input, select, textarea, [role=dialog]'))
      )
        return;
      if (event.key.toLowerCase() === 't' && last) router.push(`/takes/${last.id}`);
      if (event.key.toLowerCase() === 'g') setSetting(true);
      const item = also[Number(event.key) - 2];
      if (item) router.push(item.href);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [router, last, also]);
  return (
    <Shell
      place="Today"
      footer={
        <>
          <span className="sm:hidden">
            <span className="font-[640] text-now">press</span> start
          </span>
          {last ? (
            <>
              <b className="text-ink">Take {last.number}</b>
              <span className="hidden lg:inline">
                {last.when}; ticks are the changes, tall where you met the target
              </span>
              <Link href={`/takes/${last.id}`} className="hidden hover:text-ink sm:inline">
                <kbd className="key">T</kbd> open its review
              </Link>
            </>
          ) : (
            <span>Nothing has been recorded yet.</span>
          )}
          <span className="ml-auto hidden md:inline">
            {view.minutesThisWeek} {view.minutesThisWeek === 1 ? 'minute' : 'minutes'} this week
          </span>
          <Link href="/diary" className="hidden hover:text-ink sm:inline">
            diary
          </Link>
        </>
      }
    >
      <div className="mx-4 pt-4 pb-8 sm:mx-8 sm:pt-6">
        <div className="max-w-[1160px]">
          <p className="text-[17px] leading-7 text-soft sm:text-xl">
            {goal ? (
              <>
                {capital(goal.words)} is {inDays(goal.days)}.{' '}
                <button
                  type="button"
                  className="text-dim underline hover:text-ink"
                  onClick={() => setSetting(true)}
                >
                  change
                </button>
                {first && ' Due first:'}
              </>
            ) : (
              <>
                <button type="button" className="underline hover:text-ink" onClick={() => setSetting(true)}>
                  Name something to be ready for
                </button>
                , and by when.{first && ' Due first:'}
              </>
            )}
          </p>
          {first ? (
            <>
              <h1 className="mt-1 text-[44px] leading-[52px] font-[640] tracking-tight sm:text-[64px] sm:leading-[76px]">
                <ChordWords text={first.name} />
              </h1>
              <p className="mt-1 text-[19px] leading-7 text-soft sm:text-[25px] sm:leading-9">
                {first.where}.{' '}
                {first.bold && (
                  <>
                    Last time <b className="text-ink">{first.bold}</b>;{' '}
                  </>
                )}
                {first.bold ? first.words : capital(first.words)}
                {first.words && '.'} About {first.minutes} minutes.
              </p>
              <p className="mt-5 flex flex-wrap items-center gap-4">
                <button type="button" className="go w-full text-2xl sm:hidden" onClick={() => go(first)}>
                  Start, about {first.minutes} minutes
                </button>
                <button type="button" className="go hidden text-xl sm:block" onClick={() => go(first)}>
                  Space
                </button>
                <b className="hidden text-[25px] sm:inline">start, hands free from here</b>
              </p>
            </>
          ) : (
            <Nothing played={last !== null} />
          )}
        </div>
        {last && (
          <div className="mt-6">
            <p className="mb-1 text-sm text-dim">
              <Link href={`/takes/${last.id}`} className="hover:text-ink">
                take {last.number}, {last.title}
                {last.choruses > 1 && `, ${last.choruses} choruses`}
              </Link>
            </p>
            <Choruses count={last.choruses}>
              <TakeProfile profile={last.profile} width={1216} />
            </Choruses>
          </div>
        )}
        <div className="mt-7 grid gap-x-8 gap-y-8 md:grid-cols-2 lg:grid-cols-3">
          <Column name={first ? 'Also due' : 'Due'}>
            {also.length === 0 && (
              <p className="py-3 text-soft">{first ? 'Nothing else today.' : 'Nothing is due.'}</p>
            )}
            {also.map((item, index) => (
              <Link
                key={item.href}
                href={item.href}
                className="group grid grid-cols-[32px_minmax(0,1fr)] border-b border-line py-2"
              >
                <kbd className="key mt-0.5 h-5 !min-w-[22px] justify-self-start !px-1">{index + 2}</kbd>
                <span>
                  <b className="text-[17px] group-hover:underline">
                    <ChordWords text={item.name} />
                  </b>
                  <br />
                  <span className="text-soft">
                    {[item.where, item.bold ? `last ${item.bold}` : item.words].filter(Boolean).join(', ')}
                  </span>
                </span>
              </Link>
            ))}
            <p className="flex flex-wrap items-center gap-x-2 py-2 text-sm text-dim">
              <label className="flex items-center gap-2">
                There are{' '}
                <select
                  className="border-b border-line bg-transparent text-soft"
                  value={view.given}
                  onChange={(event) => router.push(`/?minutes=${event.target.value}`)}
                >
                  {[...new Set([10, 20, 30, 45, 60, 90, view.given])]
                    .sort((a, b) => a - b)
                    .map((minutes) => (
                      <option key={minutes} value={minutes}>
                        {minutes} minutes
                      </option>
                    ))}
                </select>
              </label>
              {view.minutes > 0 && (
                <span>
                  this takes {view.minutes}
                  {view.rests > 0 && `, ${view.rests === 1 ? 'a rest' : `${view.rests} rests`} among them`}
                </span>
              )}
            </p>
          </Column>
          <Column name="Since last week">
            {since.length === 0 && (
              <p className="py-3 text-soft">Two weeks with takes in them, and this says what moved.</p>
            )}
            {since.map(({ title, words }) => (
              <p key={title} className="border-b border-line py-2">
                <b className="text-[17px]">
                  <ChordWords text={title} />
                </b>
                <br />
                <span className="text-soft">{words}</span>
              </p>
            ))}
            {since.length > 0 && (
              <p className="py-2">
                <Link href="/progress" className="text-[15px] text-dim hover:text-ink">
                  all of it under Progress
                </Link>
              </p>
            )}
          </Column>
          <Column name={goal ? goalTunes(tunes.length) : 'Your tunes'}>
            {tunes.length === 0 && <p className="py-3 text-soft">Tunes you have played stand here.</p>}
            {tunes.map((tune) => (
              <Link
                key={tune.chart}
                href={`/progress?tune=${encodeURIComponent(tune.title)}`}
                className="group block border-b border-line py-2"
              >
                <b className="text-[17px] group-hover:underline">{tune.title}</b>
                <br />
                <span className="text-soft">
                  {tune.takes === 0
                    ? `${tune.of} kinds of change, not played yet`
                    : `${tune.held} of ${tune.of} kinds of change held at ${tune.tempo}${tune.takes === 1 ? ', from 1 take' : ''}`}
                </span>
                <span className="mt-1.5 flex gap-1" aria-hidden="true">
                  {Array.from({ length: tune.of }, (_, kind) => (
                    <i
                      key={kind}
                      className={`h-2 max-w-[26px] min-w-[8px] flex-1 ${kind < tune.held ? 'bg-[var(--h0)]' : 'bg-line'}`}
                    />
                  ))}
                </span>
              </Link>
            ))}
            {spread.length > 1 && (
              <p className="py-2 text-sm leading-5 text-dim">
                {spread
                  .filter(({ titles }) => titles.length > 0)
                  .slice(0, 2)
                  .map(({ day, titles }) => `${day} ${titles.join(' and ')}`)
                  .join('; ')}
              </p>
            )}
          </Column>
        </div>
      </div>
      <GoalDialog open={setting} onClose={() => setSetting(false)} goal={goal} charts={charts} />
    </Shell>
  );
}

const NUMERALS = ['', 'one', 'two', 'three', 'four', 'five', 'six'];
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const inDays = (days: number): string => {
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  return `in ${days} days`;
};

function Column({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name} className="min-w-0">
      <h2 className="heading border-b border-line">{name}</h2>
      {children}
    </section>
  );
}

/** Where each chorus of the small picture begins. */
function Choruses({ count, children }: { count: number; children: ReactNode }) {
  return (
    <div className="relative">
      {Array.from({ length: count }, (_, chorus) => (
        <i
          key={chorus}
          className="absolute top-0 bottom-0 border-l border-dim pl-1.5 text-xs leading-3 text-dim not-italic"
          style={{ left: `${(100 * chorus) / count}%` }}
          aria-hidden="true"
        >
          {chorus > 0 && count <= 8 ? chorus + 1 : ''}
        </i>
      ))}
      <div className="pt-3">{children}</div>
    </div>
  );
}

/** The first day, or a day with nothing due: what to do all the same. */
function Nothing({ played }: { played: boolean }) {
  return (
    <>
      <h1 className="mt-1 text-[44px] leading-[52px] font-[640] tracking-tight sm:text-[64px] sm:leading-[76px]">
        {played ? 'Nothing is due.' : 'Record something.'}
      </h1>
      <p className="mt-1 max-w-[860px] text-[19px] leading-7 text-soft sm:text-[25px] sm:leading-9">
        {played
          ? 'Play a tune for its own sake, or take a drill up from a finding.'
          : 'Two choruses over a chart are enough: the review says what to practise, and this page brings it back when it is due.'}
      </p>
      <p className="mt-5 flex flex-wrap items-center gap-4">
        <Link className="go text-xl" href="/record">
          Record
        </Link>{' '}
        <Link className="quiet" href="/charts">
          Choose a chart
        </Link>{' '}
        {played && (
          <Link className="quiet" href="/drills">
            All drills
          </Link>
        )}
      </p>
    </>
  );
}

const goalTunes = (count: number): string =>
  count === 1 ? 'The tune' : `The ${NUMERALS[count] ?? count} tunes`;
