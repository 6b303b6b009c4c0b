'use client';
import { useSyncExternalStore } from 'react';
import { createStore } from '@/core/shared';
import { commandsNow, type Command } from './registry';

export type Panel = 'palette' | 'keys';

/** Which of the two panels is open, and what the screen under it could do when it was opened. */
const store = createStore<{ readonly panel: Panel | null; readonly commands: readonly Command[] }>({
  panel: null,
  commands: [],
});

export function openPanel(panel: Panel): void {
  const { panel: open } = store.get();
  if (open === panel) return closePanel();
  store.set({ panel, commands: commandsNow() });
}
export const closePanel = (): void => store.set({ ...store.get(), panel: null });

const panelNow = () => store.get().panel;
export const usePanel = (): Panel | null => useSyncExternalStore(store.subscribe, panelNow, () => null);
/** What could be done when the panel was opened. */
export const panelCommands = (): readonly Command[] => store.get().commands;
