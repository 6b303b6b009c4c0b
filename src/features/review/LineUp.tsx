'use client';
import { useState } from 'react';

type Props = { offsetSec: number; onChange: (offsetSec: number) => void };
const round = (seconds: number): number => Math.round(seconds * 1000) / 1000;

/**
 * Where bar 1 lies in the recording: typed in seconds, or moved by 10 ms where the take looks early or late as
 * a whole.
 */
export function LineUp({ offsetSec, onChange }: Props) {
  const [text, setText] = useState(String(round(offsetSec)));
  const commit = () => {
    const seconds = Number(text);
    if (text.trim() !== '' && Math.abs(seconds) <= 600 && round(seconds) !== round(offsetSec))
      onChange(seconds);
    else setText(String(round(offsetSec)));
  };
  return (
    <span className="ml-auto hidden items-center gap-2 sm:flex">
      <label className="flex items-center gap-2">
        Bar 1 at
        <input
          className="field w-20 !py-0.5 text-right"
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={commit}
          onKeyDown={(event) => {
            if (event.key === 'Enter') commit();
          }}
        />{' '}
        s
      </label>
      <button
        type="button"
        className="quiet !px-2 !py-0.5"
        aria-label="Move the take 10 ms earlier"
        onClick={() => onChange(offsetSec + 0.01)}
      >
        −10
      </button>
      <button
        type="button"
        className="quiet !px-2 !py-0.5"
        aria-label="Move the take 10 ms later"
        onClick={() => onChange(offsetSec - 0.01)}
      >
        +10
      </button>{' '}
      ms
    </span>
  );
}
