'use client';
import { prefer, usePreferences } from './preferences';

/** The cautions in plain words: once before the first take, the rest when it is due, and always in Settings. */
export function Cautions({
  rest,
}: {
  rest: { readonly due: boolean; readonly minutes: number; readonly rested: () => void };
}) {
  const { cautionsSeen } = usePreferences();
  if (rest.due)
    return (
      <Note
        words={
          <>
            <b className="text-ink">{rest.minutes} minutes of playing.</b> Put the guitar down for a moment,
            let the hands hang.
          </>
        }
        button="I have rested"
        act={rest.rested}
      />
    );
  if (!cautionsSeen)
    return (
      <Note
        words={
          <>
            <b className="text-ink">Headphones low first,</b> then up to where the guitar sits in the band.
            Stop on pain, numbness or tingling. More under Settings, Cautions.
          </>
        }
        button="Understood"
        act={() => prefer({ cautionsSeen: true })}
      />
    );
  return null;
}

function Note({ words, button, act }: { words: React.ReactNode; button: string; act: () => void }) {
  return (
    <p
      role="status"
      className="mx-4 mt-2 flex flex-wrap items-center gap-x-5 gap-y-2 border-l-[3px] border-now py-0.5 pl-4 leading-6 text-soft sm:mx-8"
    >
      <span className="min-w-0 sm:flex-1">{words}</span>
      <button type="button" className="quiet !py-1" onClick={act}>
        {button}
      </button>
    </p>
  );
}
