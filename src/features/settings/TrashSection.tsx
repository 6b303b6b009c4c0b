'use client';
import { useState } from 'react';
import { ask, restoreTake } from '@/audio/persistence/serverTakes';
import type { Trash } from '@/server/trash';
import { useDates } from '@/ui/dates';
import { restoreChart } from '../shell/trash';
import { counted } from './amounts';

const LISTED = 5;

/** What was removed in the last thirty days: brought back one by one, or deleted. */
export function TrashSection({ trash: first }: { trash: Trash }) {
  const [trash, setTrash] = useState(first);
  const [words, setWords] = useState('');
  const run = async (work: () => Promise<Trash>, done: string) => {
    try {
      setTrash(await work());
      setWords(done);
    } catch {
      setWords('The server does not answer; nothing was changed.');
    }
  };
  if (trash.takes.length === 0 && trash.charts.length === 0 && trash.sound.takes === 0)
    return (
      <p className="leading-6 text-soft">
        {words || 'Nothing in it.'} Removed takes and charts stay here for thirty days.
      </p>
    );
  return (
    <>
      <TrashList trash={trash} onRun={(work, done) => void run(work, done)} />
      <EmptyTrash
        onEmpty={() => void run(() => ask<Trash>('/api/trash', { method: 'DELETE' }), 'The trash is empty.')}
      />
      <p role="status" className="leading-5 text-soft">
        {words || 'Removed takes and charts stay here for thirty days.'}
      </p>
    </>
  );
}

type ListProps = { trash: Trash; onRun: (work: () => Promise<Trash>, done: string) => void };

async function bringBack(id: string): Promise<Trash> {
  await restoreTake(id);
  return ask<Trash>('/api/trash');
}
async function bringChartBack(id: string): Promise<Trash> {
  await restoreChart(id);
  return ask<Trash>('/api/trash');
}
const bringSoundBack = async (): Promise<Trash> =>
  (await ask<{ trash: Trash }>('/api/trash', { method: 'POST' })).trash;

function TrashList({ trash: { takes, charts, sound }, onRun }: ListProps) {
  const dates = useDates();
  return (
    <ul>
      {takes.slice(0, LISTED).map(({ id, number, title, removedAt }) => (
        <li key={id} className="flex items-baseline gap-3 py-[3px]">
          <span className="min-w-0 grow truncate text-soft">
            <b className="font-[580] text-ink">Take {number}</b>, {title}, {dates.shortDay(removedAt)}
          </span>
          <button
            type="button"
            className="shrink-0 text-now hover:underline"
            onClick={() => onRun(() => bringBack(id), `Take ${number} is back.`)}
          >
            Bring back<span className="sr-only"> take {number}</span>
          </button>
        </li>
      ))}
      {takes.length > LISTED && <li className="text-dim">and {takes.length - LISTED} more</li>}
      {charts.map(({ id, title, removedAt }) => (
        <li key={id} className="flex items-baseline gap-3 py-[3px]">
          <span className="min-w-0 grow truncate text-soft">
            <b className="font-[580] text-ink">{title}</b>, chart, {dates.shortDay(removedAt)}
          </span>
          <button
            type="button"
            className="shrink-0 text-now hover:underline"
            onClick={() => onRun(() => bringChartBack(id), `${title} is back.`)}
          >
            Bring back<span className="sr-only"> the chart {title}</span>
          </button>
        </li>
      ))}
      {sound.takes > 0 && (
        <li className="flex items-baseline gap-3 py-[3px] text-soft">
          <span className="grow">
            Sound of {counted(sound.takes, 'take')}, {Math.round(sound.bytes / 1e6)} MB
          </span>
          <button
            type="button"
            className="shrink-0 text-now hover:underline"
            onClick={() => onRun(bringSoundBack, 'The sound is back.')}
          >
            Bring back<span className="sr-only"> the sound</span>
          </button>
        </li>
      )}
    </ul>
  );
}

/** Asked once more before anything is deleted for good. */
function EmptyTrash({ onEmpty }: { onEmpty: () => void }) {
  const [isAsking, setIsAsking] = useState(false);
  if (!isAsking)
    return (
      <button
        type="button"
        className="mt-1 text-soft hover:text-ink hover:underline"
        onClick={() => setIsAsking(true)}
      >
        Empty the trash
      </button>
    );
  const answer = (work: () => void) => () => {
    setIsAsking(false);
    work();
  };
  return (
    <p role="alert" className="mt-1 border-l-[3px] border-now pl-3 leading-6 text-soft">
      What is deleted cannot be brought back.{' '}
      <button type="button" className="font-[580] text-now hover:underline" onClick={answer(onEmpty)}>
        Delete it
      </button>{' '}
      <button type="button" className="ml-2 hover:text-ink hover:underline" onClick={answer(() => undefined)}>
        Cancel
      </button>
    </p>
  );
}
