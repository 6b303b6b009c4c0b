'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { LIBRARY, readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { ServerRefusal } from '@/audio/persistence/serverTakes';
import { makeChart } from './newChart';

/** So many forms are offered before the first take; the others are in the library. */
const OFFERED = LIBRARY.slice(0, 4);

/** Nothing to play over yet: a form is chosen by one press, and recorded over by the next. */
export function FirstForm() {
  const router = useRouter();
  const [trouble, setTrouble] = useState<string | null>(null);
  const choose = async (text: string) => {
    try {
      const { id } = await makeChart(text);
      router.push(`/record?chart=${id}`);
      router.refresh();
    } catch (error) {
      const isRefused = error instanceof ServerRefusal;
      setTrouble(isRefused ? error.message : 'The server does not answer; nothing was made.');
    }
  };
  return (
    <div className="mx-4 mt-10 max-w-[900px] pb-8 sm:mx-8">
      <h1 className="text-[44px] leading-[52px] font-[640] tracking-tight sm:text-[64px] sm:leading-[72px]">
        What do you play over?
      </h1>
      <p className="mt-3 text-2xl text-soft">Choose a form; the band plays it. You can change it later.</p>
      {trouble && (
        <p role="alert" className="mt-4 border-l-[3px] border-now pl-3">
          {trouble}
        </p>
      )}
      <ul className="mt-6 border-b border-line">
        {OFFERED.map(({ id, text }) => {
          const { title, bars, tempo } = unwrap(readChart(text));
          return (
            <li key={id} className="border-t border-line">
              <button
                type="button"
                className="flex w-full flex-wrap items-baseline gap-x-6 py-3 text-left hover:bg-row"
                onClick={() => void choose(text)}
              >
                <b className="text-[24px]">{title}</b>{' '}
                <span className="text-[19px] text-soft">
                  {bars.length} bars{tempo ? `, ${tempo} a minute` : ''}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      <p className="mt-5 text-lg text-soft">
        <Link href="/charts" className="underline hover:text-ink">
          All forms, or a chart of your own
        </Link>
      </p>
    </div>
  );
}
