'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { elementAt, present } from '@/core/shared';
import { ask } from '@/audio/persistence/serverTakes';
import type { TuneProgress } from '@/server/practice';
import { ChordWords } from '@/ui/ChordWords';
import { Select, TabRow } from '@/ui/controls';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { Courses } from './Courses';
import { Covered } from './Covered';
import {
  approachRows,
  changeRows,
  saidOf,
  SIGHTS,
  toneRows,
  type CourseRow,
  type ProgressHeadline,
} from './progressView';
import { ThenAndNow } from './ThenAndNow';
import { Weeks } from './Weeks';

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
export function ProgressScreen(props: Props) {
  const { tune, titles, chosen } = props;
  const model = useProgressModel(props);
  useCommands({
    'progress.next': () => model.step(1),
    'progress.previous': () => model.step(-1),
    'progress.view': model.nextSight,
    'progress.drill': model.drill,
  });
  return (
    <Shell
      place="Progress"
      side={
        <Link href="/diary" className="hover:text-ink">
          Diary
        </Link>
      }
      footer={<Footer model={model} />}
    >
      <div className="mx-4 pt-1 pb-8 sm:mx-8">
        <TuneLine tune={tune} titles={titles} chosen={chosen} />
        {tune.progress.weeks.length > 0 ? <Looked {...props} model={model} /> : <Nothing />}
      </div>
    </Shell>
  );
}

function rowsOf(sight: ProgressHeadline, progress: TuneProgress['progress']): CourseRow[] {
  if (sight === 'changes') return changeRows(progress);
  return sight === 'tones' ? toneRows(progress) : approachRows(progress);
}

function useProgressModel({ tune: { progress }, chartId }: Props) {
  const router = useRouter();
  const [sight, setSight] = useState<ProgressHeadline>('changes');
  const [at, setAt] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const rows = useMemo(() => rowsOf(sight, progress), [sight, progress]);
  const chosen = Math.min(at, rows.length - 1);
  const row = rows[chosen];
  const show = (next: ProgressHeadline) => {
    setSight(next);
    setAt(0);
  };
  return {
    sight,
    rows,
    row,
    chosen,
    trouble,
    choose: setAt,
    show,
    nextSight: () =>
      show(elementAt(SIGHTS, (SIGHTS.findIndex(([one]) => one === sight) + 1) % SIGHTS.length)[0]),
    step: (by: 1 | -1) => setAt(Math.max(0, Math.min(rows.length - 1, chosen + by))),
    /** Takes up a drill of the chosen kind of change; elsewhere, shows all drills of the tune. */
    drill: () => {
      if (!chartId || sight !== 'changes' || !row?.from)
        return router.push(`/drills${chartId ? `?chart=${chartId}` : ''}`);
      void ask<{ id: string }>('/api/drills', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ chartId, kind: 'one-target', change: row.id }),
      })
        .then(({ id }) => router.push(`/drills/${id}`))
        .catch((error: Error) => setTrouble(error.message));
    },
  };
}
type ProgressModel = ReturnType<typeof useProgressModel>;

function Footer({ model: { sight, drill } }: { model: ProgressModel }) {
  return (
    <>
      <span>
        {sight === 'weeks'
          ? 'Minutes of takes and of attempts at drills'
          : 'Lines are the range the true share lies in 9 times in 10; more landings make them shorter'}
      </span>
      <span className="ml-auto hidden items-center gap-4 md:flex">
        <span>
          <KeyOf command="progress.previous" /> <KeyOf command="progress.next" /> row
        </span>
        <span>
          <KeyOf command="progress.view" /> next view
        </span>
        <button type="button" className="hover:text-ink" onClick={drill}>
          <KeyOf command="progress.drill" /> drill it
        </button>
      </span>
    </>
  );
}

function TuneLine({ tune, titles, chosen }: Pick<Props, 'tune' | 'titles' | 'chosen'>) {
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

function Looked({ tune, thisWeek, drills, model }: Props & { model: ProgressModel }) {
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

const Nothing = () => (
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
