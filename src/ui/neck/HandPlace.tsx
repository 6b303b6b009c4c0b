'use client';
import { ToggleGroup } from 'radix-ui';
import type { Instrument } from '@/core/neck';

type Props = {
  /** Whose place it is. */
  label: string;
  /** The lowest fret of the hand; null where it is not said. */
  value: number | 'several' | null;
  /** The last fret the index finger can lie at. */
  last: number;
  onChange: (fret: number | null) => void;
};

/** The highest place the index finger is likely to lie at: there the little finger still has a fret. */
export const lastPlace = ({ frets }: Instrument): number => Math.max(1, frets - 3);

const LIKELIEST = 'likeliest';
/** Where a neck has its inlays. */
const INLAYS = new Set([3, 5, 7, 9, 12, 15, 17]);
const ITEM =
  'border-b-2 border-transparent leading-7 text-soft hover:text-ink data-[state=on]:border-now data-[state=on]:font-semibold data-[state=on]:text-ink';

/** Where the hand lay on the neck, by the fret under the index finger, as the player says it. */
export function HandPlace({ label, value, last, onChange }: Props) {
  const frets = Array.from({ length: last }, (_, index) => index + 1);
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value === null ? LIKELIEST : String(value)}
      onValueChange={(next) => {
        if (next) onChange(next === LIKELIEST ? null : Number(next));
      }}
      className="max-w-[400px]"
    >
      <ToggleGroup.Item value={LIKELIEST} className={`${ITEM} mb-1.5`}>
        likeliest fingering
      </ToggleGroup.Item>
      <span className="grid w-[300px] grid-cols-12 gap-y-2.5 text-[15px] tabular-nums">
        {frets.map((fret) => (
          <ToggleGroup.Item
            key={fret}
            value={String(fret)}
            aria-label={`hand at fret ${fret}`}
            className={`${ITEM} relative border-l border-l-line text-center`}
          >
            {fret}
            {INLAYS.has(fret) && (
              <span aria-hidden="true" className="absolute inset-x-0 -bottom-2 flex justify-center gap-1">
                {(fret === 12 ? [1, 2] : [1]).map((dot) => (
                  <span key={dot} className="h-1 w-1 rounded-full bg-dim" />
                ))}
              </span>
            )}
          </ToggleGroup.Item>
        ))}
      </span>
    </ToggleGroup.Root>
  );
}
