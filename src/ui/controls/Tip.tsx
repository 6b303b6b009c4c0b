'use client';
import { Tooltip } from 'radix-ui';
import type { ReactElement, ReactNode } from 'react';

type Props = { words: ReactNode; children: ReactElement };

/** Why or what, told when the pointer rests on the child or it has the focus; the child must take focus. */
export const Tip = ({ words, children }: Props) => (
  <Tooltip.Provider delayDuration={400}>
    <Tooltip.Root>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={5}
          collisionPadding={8}
          className="z-40 max-w-[340px] border border-line bg-panel px-3 py-2 text-[15px] leading-snug text-soft shadow-lg"
        >
          {words}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  </Tooltip.Provider>
);
