/** A value that changes, and those who want to know. It fits React's `useSyncExternalStore` as it is. */
export type Store<T> = {
  readonly get: () => T;
  readonly set: (value: T) => void;
  /** @returns how to stop being told */
  readonly subscribe: (listener: () => void) => () => void;
};

/** A store with its first value. Setting the value it has already tells nobody. */
export function createStore<T>(initial: T): Store<T> {
  let value = initial;
  const listeners = new Set<() => void>();
  return {
    get: () => value,
    set: (next) => {
      if (Object.is(next, value)) return;
      value = next;
      for (const listener of listeners) listener();
    },
    subscribe: (listener) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
  };
}
