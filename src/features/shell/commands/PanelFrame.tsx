'use client';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

type Props = { open: boolean; onClose: () => void; title: string; children: ReactNode };

/** A wide panel over the screen, with its title and the way out. */
export const PanelFrame = ({ open, onClose, title, children }: Props) => (
  <Dialog.Root open={open} onOpenChange={(isOpen) => !isOpen && onClose()}>
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/80" />
      <Dialog.Content
        className="fixed top-1/2 left-1/2 z-30 max-h-[88vh] w-[980px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border-t-[3px] border-now bg-panel p-6"
        aria-describedby={undefined}
      >
        <Dialog.Title className="text-[25px] leading-8 font-[640]">{title}</Dialog.Title>
        {children}
        <Dialog.Close className="quiet mt-5">Close</Dialog.Close>
      </Dialog.Content>
    </Dialog.Portal>
  </Dialog.Root>
);
