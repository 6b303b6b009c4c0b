'use client';
import { useLayoutEffect, useRef } from 'react';
import { addSource, commandsChanged, type Handlers, type SourceOptions } from './registry';

/** The commands of a screen or of a part of it while it is shown: from the moment it is drawn. */
export function useCommands(handlers: Handlers, { priority, inDialog, scrolls }: SourceOptions = {}): void {
  const latest = useRef(handlers);
  useLayoutEffect(() => {
    latest.current = handlers;
    commandsChanged();
  });
  useLayoutEffect(
    () =>
      addSource(() => latest.current, {
        ...(priority !== undefined && { priority }),
        ...(inDialog !== undefined && { inDialog }),
        ...(scrolls !== undefined && { scrolls }),
      }),
    [priority, inDialog, scrolls],
  );
}
