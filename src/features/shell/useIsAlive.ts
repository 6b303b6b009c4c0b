import { useSyncExternalStore } from 'react';

const never = () => () => undefined;

/** Whether the page answers already: what only this browser knows is shown from then on. */
export const useIsAlive = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
