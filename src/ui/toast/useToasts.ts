import { useSyncExternalStore } from 'react';
import { toasts, type Toast } from './toasts';

/** Notices that are shown now, the latest last. */
export const useToasts = (): readonly Toast[] =>
  useSyncExternalStore(toasts.subscribe, toasts.get, toasts.get);
