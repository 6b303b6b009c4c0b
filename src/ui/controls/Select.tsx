'use client';
import { getNonce } from 'get-nonce';
import { ChevronDown } from 'lucide-react';
import { Select as Radix } from 'radix-ui';

export type SelectOption<T extends string | number> = readonly [value: T, words: string];

type Props<T extends string | number> = {
  /** Its name for screen readers, also where a visible label stands beside it. */
  label: string;
  value: T;
  options: readonly SelectOption<T>[];
  onChange: (value: T) => void;
  /** `field` is boxed, `line` stands within a sentence. */
  look?: 'field' | 'line';
  /** Shown where `value` is none of the options. */
  placeholder?: string;
  disabled?: boolean;
  className?: string;
};

const LOOKS = { field: 'field !py-1 text-ink', line: 'border-b border-line text-ink' };

const Item = ({ place, words }: { place: number; words: string }) => (
  <Radix.Item
    value={String(place)}
    className="cursor-default px-3 py-1.5 outline-none select-none data-highlighted:bg-row data-[state=checked]:font-[640] data-[state=checked]:text-now"
  >
    <Radix.ItemText>{words}</Radix.ItemText>
  </Radix.Item>
);

/** One of several: a button that opens a list. Options are told apart by their place, so any value will do. */
export function Select<T extends string | number>(props: Props<T>) {
  const { label, value, options, onChange, look = 'field', placeholder, disabled, className = '' } = props;
  const place = options.findIndex(([one]) => one === value);
  const choose = (chosen: string) => {
    const option = options[Number(chosen)];
    if (option && chosen !== '') onChange(option[0]);
  };
  return (
    <Radix.Root value={place < 0 ? '' : String(place)} onValueChange={choose} disabled={disabled ?? false}>
      <Radix.Trigger
        aria-label={label}
        className={`inline-flex min-w-0 items-center justify-between gap-1.5 text-left disabled:text-dim ${LOOKS[look]} ${className}`}
      >
        <span className="truncate">
          <Radix.Value placeholder={placeholder}>{options[place]?.[1]}</Radix.Value>
        </span>
        <Radix.Icon asChild>
          <ChevronDown aria-hidden className="size-3.5 shrink-0 text-dim" />
        </Radix.Icon>
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={3}
          collisionPadding={8}
          className="z-40 max-h-[min(420px,var(--radix-select-content-available-height))] min-w-(--radix-select-trigger-width) overflow-y-auto border border-line bg-panel py-1 text-[16px] text-ink shadow-lg"
        >
          <Radix.Viewport nonce={getNonce()}>
            {options.map(([one, words], index) => (
              <Item key={one} place={index} words={words} />
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
