'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { ServerRefusal } from '@/audio/persistence/serverTakes';

export type SaveState = { readonly state: 'saved' | 'waiting' | 'failed'; readonly why?: string };

const PAUSE_MS = 500;

/**
 * Saves a text a moment after the last change; what could not be saved is tried again with the next change,
 * and on leaving the page.
 */
export function useAutosave(save: (text: string) => Promise<void>): {
  state: SaveState;
  changed: (text: string) => void;
} {
  const [state, setState] = useState<SaveState>({ state: 'saved' });
  const pending = useRef<{ text: string; timer: ReturnType<typeof setTimeout> } | null>(null);
  const latest = useRef(save);
  useEffect(() => {
    latest.current = save;
  }, [save]);
  const flush = useCallback(async () => {
    if (!pending.current) return;
    const { text, timer } = pending.current;
    clearTimeout(timer);
    pending.current = null;
    try {
      await latest.current(text);
      setState({ state: 'saved' });
    } catch (error) {
      setState({
        state: 'failed',
        why:
          error instanceof ServerRefusal
            ? error.message
            : 'the server does not answer; your text stays here and is sent with the next change',
      });
    }
  }, []);
  const changed = useCallback(
    (text: string) => {
      if (pending.current) clearTimeout(pending.current.timer);
      pending.current = { text, timer: setTimeout(() => void flush(), PAUSE_MS) };
      setState({ state: 'waiting' });
    },
    [flush],
  );
  useEffect(() => {
    const leave = () => void flush();
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [flush]);
  return { state, changed };
}
