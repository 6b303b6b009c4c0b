import { discardTake, restoreTake } from '@/audio/persistence/serverTakes';
import { notify } from '@/ui/toast/toasts';

let explained = false;

/**
 * Says that a take is in the trash and how to take that back; the first time of a visit, also where it lies.
 */
export function sayTrashed(id: string, onBack: (take: { id: string; state: string }) => void): void {
  const words = explained
    ? 'The take is in the trash.'
    : 'The take is in the trash for thirty days: see Settings.';
  explained = true;
  notify(words, { label: 'Bring it back', run: () => void bringBack(id, onBack) });
}

async function bringBack(id: string, onBack: (take: { id: string; state: string }) => void): Promise<void> {
  try {
    onBack(await restoreTake(id));
  } catch {
    notify('The server does not answer. The take is still in the trash.', {
      label: 'Try again',
      run: () => void bringBack(id, onBack),
    });
  }
}

/** Puts a finished take in the trash from its list or its review. */
export async function trashTake(
  id: string,
  onGone: () => void,
  onBack: (take: { id: string }) => void,
): Promise<void> {
  try {
    await discardTake(id);
    onGone();
    sayTrashed(id, onBack);
  } catch {
    notify('The server does not answer. The take is still there.');
  }
}
