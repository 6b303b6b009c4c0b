'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { present } from '@/core/shared';
import { ChordWords } from '@/ui/ChordWords';
import { Select, TabRow } from '@/ui/controls';
import { Courses } from './Courses';
import { Covered } from './Covered';
import { saidOf, SIGHTS } from './progressView';
import { ThenAndNow } from './ThenAndNow';
import { Weeks } from './Weeks';
import { type DrillLine, type Props, type ProgressModel } from './useProgressModel';

export function TuneLine({ tune, titles, chosen }: Pick<Props, 'tune' | 'titles' | 'chosen'>) {
  const router = useRouter();
  const minutes = Math.round(tune.minutes);
  return (
    <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[15px] text-dim">
      <label className="flex items-center gap-2">
        <span className="sr-only">Tune</span>
        <Select
          label="Tune"
          className="font-[560]"
          value={chosen ?? ''}
          options={[['', 'Every tune'], ...titles.map((title) => [title, title] as const)]}
          onChange={(title) => router.push(`/progress?tune=${encodeURIComponent(title)}`)}
        />
      </label>
      <span>third or seventh at the change, or within a beat of it</span>
      <span>
        {tune.takes} {tune.takes === 1 ? 'take' : 'takes'}, {minutes} {minutes === 1 ? 'minute' : 'minutes'}
      </span>
    </p>
  );
}

export function Looked({ tune, thisWeek, drills, model }: Props & { model: ProgressModel }) {
  const { progress, ends } = tune;
  const { sight, show, rows, row, chosen, choose, trouble } = model;
  const { soft, bold } = useMemo(() => saidOf(progress), [progress]);
  return (
    <>
      <h1 className="mt-2 text-[21px] leading-8 sm:text-[25px]">
        <span className="text-soft">{soft}</span>
        <br />
        <b>
          <ChordWords text={bold} />
        </b>
      </h1>
      <TabRow
        label="What is shown"
        className="mt-3 mb-3"
        value={sight}
        choices={SIGHTS.map(([one, name]) => [one, name])}
        onChange={show}
      >
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
            chosen={chosen}
            onChoose={choose}
            what={present(SIGHTS.find(([one]) => one === sight))[1]}
          />
        )}
      </TabRow>
      <div className="mt-8 grid gap-8 md:grid-cols-2">
        {sight === 'weeks' && <Covered keys={progress.keys} places={progress.places} />}
        {drills.length > 0 && <ItsDrills drills={drills} />}
        {ends && <ThenAndNow ends={ends} change={sight === 'changes' ? (row?.id ?? null) : null} />}
      </div>
    </>
  );
}

function ItsDrills({ drills }: { drills: readonly DrillLine[] }) {
  return (
    <section aria-label="Its drills">
      <h2 className="heading border-b border-line">Its drills</h2>
      <ul>
        {drills.map(({ id, name, fastest, now, tries }) => (
          <li key={id} className="border-b border-line">
            <Link href={`/drills/${id}`} className="group grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 py-2">
              <b className="font-[580] group-hover:underline">
                <ChordWords text={name} />
              </b>
              <span className="text-soft">
                {fastest === null ? (
                  `now at ${now}`
                ) : (
                  <>
                    passed at <b className="text-ink">{fastest}</b>
                  </>
                )}
                , {tries} {tries === 1 ? 'attempt' : 'attempts'}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

export const Nothing = () => (
  <>
    <h1 className="mt-4 text-[40px] leading-[48px] font-[640] tracking-tight sm:text-[64px] sm:leading-[76px]">
      Nothing to look back on yet.
    </h1>
    <p className="mt-2 max-w-[760px] text-xl leading-8 text-soft">
      Every take is counted here by kind of change. Two or three over the same tune are enough to begin with.
    </p>
    <p className="mt-6">
      <Link className="go" href="/record">
        Record a take
      </Link>
    </p>
  </>
);
