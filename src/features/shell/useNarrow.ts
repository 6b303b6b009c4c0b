'use client';
import { useSyncExternalStore } from 'react';

const QUERY = '(max-width: 639px)';
const onNarrow = (listener: () => void) => {
  const query = window.matchMedia(QUERY);
  query.addEventListener('change', listener);
  return () => query.removeEventListener('change', listener);
};
/** Is the screen as narrow as a phone's? */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    onNarrow,
    () => window.matchMedia(QUERY).matches,
    () => false,
  );
