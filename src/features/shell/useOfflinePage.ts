import { useEffect } from 'react';

/** A page of its own for when the server is not running (`public/sw.js`). Not while developing: files change. */
export function useOfflinePage(): void {
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
    // where it is not allowed, everything but that page works all the same
    navigator.serviceWorker.register('/sw.js').catch(() => undefined);
  }, []);
}
