'use client';
import { readTuning, TUNINGS, writeTuning } from '@/core/neck';
import { ChoiceSetting, NumberSetting, Setting } from '@/ui/Field';
import { keepGuitar, useGuitar } from '@/ui/instrument';
import { Switch } from '@/ui/controls';
import { useState } from 'react';
import { prefer, usePreferences } from '../shell/preferences';
export function GuitarFields() {
  const guitar = useGuitar();
  const { reference } = usePreferences();
  const [text, setText] = useState<string | null>(null);
  const written = text ?? guitar.tuning;
  const read = readTuning(written);
  const write = (tuning: string) => {
    setText(tuning);
    const found = readTuning(tuning);
    if (found.ok) keepGuitar({ ...guitar, tuning: writeTuning(found.value) });
  };
  const known = Object.entries(TUNINGS).find(([, strings]) => strings === guitar.tuning)?.[1] ?? 'own';
  return (
    <>
      <ChoiceSetting
        name="Tuning"
        value={known}
        choices={[
          ...Object.entries(TUNINGS).map(([name, strings]) => [strings, name] as const),
          ['own', 'as written below'],
        ]}
        onChange={(one) => {
          if (one !== 'own') {
            keepGuitar({ ...guitar, tuning: one });
            setText(null);
          }
        }}
      />
      <Setting name="Strings">
        <input
          className="field w-full !py-1 font-mono"
          aria-label="Open strings, low to high"
          value={written}
          onChange={(event) => write(event.target.value)}
          onBlur={() => {
            if (read.ok) setText(null);
          }}
          aria-invalid={!read.ok}
        />
      </Setting>
      {!read.ok && (
        <p role="status" className="ml-[130px] text-sm leading-5 text-ink">
          {read.problems[0].message}
        </p>
      )}
      <ChoiceSetting
        name="Reference"
        value={String(reference)}
        choices={REFERENCES.map((hz) => [String(hz), `A = ${hz} Hz`] as const)}
        onChange={(hz) => prefer({ reference: Number(hz) })}
      />
      <NumberSetting
        name="Capo"
        value={guitar.capo}
        low={0}
        high={11}
        onChange={(capo) => keepGuitar({ ...guitar, capo })}
      />
      <NumberSetting
        name="Frets"
        value={guitar.frets}
        low={19}
        high={24}
        onChange={(frets) => keepGuitar({ ...guitar, frets })}
      />
      <Setting name="Left-handed">
        <Switch
          checked={guitar.leftHanded}
          onChange={(leftHanded) => keepGuitar({ ...guitar, leftHanded })}
        />
      </Setting>
    </>
  );
}
export const REFERENCES = [440, 442, 443, 438, 435, 432, 415];
