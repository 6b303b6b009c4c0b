'use client';
import { useEffect, useState } from 'react';
import { discardTake, finishTake } from '@/audio/takeStore';
import { TAKE_LOCK } from '@/audio/takeSession';
import { hearFile } from '@/audio/workers';

export type InterruptedTake = { readonly id: string; readonly title: string; readonly seconds: number; readonly offsetSec: number };

/** Takes that were cut off: what arrived is safe, and the player says what becomes of it. */
export function Interrupted({ takes, onDone }: { takes: readonly InterruptedTake[]; onDone: (id: string) => void }) {
  const [gone, setGone] = useState<readonly string[]>([]);
  const [busy, setBusy] = useState<string | null>(null);
  const [playing, setPlaying] = useState(false);
  // a take that another tab is recording right now is not cut off
  useEffect(() => void navigator.locks?.query().then(({ held }) => setPlaying(held?.some((lock) => lock.name === TAKE_LOCK) ?? false)), []);
  const [take] = takes.filter((one) => !gone.includes(one.id));
  if (!take || playing) return null;
  const keep = async () => {
    setBusy('Listening to it');
    try {
      const bytes = await (await fetch(`/api/takes/${take.id}/audio`)).arrayBuffer();
      const heard = await hearFile(bytes, (share) => setBusy(`Listening to it, ${Math.round(share * 100)} %`), new AbortController().signal);
      await finishTake(take.id, heard.samples.length, take.offsetSec, heard.transcription);
      onDone(take.id);
    } catch {
      setBusy('It could not be read. It stays here.');
    }
  };
  const throwAway = async () => {
    await discardTake(take.id).catch(() => undefined);
    setGone([...gone, take.id]);
  };
  return (
    <section role="alert" aria-label="Cut-off take" className="mx-4 mt-4 flex flex-wrap items-center gap-x-6 gap-y-3 border-l-[3px] border-now py-2 pl-4 sm:mx-8">
      <p className="text-xl text-soft">Your last take of {take.title} was cut off. <b className="text-ink">{take.seconds} {take.seconds === 1 ? 'second' : 'seconds'} of it are safe.</b></p>
      {busy === null ? (
        <span className="flex gap-3">
          {take.seconds > 0 && <button type="button" className="go" onClick={() => void keep()}>Keep and review it</button>}
          <button type="button" className="quiet" onClick={() => void throwAway()}>Throw it away</button>
        </span>
      ) : <span role="status" className="text-soft">{busy}</span>}
    </section>
  );
}
