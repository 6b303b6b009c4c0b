'use client';
import Link from 'next/link';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { useProgressModel, type Props, type ProgressModel } from './useProgressModel';
import { TuneLine, Looked, Nothing } from './ProgressParts';

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
