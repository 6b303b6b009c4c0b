'use client';
import { Toast as RadixToast } from 'radix-ui';
import { useEffect, useSyncExternalStore } from 'react';
import { dismiss, toasts, type Toast } from './toasts';

const SHOWN_MS = 12_000;
/** The part's own hotkey, F8, is the chart editor's. */
const NO_HOTKEY: string[] = [];

/** Where notices appear, on every screen. The newest one's key works while it is shown. */
export function Toasts() {
  const shown = useSyncExternalStore(toasts.subscribe, toasts.get, toasts.get);
  useNewestKey(shown);
  return (
    <RadixToast.Provider duration={SHOWN_MS} swipeDirection="down" label="Notice">
      {shown.map((toast) => (
        <Notice key={toast.id} toast={toast} />
      ))}
      <RadixToast.Viewport
        hotkey={NO_HOTKEY}
        label="Notices"
        className="fixed inset-x-4 bottom-16 z-30 mx-auto grid max-w-[640px] gap-2 print:hidden"
      />
    </RadixToast.Provider>
  );
}

function Notice({ toast: { id, words, action } }: { toast: Toast }) {
  return (
    <RadixToast.Root
      className="flex items-center gap-4 rounded border border-dim bg-panel px-4 py-3 text-ink shadow-lg"
      onOpenChange={(open) => {
        if (!open) dismiss(id);
      }}
    >
      <RadixToast.Description className="grow">{words}</RadixToast.Description>
      {action && (
        <RadixToast.Action altText={`${action.label}: press ${action.key.toUpperCase()}`} asChild>
          <button type="button" className="shrink-0 font-[620] text-now hover:underline" onClick={action.run}>
            <kbd className="key mr-2">{action.key.toUpperCase()}</kbd>
            {action.label}
          </button>
        </RadixToast.Action>
      )}
    </RadixToast.Root>
  );
}

const FIELDS = 'input, select, textarea, [contenteditable]';

function useNewestKey(shown: readonly Toast[]): void {
  const newest = shown.findLast(({ action }) => action);
  useEffect(() => {
    if (!newest?.action) return;
    const { id, action } = newest;
    const onKey = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLElement && event.target.closest(FIELDS);
      if (inField || event.ctrlKey || event.metaKey || event.altKey || event.key.toLowerCase() !== action.key)
        return;
      event.preventDefault();
      event.stopPropagation();
      dismiss(id);
      action.run();
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  }, [newest]);
}
