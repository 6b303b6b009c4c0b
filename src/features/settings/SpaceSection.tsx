'use client';
import { useState } from 'react';
import type { Space } from '@/server/audio';
import { ask } from '@/audio/persistence/serverTakes';
import { ChoiceSetting } from '@/ui/Field';
import { byteSize, counted } from './amounts';

const DAYS = ['', '365', '180', '90', '30', '7'] as const;
const WORDS: Record<(typeof DAYS)[number], string> = {
  '': 'for ever',
  '365': 'a year',
  '180': 'half a year',
  '90': 'three months',
  '30': 'a month',
  '7': 'a week',
};

const length = (seconds: number): string => {
  if (seconds >= 5_400) return `${(seconds / 3_600).toFixed(1)} hours`;
  if (seconds >= 90) return `${Math.round(seconds / 60)} minutes`;
  return `${Math.round(seconds)} seconds`;
};

/** What kept sound weighs and how long it stays; what would be let go is asked first. */
export function SpaceSection({ keepDays, space: first }: { keepDays: number | null; space: Space }) {
  const [days, setDays] = useState(keepDays);
  const [space, setSpace] = useState(first);
  const [asked, setAsked] = useState<number | null | undefined>(undefined);
  const [words, setWords] = useState('');
  const put = async (wanted: number | null) => {
    setAsked(undefined);
    try {
      const { gone, space: now } = await ask<{ gone: number; space: Space }>('/api/settings/sound', {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ keepDays: wanted }),
      });
      setDays(wanted);
      setSpace(now);
      setWords(gone > 0 ? `The sound of ${counted(gone, 'take')} is in the trash.` : '');
    } catch {
      setWords('The server does not answer; nothing was changed.');
    }
  };
  const choices = DAYS.map((one) => [one, WORDS[one]] as const);
  const value = (days === null ? '' : String(days)) as (typeof DAYS)[number];
  return (
    <>
      <p className="grid grid-cols-[118px_minmax(0,1fr)] gap-x-3 py-[3px] text-soft">
        <span className="text-dim">Sound kept</span>
        <span>
          <b className="text-ink">{byteSize(space.soundBytes)}</b>, {length(space.seconds)} in{' '}
          {counted(space.takes, 'take')}
        </span>
      </p>
      <ChoiceSetting
        name="Keep it"
        value={value}
        choices={DAYS.includes(value) ? choices : [...choices, [value, `${days} days`] as const]}
        onChange={(one) => {
          const wanted = one === '' ? null : Number(one);
          if (wanted === null || (days !== null && wanted >= days)) void put(wanted);
          else setAsked(wanted);
        }}
      />
      {asked !== undefined && asked !== null && (
        <p role="alert" className="mt-1 border-l-[3px] border-now pl-3 leading-6 text-soft">
          Sound older than {WORDS[String(asked) as (typeof DAYS)[number]] ?? `${asked} days`} goes into the
          trash now and is deleted after thirty days; notes and reviews stay.{' '}
          <button
            type="button"
            className="font-[580] text-now hover:underline"
            onClick={() => void put(asked)}
          >
            Remove it
          </button>{' '}
          <button
            type="button"
            className="ml-2 hover:text-ink hover:underline"
            onClick={() => setAsked(undefined)}
          >
            Cancel
          </button>
        </p>
      )}
      <p role="status" className="leading-5 text-soft">
        {words || 'Lossless; notes and reviews stay whatever you choose.'}
      </p>
    </>
  );
}
