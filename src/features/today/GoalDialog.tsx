'use client';
import { Dialog } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask } from '@/audio/persistence/serverTakes';
import type { TodayView } from './todayView';

export type GoalChart = { readonly id: string; readonly title: string };
type Props = { open: boolean; onClose: () => void; goal: TodayView['goal']; charts: readonly GoalChart[] };

/** What to be ready for: its words, its day, its tunes, and how many minutes a day there are. */
export function GoalDialog({ open, onClose, goal, charts }: Props) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(wanted) => {
        if (!wanted) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/80" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-30 max-h-[88vh] w-[560px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border-t-[3px] border-now bg-panel p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="mb-3 text-[25px] leading-8 font-[640]">
            Something to be ready for
          </Dialog.Title>
          <GoalForm key={String(open)} goal={goal} charts={charts} onClose={onClose} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function GoalForm({ goal, charts, onClose }: Omit<Props, 'open'>) {
  const router = useRouter();
  const [words, setWords] = useState(goal?.words ?? 'the jam');
  const [day, setDay] = useState(goal?.day ?? '');
  const [minutes, setMinutes] = useState(String(goal?.minutes ?? 30));
  const [chosen, setChosen] = useState<readonly string[]>(goal?.charts ?? []);
  const [trouble, setTrouble] = useState<string | null>(null);
  const keep = (body: unknown) =>
    ask('/api/goal', {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
      .then(() => {
        onClose();
        router.refresh();
      })
      .catch((error: Error) => setTrouble(error.message));
  let missing: 'What is it?' | 'When is it?' | 'Which tunes?' | null;
  if (words.trim() === '') missing = 'What is it?';
  else if (day === '') missing = 'When is it?';
  else if (chosen.length === 0) missing = 'Which tunes?';
  else missing = null;
  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (missing) setTrouble(missing);
        else
          void keep({
            words: words.trim(),
            day,
            charts: chosen,
            minutes: Math.max(5, Math.min(240, Math.round(Number(minutes)) || 30)),
          });
      }}
    >
      <label className="grid gap-1 text-soft">
        What{' '}
        <input
          className="field text-ink"
          value={words}
          maxLength={80}
          onChange={(event) => setWords(event.target.value)}
        />
      </label>
      <div className="grid grid-cols-2 gap-4">
        <label className="grid gap-1 text-soft">
          On{' '}
          <input
            className="field text-ink"
            type="date"
            value={day}
            onChange={(event) => setDay(event.target.value)}
          />
        </label>
        <label className="grid gap-1 text-soft">
          Minutes a day{' '}
          <input
            className="field text-ink"
            inputMode="numeric"
            value={minutes}
            onChange={(event) => setMinutes(event.target.value)}
          />
        </label>
      </div>
      <fieldset className="grid gap-1">
        <legend className="text-soft">Tunes</legend>
        <div className="max-h-56 overflow-y-auto border-y border-line py-2">
          {charts.map(({ id, title }) => (
            <label key={id} className="flex items-center gap-2.5 py-1">
              <input
                type="checkbox"
                checked={chosen.includes(id)}
                onChange={() =>
                  setChosen(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id])
                }
              />
              {title}
            </label>
          ))}
        </div>
      </fieldset>
      {trouble && (
        <p role="alert" className="border-l-[3px] border-now pl-3">
          {trouble}
        </p>
      )}
      <p className="flex flex-wrap gap-3">
        <button type="submit" className="go">
          Be ready for it
        </button>
        <Dialog.Close className="quiet">Leave it</Dialog.Close>
        {goal && (
          <button type="button" className="quiet ml-auto" onClick={() => void keep({ none: true })}>
            No goal
          </button>
        )}
      </p>
    </form>
  );
}
