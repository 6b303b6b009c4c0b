import { ask } from '@/audio/persistence/serverTakes';
import { notify } from '@/ui/toast/toasts';

type Named = { readonly id: string; readonly title: string };

/** Takes a chart back out of the trash. */
export const restoreChart = (id: string): Promise<{ id: string }> =>
  ask(`/api/charts/${id}/restore`, { method: 'POST' });

/** Puts a chart in the trash and says so, with the way to take that back. */
export async function removeChart(
  { id, title }: Named,
  onGone: () => void,
  onBack: (id: string) => void,
): Promise<void> {
  try {
    await ask(`/api/charts/${id}`, { method: 'DELETE' });
  } catch {
    notify('The server does not answer. The chart is still there.');
    return;
  }
  onGone();
  notify(`“${title}” is in the trash for thirty days: see Settings.`, {
    label: 'Bring it back',
    run: () => void bringBack(id, onBack),
  });
}

async function bringBack(id: string, onBack: (id: string) => void): Promise<void> {
  try {
    await restoreChart(id);
    onBack(id);
  } catch {
    notify('The server does not answer. The chart is still in the trash.', {
      label: 'Try again',
      run: () => void bringBack(id, onBack),
    });
  }
}
