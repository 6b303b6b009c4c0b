'use client';
import { readTuning, TUNINGS, writeTuning, type HandHabits } from '@/core/neck';
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
      <HandFields />
    </>
  );
}
type Choices<T> = readonly (readonly [T, string])[];
const HANDS: Choices<HandHabits['size']> = [
  ['small', 'small: moves, does not stretch'],
  ['usual', 'usual'],
  ['large', 'large: stretches easily'],
];
const OPEN: Choices<HandHabits['open']> = [
  ['liked', 'wherever they fit'],
  ['usual', 'in low positions'],
  ['avoided', 'avoided'],
];
const AREAS: Choices<HandHabits['area']> = [
  ['low', 'low on the neck'],
  ['middle', 'around frets 5 to 9'],
  ['high', 'around frets 10 to 14'],
  ['anywhere', 'anywhere'],
];
export const REFERENCES = [440, 442, 443, 438, 435, 432, 415];

/** What the hand likes: every fingering the app writes follows it. */
function HandFields() {
  const guitar = useGuitar();
  return (
    <>
      <ChoiceSetting
        name="Hand"
        value={guitar.size}
        choices={HANDS}
        onChange={(size) => keepGuitar({ ...guitar, size })}
      />
      <ChoiceSetting
        name="Open strings"
        value={guitar.open}
        choices={OPEN}
        onChange={(open) => keepGuitar({ ...guitar, open })}
      />
      <ChoiceSetting
        name="Plays mostly"
        value={guitar.area}
        choices={AREAS}
        onChange={(area) => keepGuitar({ ...guitar, area })}
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
