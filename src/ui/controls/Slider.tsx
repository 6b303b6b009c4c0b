'use client';
import { Slider as Radix } from 'radix-ui';

type Props = {
  label: string;
  value: number;
  min?: number;
  max: number;
  step?: number;
  /** The value as it is read out, with its unit. */
  valueText?: string;
  onChange: (value: number) => void;
  className?: string;
};

/** A value between two ends, by pointer, arrow keys, Page Up and Down, Home and End. */
export function Slider(props: Props) {
  const { label, value, min = 0, max, step = 1, valueText, onChange, className = 'w-full' } = props;
  return (
    <Radix.Root
      min={min}
      max={max}
      step={step}
      value={[value]}
      onValueChange={([next = value]) => onChange(next)}
      className={`relative flex h-6 touch-none items-center select-none ${className}`}
    >
      <Radix.Track className="relative h-1 grow bg-line">
        <Radix.Range className="absolute h-full bg-(--h2)" />
      </Radix.Track>
      <Radix.Thumb
        aria-label={label}
        aria-valuetext={valueText}
        className="block size-4 rounded-full bg-(--h2) outline-offset-2"
      />
    </Radix.Root>
  );
}
