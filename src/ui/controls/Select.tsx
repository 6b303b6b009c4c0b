'use client';
import { ChevronDown } from 'lucide-react';
import { lazy, Suspense, useState, type KeyboardEvent } from 'react';
import type { MenuProps } from './SelectMenu';

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

// the list and what places it are heavy, and most screens are left without opening one
const loadMenu = () => import('./SelectMenu');
const SelectMenu = lazy(() => loadMenu().catch(() => ({ default: PlainMenu })));

/** Where the list cannot be loaded, as with the server away, the browser's own does. */
function PlainMenu({ trigger, place, words, disabled, onChoose }: MenuProps) {
  return (
    <select
      aria-label={trigger['aria-label']}
      className={trigger.className}
      value={place}
      disabled={disabled}
      onChange={(event) => onChoose(Number(event.target.value))}
    >
      {place < 0 && <option value={-1} />}
      {words.map((one, index) => (
        <option key={`${index} ${one}`} value={index}>
          {one}
        </option>
      ))}
    </select>
  );
}

const OPENING = new Set(['Enter', ' ', 'ArrowDown', 'ArrowUp']);

/** One of several: a button that opens a list. Options are told apart by their place, so any value will do. */
export function Select<T extends string | number>(props: Props<T>) {
  const { label, value, options, onChange, look = 'field', placeholder, disabled = false, className } = props;
  const [wanted, setWanted] = useState(false);
  const place = options.findIndex(([one]) => one === value);
  const words = options[place]?.[1] ?? placeholder ?? '';
  const trigger = {
    'aria-label': label,
    className: `inline-flex min-w-0 items-center justify-between gap-1.5 text-left disabled:text-dim ${LOOKS[look]} ${className ?? ''}`,
    children: (
      <>
        <span className="truncate">{words}</span>
        <ChevronDown aria-hidden className="size-3.5 shrink-0 text-dim" />
      </>
    ),
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (!OPENING.has(event.key)) return;
    event.preventDefault();
    setWanted(true);
  };
  const button = (
    <button
      {...trigger}
      type="button"
      role="combobox"
      aria-expanded={false}
      aria-haspopup="listbox"
      aria-controls={undefined}
      disabled={disabled}
      onPointerEnter={() => void loadMenu()}
      onFocus={() => void loadMenu()}
      onClick={() => setWanted(true)}
      onKeyDown={onKeyDown}
    />
  );
  if (!wanted) return button;
  const choose = (index: number) => {
    const option = options[index];
    if (option) onChange(option[0]);
  };
  return (
    <Suspense fallback={button}>
      <SelectMenu
        trigger={trigger}
        place={place}
        words={options.map(([, one]) => one)}
        disabled={disabled}
        onChoose={choose}
      />
    </Suspense>
  );
}
