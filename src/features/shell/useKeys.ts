'use client';
import { useEffect, useRef } from 'react';
import { listenToKeys, listenToMidi, type Keys } from './pedal';
import { usePreferences } from './preferences';

/** The keys and pedals of a screen while it is shown. */
export function useKeys(keys: Keys): void {
  const { bindings, midi } = usePreferences();
  const latest = useRef(keys);
  useEffect(() => { latest.current = keys; });
  useEffect(() => listenToKeys(bindings, () => latest.current), [bindings]);
  useEffect(() => {
    if (!midi) return;
    let stop: (() => void) | null = null;
    let gone = false;
    void listenToMidi().then((listening) => { if (gone) listening?.stop(); else stop = listening?.stop ?? null; });
    return () => { gone = true; stop?.(); };
  }, [midi]);
}
