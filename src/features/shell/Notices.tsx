'use client';
import { dismiss } from '@/ui/toast/toasts';
import { Toasts, useToasts } from '@/ui/toast/Toasts';
import { firstKey } from './commands/KeyOf';
import { useCommands } from './commands/useCommands';
import { usePreferences } from './preferences';

/** Notices, and the key that does what the latest one offers; it comes before whatever else has that key. */
export function Notices() {
  const { bindings } = usePreferences();
  const latest = useToasts().findLast(({ action }) => action);
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
  return <Toasts actionKey={firstKey(bindings, 'app.bringBack')} />;
}
