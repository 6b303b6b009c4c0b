'use client';
import { Select, Slider } from './controls';
import { useState, type ReactNode } from 'react';

/** A setting on one line: its name dim at the left, what it is at the right. */
export function Setting({
  name,
  children,
  wide = false,
}: {
  name: string;
  children: ReactNode;
  wide?: boolean;
}) {
  return (
    <label
      className={`grid items-center gap-x-3 py-[3px] text-soft ${wide ? 'grid-cols-[minmax(0,1fr)]' : 'grid-cols-[118px_minmax(0,1fr)]'}`}
    >
      <span className="text-dim">{name}</span>
      {children}
    </label>
  );
}

type NumberProps = {
  name: string;
  value: number;
  low: number;
  high: number;
  onChange: (value: number) => void;
  unit?: string;
  /** Its name above it. */
  wide?: boolean;
};

/**
 * A whole number that may be typed anyhow: what is none is as it was, what is too much is as much as can be.
 */
export function NumberSetting({ name, value, low, high, onChange, unit, wide = false }: NumberProps) {
  const [text, setText] = useState<string | null>(null);
  const commit = () => {
    const number = Math.round(Number((text ?? '').replace('−', '-')));
    if (text !== null && text.trim() !== '' && Number.isFinite(number))
      onChange(Math.max(low, Math.min(high, number)));
    setText(null);
  };
  return (
    <Setting name={name} wide={wide}>
      <span className="flex items-center gap-2">
        <input
          className="field w-20 !py-1 font-[620] text-ink"
          aria-label={name}
          inputMode="numeric"
          value={text ?? String(value)}
          onChange={(event) => setText(event.target.value)}
          onBlur={commit}
          onKeyDown={(event) => {
            if (event.key === 'Enter') commit();
          }}
        />
        {unit && <span className="text-dim">{unit}</span>}
      </span>
    </Setting>
  );
}

type ChoiceProps<T extends string> = {
  name: string;
  value: T;
  choices: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  /** Its name above it. */
  wide?: boolean;
};

export function ChoiceSetting<T extends string>({
  name,
  value,
  choices,
  onChange,
  wide = false,
}: ChoiceProps<T>) {
  return (
    <Setting name={name} wide={wide}>
      <Select
        label={name}
        value={value}
        options={choices}
        onChange={onChange}
        className="w-full font-[580]"
      />
    </Setting>
  );
}

type LevelProps = {
  name: string;
  value: number;
  onChange: (value: number) => void;
  most?: number;
  mute?: string;
};

/** A level with its figure; with `mute` its name is a switch that brings it back to where it was. */
export function LevelSetting({ name, value, onChange, most = 1, mute }: LevelProps) {
  const [before, setBefore] = useState(value > 0 ? value : 1);
  const toggle = () => {
    if (value > 0) setBefore(value);
    onChange(value > 0 ? 0 : before);
  };
  return (
    <div className="grid grid-cols-[118px_minmax(0,1fr)_52px] items-center gap-x-3 py-[3px]">
      {mute ? (
        <button
          type="button"
          aria-pressed={value > 0}
          onClick={toggle}
          className={`text-left ${value > 0 ? 'text-soft' : 'text-dim line-through'}`}
        >
          {name} <kbd className="key ml-1">{mute}</kbd>
        </button>
      ) : (
        <span className="text-dim">{name}</span>
      )}
      <Slider label={`${name} level`} max={most} step={0.05} value={value} onChange={onChange} />
      <span className="text-right font-[580] text-ink">
        {value === 0 ? 'off' : `${Math.round(value * 100)} %`}
      </span>
    </div>
  );
}
