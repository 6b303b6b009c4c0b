'use client';
import { useSyncExternalStore } from 'react';
import { createStore } from '@/core/shared';
import { commandsNow, onCommandsChanged, type Command } from './registry';

export type Panel = 'palette' | 'keys' | 'words';

/** Which of the panels is open. */
const store = createStore<Panel | null>(null);

export const openPanel = (panel: Panel): void => store.set(store.get() === panel ? null : panel);
export const closePanel = (): void => store.set(null);
export const usePanel = (): Panel | null => useSyncExternalStore(store.subscribe, store.get, () => null);

const available = (): string =>
  commandsNow()
    .map(({ id, label }) => `${id} ${label}`)
    .join('\n');

/** What can be done on the screen under the panel; follows a screen that is still being loaded. */
export function usePanelCommands(): readonly Command[] {
  useSyncExternalStore(onCommandsChanged, available, () => '');
  return commandsNow();
}
