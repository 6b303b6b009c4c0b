'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import type { TuneProgress } from '@/server/practice';
import { ChordWords } from '@/ui/ChordWords';
import { Shell } from '../shell/Shell';
import { ask } from '@/audio/persistence/serverTakes';
import { Courses } from './Courses';
import { Covered } from './Covered';
import { ThenAndNow } from './ThenAndNow';
import { Weeks } from './Weeks';
import { approachRows, changeRows, saidOf, SIGHTS, toneRows, type ProgressHeadline } from './progressView';
import { elementAt, present } from '@/core/shared';

export type DrillLine = {
  readonly id: string;
  readonly name: string;
  readonly title: string;
  readonly fastest: number | null;
  readonly now: number;
  readonly tries: number;
};
type Props = {
  tune: TuneProgress;
  titles: readonly string[];
  chosen: string | null;
  thisWeek: number;
  chartId: string | null;
  /** Its drills: tempo reached, attempts. */ drills: readonly DrillLine[];
};

/**
 * How it went over the weeks: per kind of change, per tone, per way in, and week by week. Counts and what they
 * leave open; never one average.
 */
export function ProgressScreen({ tune, titles, chosen, thisWeek, chartId, drills }: Props) {
  const router = useRouter();
  const [sight, setSight] = useState<ProgressHeadline>('changes');
  const [at, setAt] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { progress } = tune;
  const rows = useMemo(() => {
    if (sight === 'changes') return changeRows(progress);
    if (sight === 'tones') return toneRows(progress);
    return approachRows(progress);
  }, [sight, progress]);
  const { soft, bold } = useMemo(() => saidOf(progress), [progress]);
  const row = rows[Math.min(at, rows.length - 1)];
  const drill = () => {
    if (!chartId || sight !== 'changes' || !row?.from)
      return router.push(`/drills${chartId ? `?chart=${chartId}` : ''}`);
    void ask<{ id: string }>('/api/drills', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ chartId, kind: 'one-target', change: row.id }),
    })
      .then(({ id }) => router.push(`/drills/${id}`))
      .catch((error: Error) => setTrouble(error.message));
  };
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
      if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
        event.preventDefault();
        setAt((now) => Math.max(0, Math.min(rows.length - 1, now + (event.key === 'ArrowDown' ? 1 : -1))));
      }
      if (event.key.toLowerCase() === 'd') drill();
      if (event.key.toLowerCase() === 'v')
        setSight(
          (now) => elementAt(SIGHTS, (SIGHTS.findIndex(([one]) => one === now) + 1) % SIGHTS.length)[0],
        );
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  const enough = progress.weeks.length > 0;
  return (
    <Shell
      place="Progress"
      side={
        <Link href="/diary" className="hover:text-ink">
          Diary
        </Link>
      }
      footer={
        <>
          <span>
            {sight === 'weeks'
              ? 'Minutes of takes; attempts at drills stand in the diary'
              : 'Lines are the range the true share lies in 9 times in 10; more landings make them shorter'}
          </span>
          <span className="ml-auto hidden items-center gap-4 md:flex">
            <span>
              <kbd className="key">↑</kbd> <kbd className="key">↓</kbd> row
            </span>
            <span>
              <kbd className="key">V</kbd> next view
            </span>
            <button type="button" className="hover:text-ink" onClick={drill}>
              <kbd className="key">D</kbd> drill it
            </button>
          </span>
        </>
      }
    >
      <div className="mx-4 pt-1 pb-8 sm:mx-8">
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[15px] text-dim">
          <label className="flex items-center gap-2">
            <span className="sr-only">Tune</span>
            <select
              className="field !py-0.5 font-[560] text-ink"
              value={chosen ?? ''}
              onChange={(event) =>
                router.push(
                  event.target.value === ''
                    ? '/progress?tune='
                    : `/progress?tune=${encodeURIComponent(event.target.value)}`,
                )
              }
            >
              <option value="">Every tune</option>
              {titles.map((title) => (
                <option key={title} value={title}>
                  {title}
                </option>
              ))}
            </select>
          </label>
          <span>third or seventh at the change, or within a beat of it</span>
          <span>
            {tune.takes} {tune.takes === 1 ? 'take' : 'takes'}, {Math.round(tune.minutes)}{' '}
            {Math.round(tune.minutes) === 1 ? 'minute' : 'minutes'}
          </span>
        </p>
        {enough ? (
          <>
            <h1 className="mt-2 text-[21px] leading-8 sm:text-[25px]">
              <span className="text-soft">{soft}</span>
              <br />
              <b>
                <ChordWords text={bold} />
              </b>
            </h1>
            <p className="mt-3 mb-3 flex flex-wrap gap-x-5 gap-y-1" role="tablist" aria-label="What is shown">
              {SIGHTS.map(([one, name]) => (
                <button
                  key={one}
                  type="button"
                  role="tab"
                  aria-selected={sight === one}
                  className={
                    sight === one
                      ? 'border-b-2 border-now font-semibold text-ink'
                      : 'border-b-2 border-transparent text-soft hover:text-ink'
                  }
                  onClick={() => {
                    setSight(one);
                    setAt(0);
                  }}
                >
                  {name}
                </button>
              ))}
            </p>
            {trouble && (
              <p role="alert" className="mb-3 border-l-[3px] border-now pl-4">
                {trouble}
              </p>
            )}
            {sight === 'weeks' ? (
              <Weeks weeks={progress.weeks} thisWeek={thisWeek} />
            ) : (
              <Courses
                rows={rows}
                thisWeek={thisWeek}
                chosen={Math.min(at, rows.length - 1)}
                onChoose={setAt}
                what={present(SIGHTS.find(([one]) => one === sight))[1]}
              />
            )}
            <div className="mt-8 grid gap-8 md:grid-cols-2">
              {sight === 'weeks' && <Covered keys={progress.keys} places={progress.places} />}
              {drills.length > 0 && (
                <section aria-label="Its drills">
                  <h2 className="heading border-b border-line">Its drills</h2>
                  <ul>
                    {drills.map((one) => (
                      <li key={one.id} className="border-b border-line">
                        <Link
                          href={`/drills/${one.id}`}
                          className="group grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 py-2"
                        >
                          <b className="font-[580] group-hover:underline">
                            <ChordWords text={one.name} />
                          </b>
                          <span className="text-soft">
                            {one.fastest === null ? (
                              `now at ${one.now}`
                            ) : (
                              <>
                                passed at <b className="text-ink">{one.fastest}</b>
                              </>
                            )}
                            , {one.tries} {one.tries === 1 ? 'attempt' : 'attempts'}
                          </span>
                        </Link>
                      </li>
                    ))}
                  </ul>
                </section>
              )}
              {tune.ends && (
                <ThenAndNow ends={tune.ends} change={sight === 'changes' ? (row?.id ?? null) : null} />
              )}
            </div>
          </>
        ) : (
          <>
            <h1 className="mt-4 text-[40px] leading-[48px] font-[640] tracking-tight sm:text-[64px] sm:leading-[76px]">
              Nothing to look back on yet.
            </h1>
            <p className="mt-2 max-w-[760px] text-xl leading-8 text-soft">
              Every take is counted here by kind of change. Two or three over the same tune are enough to
              begin with.
            </p>
            <p className="mt-6">
              <Link className="go" href="/record">
                Record a take
              </Link>
            </p>
          </>
        )}
      </div>
    </Shell>
  );
}
