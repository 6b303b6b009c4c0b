'use client';
import { useCallback, useEffect, useRef, useState } from 'react';

export type SaveState = { readonly state: 'saved' | 'waiting' | 'failed'; readonly at: number | null };

const PAUSE_MS = 500;

/** Saves a text a moment after the last change; what could not be saved is tried again with the next change, and on leaving the page. */
export function useAutosave(save: (text: string) => Promise<void>): { state: SaveState; changed: (text: string) => void } {
  const [state, setState] = useState<SaveState>({ state: 'saved', at: null });
  const pending = useRef<{ text: string; timer: ReturnType<typeof setTimeout> } | null>(null);
  const latest = useRef(save);
  useEffect(() => { latest.current = save; }, [save]);
  const flush = useCallback(async () => {
    if (!pending.current) return;
    const { text, timer } = pending.current;
    clearTimeout(timer);
    pending.current = null;
    try {
      await latest.current(text);
      setState({ state: 'saved', at: Date.now() });
    } catch {
      setState((before) => ({ state: 'failed', at: before.at }));
    }
  }, []);
  const changed = useCallback((text: string) => {
    if (pending.current) clearTimeout(pending.current.timer);
    pending.current = { text, timer: setTimeout(() => void flush(), PAUSE_MS) };
    setState((before) => ({ state: 'waiting', at: before.at }));
  }, [flush]);
  useEffect(() => {
    const leave = () => void flush();
    window.addEventListener('pagehide', leave);
    return () => { window.removeEventListener('pagehide', leave); leave(); };
  }, [flush]);
  return { state, changed };
}
