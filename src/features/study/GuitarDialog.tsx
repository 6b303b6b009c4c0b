'use client';
import { useState } from 'react';
import { Dialog } from 'radix-ui';
import { readTuning, TUNINGS } from '@/core/neck';
import { keepGuitar, type Guitar } from '@/ui/instrument';
import { Checkbox, Select } from '@/ui/controls';

/** The player's guitar: tuning, frets, capo and which hand. Kept as it is changed. */
export function GuitarDialog({ guitar }: { guitar: Guitar }) {
  const set = (change: Partial<Guitar>) => keepGuitar({ ...guitar, ...change });
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/70" />
      <Dialog.Content
        className="fixed top-1/2 left-1/2 z-30 w-[min(480px,calc(100vw-32px))] -translate-x-1/2 -translate-y-1/2 border border-line bg-panel p-6"
        aria-describedby={undefined}
      >
        <Dialog.Title className="text-[25px] leading-8 font-[620]">Your guitar</Dialog.Title>
        <TuningFields guitar={guitar} onChange={set} />
        <NumberFields guitar={guitar} onChange={set} />
        <div className="mt-5 flex justify-end">
          <Dialog.Close className="go">Done</Dialog.Close>
        </div>
      </Dialog.Content>
    </Dialog.Portal>
  );
}

type FieldProps = { guitar: Guitar; onChange: (change: Partial<Guitar>) => void };

const FRETS = [19, 24] as const;
const MOST_CAPO = 11;
const clamped = (text: string, [low, high]: readonly [number, number], otherwise: number): number =>
  Math.max(low, Math.min(high, Math.round(Number(text)) || otherwise));

function NumberFields({ guitar, onChange: set }: FieldProps) {
  return (
    <div className="mt-2 grid grid-cols-3 gap-4">
      <label className="block text-sm text-dim">
        Frets
        <input
          type="number"
          min={FRETS[0]}
          max={FRETS[1]}
          className="field mt-1 w-full text-base"
          value={guitar.frets}
          onChange={(event) => set({ frets: clamped(event.target.value, FRETS, 22) })}
        />
      </label>
      <label className="block text-sm text-dim">
        Capo
        <input
          type="number"
          min={0}
          max={MOST_CAPO}
          className="field mt-1 w-full text-base"
          value={guitar.capo}
          onChange={(event) => set({ capo: clamped(event.target.value, [0, MOST_CAPO], 0) })}
        />
      </label>
      <label className="flex items-end gap-2 pb-2 text-[15px] text-soft">
        <Checkbox checked={guitar.leftHanded} onChange={(leftHanded) => set({ leftHanded })} />
        left-handed
      </label>
    </div>
  );
}

function TuningFields({ guitar, onChange }: FieldProps) {
  const [text, setText] = useState(guitar.tuning);
  const read = readTuning(text);
  const problem = read.ok ? null : read.problems[0];
  const suggestion = problem?.suggestion;
  const write = (tuning: string) => {
    setText(tuning);
    if (readTuning(tuning).ok) onChange({ tuning });
  };
  return (
    <>
      <label className="mt-4 block text-sm text-dim">
        Tuning
        <Select
          label="Tuning"
          className="mt-1 w-full text-base"
          value={text}
          placeholder="as written below"
          options={Object.entries(TUNINGS).map(([name, strings]) => [strings, name] as const)}
          onChange={write}
        />
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
        {problem?.message}{' '}
        {suggestion && (
          <button type="button" className="underline" onClick={() => write(suggestion)}>
            Take {suggestion}
          </button>
        )}
      </p>
    </>
  );
}
