'use client';
import { useState } from 'react';
import { Dialog } from 'radix-ui';
import { readTuning, TUNINGS } from '@/core/neck';
import { keepGuitar, type Guitar } from '@/ui/instrument';
import { present } from '@/core/shared';

/** The player's guitar: tuning, frets, capo and which hand. Kept as it is changed. */
export function GuitarDialog({ guitar }: { guitar: Guitar }) {
  const [text, setText] = useState(guitar.tuning);
  const read = readTuning(text);
  const set = (change: Partial<Guitar>) => keepGuitar({ ...guitar, ...change });
  const write = (tuning: string) => {
    setText(tuning);
    if (readTuning(tuning).ok) set({ tuning });
  };
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/70" />
      <Dialog.Content
        className="fixed top-1/2 left-1/2 z-30 w-[min(480px,calc(100vw-32px))] -translate-x-1/2 -translate-y-1/2 border border-line bg-panel p-6"
        aria-describedby={undefined}
      >
        <Dialog.Title className="text-[25px] leading-8 font-[620]">Your guitar</Dialog.Title>
        <label className="mt-4 block text-sm text-dim">
          Tuning
          <select
            className="field mt-1 w-full text-base"
            value={Object.values(TUNINGS).includes(text) ? text : ''}
            onChange={(event) => event.target.value && write(event.target.value)}
          >
            <option value="">as written below</option>
            {Object.entries(TUNINGS).map(([name, strings]) => (
              <option key={name} value={strings}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="mt-3 block text-sm text-dim">
          Open strings, low to high
          <input
            className="field mt-1 w-full font-mono text-base"
            value={text}
            onChange={(event) => write(event.target.value)}
            aria-invalid={!read.ok}
            aria-describedby="tuning-trouble"
          />
        </label>
        <p id="tuning-trouble" role="status" className="mt-1 min-h-6 text-[15px] text-soft">
          {!read.ok && (
            <>
              {read.problems[0].message}{' '}
              {read.problems[0].suggestion && (
                <button
                  type="button"
                  className="underline"
                  onClick={() => write(present(read.problems[0].suggestion))}
                >
                  Take {read.problems[0].suggestion}
                </button>
              )}
            </>
          )}
        </p>
        <div className="mt-2 grid grid-cols-3 gap-4">
          <label className="block text-sm text-dim">
            Frets
            <input
              type="number"
              min={19}
              max={24}
              className="field mt-1 w-full text-base"
              value={guitar.frets}
              onChange={(event) =>
                set({ frets: Math.max(19, Math.min(24, Math.round(Number(event.target.value)) || 22)) })
              }
            />
          </label>
          <label className="block text-sm text-dim">
            Capo
            <input
              type="number"
              min={0}
              max={11}
              className="field mt-1 w-full text-base"
              value={guitar.capo}
              onChange={(event) =>
                set({ capo: Math.max(0, Math.min(11, Math.round(Number(event.target.value)) || 0)) })
              }
            />
          </label>
          <label className="flex items-end gap-2 pb-2 text-[15px] text-soft">
            <input
              type="checkbox"
              checked={guitar.leftHanded}
              onChange={(event) => set({ leftHanded: event.target.checked })}
              className="accent-(--now)"
            />
            left-handed
          </label>
        </div>
        <div className="mt-5 flex justify-end">
          <Dialog.Close className="go">Done</Dialog.Close>
        </div>
      </Dialog.Content>
    </Dialog.Portal>
  );
}
