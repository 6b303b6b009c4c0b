import { ask, discardTake, restoreTake } from '@/audio/persistence/serverTakes';
import { notify } from '@/ui/toast/toasts';

let explained = false;

type Trashed<T> = { readonly words: string; readonly what: string; readonly restore: () => Promise<T> };

/** Says what is in the trash, with the way to take that back. */
function sayInTrash<T>(trashed: Trashed<T>, onBack: (back: T) => void): void {
  notify(trashed.words, { label: 'Bring it back', run: () => void bringBack(trashed, onBack) });
}

async function bringBack<T>(trashed: Trashed<T>, onBack: (back: T) => void): Promise<void> {
  try {
    onBack(await trashed.restore());
  } catch {
    notify(`The server does not answer. The ${trashed.what} is still in the trash.`, {
      label: 'Try again',
      run: () => void bringBack(trashed, onBack),
    });
  }
}

/** Says that a take is in the trash; the first time of a visit, also where it lies. */
export function sayTrashed(id: string, onBack: (take: { id: string; state: string }) => void): void {
  const words = explained
    ? 'The take is in the trash.'
    : 'The take is in the trash for thirty days: see Settings.';
  explained = true;
  sayInTrash({ words, what: 'take', restore: () => restoreTake(id) }, onBack);
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

/** Takes a chart back out of the trash. */
export const restoreChart = (id: string): Promise<{ id: string }> =>
  ask(`/api/charts/${id}/restore`, { method: 'POST' });

/** Puts a chart in the trash. */
export async function removeChart(
  { id, title }: { readonly id: string; readonly title: string },
  onGone: () => void,
  onBack: (chart: { id: string }) => void,
): Promise<void> {
  try {
    await ask(`/api/charts/${id}`, { method: 'DELETE' });
  } catch {
    notify('The server does not answer. The chart is still there.');
    return;
  }
  onGone();
  const words = `“${title}” is in the trash for thirty days: see Settings.`;
  sayInTrash({ words, what: 'chart', restore: () => restoreChart(id) }, onBack);
}
