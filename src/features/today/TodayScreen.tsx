'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { KeyOf } from '../shell/commands/KeyOf';
import { type Handlers } from '../shell/commands/registry';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { TodayColumns } from './TodayColumns';
import { ALSO_COMMANDS, type TodayView } from './todayView';
import { GoalLine, FirstThing, LastTake } from './TodayParts';

const GoalDialog = dynamic(() => import('./GoalDialog').then((made) => made.GoalDialog));

export type GoalChart = { readonly id: string; readonly title: string };
type Props = { view: TodayView; charts: readonly GoalChart[] };

/**
 * The day’s practice: one thing large, started by one key; what is due after it, what moved, how far the tunes
 * have come.
 */
export function TodayScreen({ view, charts }: Props) {
  const router = useRouter();
  const [setting, setSetting] = useState(false);
  const { goal, last } = view;
  const openGoal = () => setSetting(true);
  useCommands(todayCommands(view, (href) => router.push(href), openGoal));
  return (
    <Shell place="Today" footer={<Footer view={view} />}>
      <div className="mx-4 pt-4 pb-8 sm:mx-8 sm:pt-6">
        <div className="max-w-[1160px]">
          <GoalLine view={view} onOpen={openGoal} />
          <FirstThing view={view} onStart={(item) => router.push(item.href)} />
        </div>
        {last && <LastTake last={last} />}
        <TodayColumns view={view} onMinutes={(minutes) => router.push(`/?minutes=${minutes}`)} />
      </div>
      {setting && <GoalDialog onClose={() => setSetting(false)} goal={goal} charts={charts} />}
    </Shell>
  );
}

/** What can be done on Today. */
export function todayCommands(
  { first, also, last }: TodayView,
  go: (href: string) => void,
  openGoal: () => void,
): Handlers {
  const others = ALSO_COMMANDS.map((id, index) => {
    const item = also[index];
    return [id, item && { label: `Start ${item.name}`, run: () => go(item.href) }] as const;
  });
  return {
    'today.start': {
      label: first ? `Start ${first.name}` : 'Record a take',
      run: () => go(first?.href ?? '/record'),
    },
    'today.lastTake': last && { run: () => go(`/takes/${last.id}`) },
    'today.goal': openGoal,
    ...Object.fromEntries(others),
  };
}

function Footer({ view: { last, minutesThisWeek } }: { view: TodayView }) {
  return (
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
            <KeyOf command="today.lastTake" /> open its review
          </Link>
        </>
      ) : (
        <span>Nothing has been recorded yet.</span>
      )}
      <span className="ml-auto hidden md:inline">
        {minutesThisWeek} {minutesThisWeek === 1 ? 'minute' : 'minutes'} this week
      </span>
      <Link href="/week" className="hover:text-ink">
        the week ahead
      </Link>
      <Link href="/diary" className="hidden hover:text-ink sm:inline">
        diary
      </Link>
    </>
  );
}
