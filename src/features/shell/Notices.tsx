'use client';
import { lazy, Suspense } from 'react';
import { dismiss } from '@/ui/toast/toasts';
import { useToasts } from '@/ui/toast/useToasts';
import { firstKey } from './commands/KeyOf';
import { useCommands } from './commands/useCommands';
import { usePreferences } from './preferences';

// most pages are left without a notice; with the server away there must be one all the same
const Toasts = lazy(() =>
  import('@/ui/toast/Toasts')
    .then((made) => ({ default: made.Toasts }))
    .catch(() => ({ default: PlainNotices })),
);

/** Notices without their part: the words, and what the latest one offers. */
function PlainNotices() {
  const shown = useToasts();
  return (
    <div
      role="status"
      className="fixed inset-x-4 bottom-16 z-30 mx-auto max-w-[640px] border border-dim bg-panel p-4"
    >
      {shown.map(({ id, words, action }) => (
        <p key={id} className="flex gap-4 text-ink">
          <span className="grow">{words}</span>
          {action && (
            <button type="button" className="font-[620] text-now" onClick={action.run}>
              {action.label}
            </button>
          )}
        </p>
      ))}
    </div>
  );
}

/** Notices, and the key that does what the latest one offers; it comes before whatever else has that key. */
export function Notices() {
  const { bindings } = usePreferences();
  const shown = useToasts();
  const latest = shown.findLast(({ action }) => action);
  const action = latest?.action;
  useCommands(
    {
      'app.bringBack': action && {
        label: action.label,
        run: () => {
          dismiss(latest.id);
          action.run();
        },
      },
    },
    { priority: 1 },
  );
  if (shown.length === 0) return null;
  return (
    <Suspense>
      <Toasts actionKey={firstKey(bindings, 'app.bringBack')} />
    </Suspense>
  );
}
