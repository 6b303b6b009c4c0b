'use client';
import { useState } from 'react';
import { ask } from '@/audio/persistence/serverTakes';
import { Checkbox } from '@/ui/controls';
import { afterRestart } from './useBackups';

/** What this browser keeps: settings, keys, takes that were cut off. */
async function forgetHere(): Promise<void> {
  localStorage.clear();
  for (const { name } of await indexedDB.databases()) if (name) indexedDB.deleteDatabase(name);
}

/** All charts, takes and drills deleted, once the words were typed. */
export function DeleteEverything({ words }: { words: string }) {
  const [typed, setTyped] = useState('');
  const [backupsToo, setBackupsToo] = useState(false);
  const [busy, setBusy] = useState('');
  const isTyped = typed.trim().toLowerCase() === words;
  const remove = async () => {
    setBusy('Deleting…');
    try {
      const answer = await ask<{ restarts: boolean }>('/api/everything', {
        method: 'DELETE',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ words: typed, backupsToo }),
      });
      await forgetHere();
      setBusy(await afterRestart(answer, setBusy));
    } catch (error) {
      setBusy(error instanceof Error ? error.message : 'Nothing was deleted.');
    }
  };
  return (
    <form
      className="leading-6 text-soft"
      onSubmit={(event) => {
        event.preventDefault();
        if (isTyped) void remove();
      }}
    >
      <label className="block">
        To delete every chart, take, drill and setting here for good, type <b className="text-ink">{words}</b>
        :
        <input
          className="field mt-1 mb-2 block w-full max-w-[300px]"
          value={typed}
          autoComplete="off"
          onChange={({ target }) => setTyped(target.value)}
        />
      </label>
      <label className="flex w-fit items-center gap-2">
        <Checkbox checked={backupsToo} onChange={setBackupsToo} />
        The backups too
      </label>
      <button type="submit" className="quiet mt-2" disabled={!isTyped}>
        Delete everything
      </button>
      <p role="status">{busy}</p>
    </form>
  );
}
