'use client';
import { useState } from 'react';
import { ask, askInSteps } from '@/audio/persistence/serverTakes';
import type { BackupPhase, KeptBackup } from '@/server/backup';

/** The folder of backups and what lies in it. */
export type BackupListing = { readonly folder: string; readonly backups: readonly KeptBackup[] };

const PHASES: Record<BackupPhase, string> = {
  copying: 'Copying…',
  writing: 'Writing the file…',
  proving: 'Proving it by a trial restore…',
};
const NOTHING_CHANGED = 'The server does not answer; nothing was changed.';
const RESTART_BY_HAND =
  'Now stop Idle Wander and start it again: it is done before anything opens. Until then nothing has changed.';

const said = (error: unknown): string => (error instanceof Error ? error.message : NOTHING_CHANGED);

/** The backups beside the database and what can be done with them; `busy` says what is going on. */
export function useBackups(first: BackupListing) {
  const [listing, setListing] = useState(first);
  const [busy, setBusy] = useState<string | null>(null);
  const [words, setWords] = useState('');

  const run = async (doing: string, work: () => Promise<string>) => {
    setBusy(doing);
    setWords('');
    try {
      setWords(await work());
      setListing(await ask<BackupListing>('/api/backups'));
    } catch (error) {
      setWords(said(error));
    }
    setBusy(null);
  };
  return {
    listing,
    busy,
    words,
    save: () =>
      run(PHASES.copying, async () => {
        await askInSteps('/api/backups', { method: 'POST' }, ({ phase }: { phase: BackupPhase }) =>
          setBusy(PHASES[phase]),
        );
        return 'Saved and proven.';
      }),
    bring: (file: File) =>
      run('Reading the file…', async () => {
        await ask('/api/backups', { method: 'PUT', body: file });
        return 'It is in the list; nothing has changed yet.';
      }),
    remove: (name: string) =>
      run('Removing…', async () => {
        await ask(`/api/backups/${name}`, { method: 'DELETE' });
        return 'Removed.';
      }),
    restore: (name: string) =>
      run('Proving the backup…', async () =>
        afterRestart(
          await ask<{ restarts: boolean }>(`/api/backups/${name}/restore`, { method: 'POST' }),
          setBusy,
        ),
      ),
  };
}

const PATIENCE_MS = 120_000;
const EVERY_MS = 500;

/** Waits until the server is back and opens the first page anew; says what to do where nobody starts it again. */
export async function afterRestart(
  { restarts }: { restarts: boolean },
  onWait: (words: string) => void,
): Promise<string> {
  if (!restarts) return RESTART_BY_HAND;
  onWait('Idle Wander starts again…');
  const until = Date.now() + PATIENCE_MS;
  while (Date.now() < until) {
    await new Promise((resolve) => setTimeout(resolve, EVERY_MS));
    const isBack = await fetch('/api/backups').then(
      ({ ok }) => ok,
      () => false,
    );
    if (isBack) {
      window.location.assign('/');
      return 'Done.';
    }
  }
  return RESTART_BY_HAND;
}
