'use client';
import { useEffect, useMemo, useRef } from 'react';
import { listenToKeys, listenToMidi, type Keys } from './pedal';
import { notify } from '@/ui/toast/toasts';
import { usePreferences } from './preferences';

const sayReversed = () =>
  notify(
    'This pedal is closed at rest. From now on it is read the other way round: pressing it counts as a press.',
  );

/** Keys a page is scrolled with, which pedals may send too. */
const SCROLLING = /^(?:Arrow|Page)/;

/**
 * The keys and pedals of a screen while it is shown.
 * @param scrolls on a long page the keys that scroll it are not taken for the pedal
 */
export function useKeys(keys: Keys, scrolls = false): void {
  const { bindings: all, midi } = usePreferences();
  const bindings = useMemo(
    () => (scrolls ? { ...all, press: all.press.filter((key) => !SCROLLING.test(key)) } : all),
    [all, scrolls],
  );
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => listenToKeys(bindings, () => latest.current, sayReversed), [bindings]);
  useEffect(() => {
    if (!midi) return;
    let stop: (() => void) | null = null;
    let gone = false;
    void listenToMidi().then((listening) => {
      if (gone) listening?.stop();
      else stop = listening?.stop ?? null;
    });
    return () => {
      gone = true;
      stop?.();
    };
  }, [midi]);
}
