'use client';
import Link from 'next/link';
import { ChordWords } from '@/ui/ChordWords';
import { TakeProfile } from '@/ui/form/TakeProfile';
import { commandNow } from '../shell/commands/registry';
import { type TodayItem, type TodayView } from './todayView';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const inDays = (days: number): string => {
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  return `in ${days} days`;
};

export function GoalLine({ view: { goal, first }, onOpen }: { view: TodayView; onOpen: () => void }) {
  return (
    <p className="text-[17px] leading-7 text-soft sm:text-xl">
      {goal ? (
        <>
          {capital(goal.words)} is {inDays(goal.days)}.{' '}
          <button type="button" className="text-dim underline hover:text-ink" onClick={onOpen}>
            change
          </button>
        </>
      ) : (
        <>
          <button type="button" className="underline hover:text-ink" onClick={onOpen}>
            Name something to be ready for
          </button>
          , and by when.
        </>
      )}
      {first && ' Due first:'}
    </p>
  );
}

type FirstProps = { view: TodayView; onStart: (item: TodayItem) => void };

/** The one thing that is started by the pedal. */
export function FirstThing({ view: { first, last }, onStart }: FirstProps) {
  if (!first) return <Nothing played={last !== null} />;
  const start = () => onStart(first);
  return (
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
        {first.words && '.'} About {first.minutes} minutes: {first.why}.
      </p>
      <p className="mt-5 flex flex-wrap items-center gap-4">
        <button type="button" className="go w-full text-2xl sm:hidden" onClick={start}>
          Start, about {first.minutes} minutes
        </button>
        <button type="button" className="go hidden text-xl sm:block" onClick={start}>
          Space
        </button>
        <b className="hidden text-[25px] sm:inline">start, hands free from here</b>
      </p>
    </>
  );
}

export function LastTake({ last }: { last: NonNullable<TodayView['last']> }) {
  return (
    <div className="mt-6">
      <p className="mb-1 text-sm text-dim">
        <Link href={`/takes/${last.id}`} className="hover:text-ink">
          take {last.number}, {last.title}
          {last.choruses > 1 && `, ${last.choruses} choruses`}
        </Link>
      </p>
      <div className="relative">
        <ChorusStarts count={last.choruses} />
        <div className="pt-3">
          <TakeProfile profile={last.profile} width={1216} />
        </div>
      </div>
    </div>
  );
}

const MOST_NUMBERED = 8;

/** Where each chorus of the small picture begins. */
const ChorusStarts = ({ count }: { count: number }) =>
  Array.from({ length: count }, (_, chorus) => (
    <i
      key={chorus}
      className="absolute top-0 bottom-0 border-l border-dim pl-1.5 text-xs leading-3 text-dim not-italic"
      style={{ left: `${(100 * chorus) / count}%` }}
      aria-hidden="true"
    >
      {chorus > 0 && count <= MOST_NUMBERED ? chorus + 1 : ''}
    </i>
  ));

/** The first day, or a day with nothing due: what to do all the same. */
export function Nothing({ played }: { played: boolean }) {
  return (
    <>
      <h1 className="mt-1 text-[44px] leading-[52px] font-[640] tracking-tight sm:text-[64px] sm:leading-[76px]">
        {played ? 'Nothing is due.' : 'Play a solo, and see it.'}
      </h1>
      <p className="mt-1 max-w-[860px] text-[19px] leading-7 text-soft sm:text-[25px] sm:leading-9">
        {played
          ? 'Play a tune for its own sake, or start a drill from a finding.'
          : 'Two choruses over a chart are enough. The review says what each note did and what to practise; this page brings it back when it is due.'}
      </p>
      <p className="mt-5 flex flex-wrap items-center gap-4">
        {played ? (
          <Link className="go text-xl" href="/record">
            Record
          </Link>
        ) : (
          <>
            <button type="button" className="go text-xl" onClick={() => commandNow('app.tour')?.run()}>
              Show me round, two minutes
            </button>
            <Link className="quiet" href="/setup">
              Set up the guitar
            </Link>
            <Link className="quiet" href="/record">
              Record
            </Link>
          </>
        )}{' '}
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
