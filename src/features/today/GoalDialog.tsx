'use client';
import { joiResolver } from '@hookform/resolvers/joi';
import { Dialog } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Controller, useForm, type Control, type FieldErrors } from 'react-hook-form';
import { GOAL_WORDS, goalSchema, type GoalWords } from '@/core/formats';
import { Checkbox } from '@/ui/controls';
import { ask } from '@/audio/persistence/serverTakes';
import type { GoalChart } from './TodayScreen';
import type { TodayView } from './todayView';

type Props = { onClose: () => void; goal: TodayView['goal']; charts: readonly GoalChart[] };

const DEFAULT_MINUTES = 30;

/** What to be ready for: its words, its day, its tunes, and how many minutes a day there are. */
export function GoalDialog({ onClose, goal, charts }: Props) {
  return (
    <Dialog.Root
      open
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
          <GoalForm goal={goal} charts={charts} onClose={onClose} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const firstProblem = (errors: FieldErrors<GoalWords>): string | null =>
  (errors.words ?? errors.day ?? errors.charts ?? errors.minutes)?.message ?? null;

function GoalForm({ goal, charts, onClose }: Props) {
  const router = useRouter();
  const [refused, setRefused] = useState<string | null>(null);
  const { register, control, handleSubmit, formState } = useForm<GoalWords>({
    resolver: joiResolver(goalSchema, { abortEarly: false }),
    defaultValues: {
      words: goal?.words ?? 'the jam',
      day: goal?.day ?? '',
      minutes: goal?.minutes ?? DEFAULT_MINUTES,
      charts: [...(goal?.charts ?? [])],
    },
  });
  const save = (body: GoalWords | { none: true }) =>
    ask('/api/goal', {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
      .then(() => {
        onClose();
        router.refresh();
      })
      .catch((error: Error) => setRefused(error.message));
  const trouble = firstProblem(formState.errors) ?? refused;
  return (
    <form className="grid gap-4" noValidate onSubmit={(event) => void handleSubmit(save)(event)}>
      <label className="grid gap-1 text-soft">
        What <input className="field text-ink" maxLength={GOAL_WORDS} {...register('words')} />
      </label>
      <div className="grid grid-cols-2 gap-4">
        <label className="grid gap-1 text-soft">
          On <input className="field text-ink" type="date" {...register('day')} />
        </label>
        <label className="grid gap-1 text-soft">
          Minutes a day <input className="field text-ink" inputMode="numeric" {...register('minutes')} />
        </label>
      </div>
      <Tunes charts={charts} control={control} />
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
          <button type="button" className="quiet ml-auto" onClick={() => void save({ none: true })}>
            No goal
          </button>
        )}
      </p>
    </form>
  );
}

function Tunes({ charts, control }: Pick<Props, 'charts'> & { control: Control<GoalWords> }) {
  return (
    <fieldset className="grid gap-1">
      <legend className="text-soft">Tunes</legend>
      <div className="max-h-56 overflow-y-auto border-y border-line py-2">
        <Controller
          control={control}
          name="charts"
          render={({ field: { value, onChange } }) => (
            <>
              {charts.map(({ id, title }) => (
                <label key={id} className="flex items-center gap-2.5 py-1">
                  <Checkbox
                    checked={value.includes(id)}
                    onChange={(on) => onChange(on ? [...value, id] : value.filter((other) => other !== id))}
                  />
                  {title}
                </label>
              ))}
            </>
          )}
        />
      </div>
    </fieldset>
  );
}
