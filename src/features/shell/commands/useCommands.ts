'use client';
import { useEffect, useRef } from 'react';
import { addSource, type Handlers, type SourceOptions } from './registry';

/** The commands of a screen or of a part of it while it is shown. */
export function useCommands(handlers: Handlers, { priority, inDialog, scrolls }: SourceOptions = {}): void {
  const latest = useRef(handlers);
  useEffect(() => {
    latest.current = handlers;
  });
  useEffect(
    () =>
      addSource(() => latest.current, {
        ...(priority !== undefined && { priority }),
        ...(inDialog !== undefined && { inDialog }),
        ...(scrolls !== undefined && { scrolls }),
      }),
    [priority, inDialog, scrolls],
  );
}
