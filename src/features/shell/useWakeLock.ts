import { useEffect } from 'react';

/**
 * Keeps the screen on while `isWanted`: hands are on the guitar and touch nothing. The system lets go of it when
 * the page is hidden, so it is asked for again when the page is back (Screen Wake Lock API, W3C).
 */
export function useWakeLock(isWanted = true): void {
  useEffect(() => {
    if (!isWanted || !('wakeLock' in navigator)) return;
    let held: WakeLockSentinel | null = null;
    let isOver = false;
    const hold = () => {
      if (document.visibilityState !== 'visible') return;
      // refused on low battery: the screen then darkens as it would
      navigator.wakeLock
        .request('screen')
        .then((lock) => {
          if (isOver) return void lock.release();
          held = lock;
        })
        .catch(() => undefined);
    };
    hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      isOver = true;
      document.removeEventListener('visibilitychange', hold);
      void held?.release();
    };
  }, [isWanted]);
}
