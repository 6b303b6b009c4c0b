'use client';
import { useRouter } from 'next/navigation';
import { typeset } from '@/core/music';
import { ChordWords } from '@/ui/ChordWords';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { ItemRow, type Item } from './DrillRows';
import { TakeOneUp, type Props } from './TakeOneUp';

/** Your drills, and everything that can be practised over a chart. */
export function DrillsScreen({ charts, items, chartId, courseStep = null }: Props) {
  const router = useRouter();
  const open = items.filter(({ drill }) => !drill.away);
  const due = open.filter(({ days }) => days <= 0);
  const first = due[0] ?? open[0];
  useCommands(
    {
      'drills.start': first && {
        label: due[0] ? 'Open the first drill due' : 'Open the next drill',
        run: () => router.push(`/drills/${first.drill.id}`),
      },
    },
    { scrolls: true },
  );
  return (
    <Shell
      place="Drills"
      footer={
        <>
          <span>
            {first ? (
              <>
                <span className="font-[640] text-now">press</span>{' '}
                {due[0] ? 'the first drill due' : 'the next drill'}:{' '}
                <ChordWords text={typeset(first.drill.drill.name)} />
              </>
            ) : (
              'Start one below, or from a finding in a review.'
            )}
          </span>
          <span className="ml-auto hidden sm:inline">
            {open.length} {open.length === 1 ? 'drill' : 'drills'}, {due.length} due today
          </span>
        </>
      }
    >
      <div className="mx-4 grid gap-x-14 gap-y-8 pt-4 pb-10 sm:mx-8 lg:grid-cols-[400px_minmax(0,1fr)]">
        <ComingBack open={open} away={items.filter(({ drill }) => drill.away)} />
        <TakeOneUp charts={charts} open={open} chartId={chartId} courseStep={courseStep} />
      </div>
    </Shell>
  );
}

function ComingBack({ open, away }: { open: readonly Item[]; away: readonly Item[] }) {
  return (
    <section aria-label="Your drills" className="min-w-0">
      <h1 className="text-[25px] leading-8 font-[640]">Your drills</h1>
      {open.length === 0 && (
        <p className="mt-3 text-lg leading-7 text-soft">
          Nothing yet. A finding in a review becomes a drill on one key; or start one here.
        </p>
      )}
      <ul className="mt-2">
        <ItemRows items={open} />
      </ul>
      {away.length > 0 && (
        <details className="mt-4 text-soft">
          <summary className="cursor-pointer text-[15px] text-dim">{away.length} paused</summary>
          <ul>
            <ItemRows items={away} />
          </ul>
        </details>
      )}
    </section>
  );
}

const ItemRows = ({ items }: { items: readonly Item[] }) =>
  items.map((item) => (
    <li key={item.drill.id} className="border-b border-line">
      <ItemRow item={item} />
    </li>
  ));
