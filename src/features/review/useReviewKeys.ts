'use client';
import { useEffect, useRef } from 'react';

/** What a key does here; a key may be written with `Shift+` or `Ctrl+` before it. */
export type KeyMap = Readonly<Record<string, (() => void) | undefined>>;

const nameOf = (event: KeyboardEvent): string => {
  let key: string;
  if (event.key === ' ') key = 'Space';
  else if (event.key.length === 1) key = event.key.toLowerCase();
  else key = event.key;
  const shifted = event.shiftKey && (event.key.length > 1 || /[a-z]/i.test(event.key));
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${shifted ? 'Shift+' : ''}${key}`;
};

/** The keys of a screen. Fields keep theirs; what is focused keeps Space and Enter. */
export function useReviewKeys(keys: KeyMap): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey || document.querySelector('[role="dialog"]')) return;
      const name = nameOf(event);
      const target = event.target instanceof HTMLElement ? event.target : null;
      if (
        target?.closest(
          'textarea, select, input:not([type="checkbox"]):not([type="range"]), [contenteditable]',
        )
      )
        return;
      if (target?.closest('input[type="range"]') && name.startsWith('Arrow')) return;
      if ((name === 'Space' || name === 'Enter') && target?.closest('button, a, summary, input')) return;
      const act = latest.current[name];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
