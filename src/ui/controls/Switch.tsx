'use client';
import { Switch as Radix } from 'radix-ui';

type Props = { checked: boolean; onChange: (checked: boolean) => void; label?: string };

/** A setting that is on or off and acts at once; its words are the label around it, or `label`. */
export const Switch = ({ checked, onChange, label }: Props) => (
  <Radix.Root
    aria-label={label}
    checked={checked}
    onCheckedChange={onChange}
    className="inline-flex h-[18px] w-8 shrink-0 items-center rounded-full border border-dim bg-row px-[2px] data-[state=checked]:border-(--h2) data-[state=checked]:bg-(--h2)"
  >
    <Radix.Thumb className="block size-3 rounded-full bg-dim data-[state=checked]:translate-x-[14px] data-[state=checked]:bg-bg" />
  </Radix.Root>
);
