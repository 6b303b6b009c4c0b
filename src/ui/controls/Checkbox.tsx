'use client';
import { Check } from 'lucide-react';
import { Checkbox as Radix } from 'radix-ui';

type Props = { checked: boolean; onChange: (checked: boolean) => void; label?: string };

/** One of a list that may be chosen; its words are the label around it, or `label`. */
export const Checkbox = ({ checked, onChange, label }: Props) => (
  <Radix.Root
    aria-label={label}
    checked={checked}
    onCheckedChange={(state) => onChange(state === true)}
    className="inline-flex size-[18px] shrink-0 items-center justify-center rounded-[3px] border border-dim bg-row data-[state=checked]:border-(--h2) data-[state=checked]:bg-(--h2)"
  >
    <Radix.Indicator>
      <Check aria-hidden className="size-3.5 text-bg" strokeWidth={3} />
    </Radix.Indicator>
  </Radix.Root>
);
