'use client';
import { ChevronDown } from 'lucide-react';
import { lazy, Suspense, useState, type ComponentProps } from 'react';
import { typeset } from '@/core/music';
import type { Scale } from '@/core/music';

export type HomeScaleProps = {
  /** The player's own scale by name; undefined where the chart and its key decide. */
  value: string | undefined;
  /** What stands without one. */
  fallback: string;
  onChange: (home: string | undefined) => void;
  /** Lets a scale be heard. */
  onHear?: (scale: Scale) => void;
  /** It opens: what the next choice needs can be made ready. */
  onOpen?: () => void;
  /** A scale lies under the pointer, the keyboard or in the field, and may be chosen next. */
  onConsider?: (home: string) => void;
  look?: 'field' | 'line';
};

// what it opens is heavy, and most screens are left without opening it
const load = () => import('./HomeScalePopover');
const HomeScalePopover = lazy(() => load().catch(() => ({ default: NotLoaded })));

/** With the server away the picker cannot be loaded: the scale stands as it is. */
const NotLoaded = ({
  trigger,
}: {
  trigger: Pick<ComponentProps<'button'>, 'aria-label' | 'className' | 'children'>;
}) => (
  <button
    {...trigger}
    type="button"
    disabled
    title="The server does not answer: the home scale cannot be changed now."
  />
);

/** One scale for the whole form, by root and name or by degrees; what it holds is shown and can be heard. */
export function HomeScalePicker({ look = 'line', onOpen, ...choice }: HomeScaleProps) {
  const [wanted, setWanted] = useState(false);
  const trigger = {
    'aria-label': 'Home scale',
    className: `inline-flex min-w-0 items-center gap-1.5 text-left text-ink ${look === 'field' ? 'field !py-1 w-full justify-between font-[580]' : 'border-b border-line'}`,
    children: (
      <>
        <span className="truncate">{typeset(choice.value ?? choice.fallback)}</span>
        <ChevronDown aria-hidden className="size-3.5 shrink-0 text-dim" />
      </>
    ),
  };
  const button = (
    <button
      {...trigger}
      type="button"
      aria-haspopup="dialog"
      aria-expanded={false}
      onPointerEnter={() => void load()}
      onFocus={() => void load()}
      onClick={() => {
        setWanted(true);
        onOpen?.();
      }}
    />
  );
  if (!wanted) return button;
  return (
    <Suspense fallback={button}>
      <HomeScalePopover trigger={trigger} {...choice} />
    </Suspense>
  );
}
