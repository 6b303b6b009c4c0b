'use client';
import { RadioGroup, Tabs, ToggleGroup } from 'radix-ui';
import type { ReactNode } from 'react';

type Choice<T extends string> = readonly [value: T, words: ReactNode];
type Props<T extends string> = {
  label: string;
  value: T;
  choices: readonly Choice<T>[];
  onChange: (value: T) => void;
  className?: string;
};

const CHOSEN =
  'border-b-2 border-transparent text-soft hover:text-ink data-[state=active]:border-now data-[state=active]:font-semibold data-[state=active]:text-ink data-[state=on]:border-now data-[state=on]:font-semibold data-[state=on]:text-ink';

/** Words in a row of which one is chosen: how something is shown. */
export const ToggleRow = <T extends string>({
  label,
  value,
  choices,
  onChange,
  className = '',
}: Props<T>) => (
  <ToggleGroup.Root
    type="single"
    aria-label={label}
    value={value}
    onValueChange={(next) => {
      if (next) onChange(next as T);
    }}
    className={`flex flex-wrap items-center gap-x-5 gap-y-1 ${className}`}
  >
    {choices.map(([one, words]) => (
      <ToggleGroup.Item key={one} value={one} className={CHOSEN}>
        {words}
      </ToggleGroup.Item>
    ))}
  </ToggleGroup.Root>
);

/** Tabs over one panel: what is shown below, the children, follows the chosen one. */
export const TabRow = <T extends string>(props: Props<T> & { children: ReactNode }) => {
  const { label, value, choices, onChange, className = '', children } = props;
  return (
    <Tabs.Root value={value} onValueChange={(next) => onChange(next as T)}>
      <Tabs.List aria-label={label} className={`flex flex-wrap gap-x-5 gap-y-1 ${className}`}>
        {choices.map(([one, words]) => (
          <Tabs.Trigger key={one} value={one} className={CHOSEN}>
            {words}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value={value} tabIndex={-1}>
        {children}
      </Tabs.Content>
    </Tabs.Root>
  );
};

/** One of a few, each with a round mark. */
export const RadioRow = <T extends string>({ label, value, choices, onChange, className = '' }: Props<T>) => (
  <RadioGroup.Root
    aria-label={label}
    value={value}
    onValueChange={(next) => onChange(next as T)}
    className={`flex flex-wrap gap-x-4 ${className}`}
  >
    {choices.map(([one, words]) => (
      <label key={one} className="flex items-center gap-1.5">
        <RadioGroup.Item
          value={one}
          className="inline-flex size-4 items-center justify-center rounded-full border border-dim"
        >
          <RadioGroup.Indicator className="block size-2 rounded-full bg-(--h2)" />
        </RadioGroup.Item>
        {words}
      </label>
    ))}
  </RadioGroup.Root>
);
