'use client';
import { Toast as RadixToast } from 'radix-ui';
import { dismiss, type Toast } from './toasts';
import { useToasts } from './useToasts';

const SHOWN_MS = 12_000;
/** The part's own hotkey, F8, is the chart editor's. */
const NO_HOTKEY: string[] = [];

/**
 * Where notices appear, on every screen.
 * @param actionKey the key that does what the latest one offers, as it is shown
 */
export function Toasts({ actionKey }: { actionKey: string | null }) {
  const shown = useToasts();
  return (
    <RadixToast.Provider duration={SHOWN_MS} swipeDirection="down" label="Notice">
      {shown.map((toast) => (
        <Notice key={toast.id} toast={toast} actionKey={actionKey} />
      ))}
      <RadixToast.Viewport
        hotkey={NO_HOTKEY}
        label="Notices"
        className="fixed inset-x-4 bottom-16 z-30 mx-auto grid max-w-[640px] gap-2 print:hidden"
      />
    </RadixToast.Provider>
  );
}

function Notice({ toast: { id, words, action }, actionKey }: { toast: Toast; actionKey: string | null }) {
  return (
    <RadixToast.Root
      className="flex items-center gap-4 rounded border border-dim bg-panel px-4 py-3 text-ink shadow-lg"
      onOpenChange={(open) => {
        if (!open) dismiss(id);
      }}
    >
      <RadixToast.Description className="grow">{words}</RadixToast.Description>
      {action && (
        <RadixToast.Action
          altText={actionKey === null ? action.label : `${action.label}: press ${actionKey}`}
          asChild
        >
          <button type="button" className="shrink-0 font-[620] text-now hover:underline" onClick={action.run}>
            {actionKey !== null && <kbd className="key mr-2">{actionKey}</kbd>}
            {action.label}
          </button>
        </RadixToast.Action>
      )}
    </RadixToast.Root>
  );
}
