import { useCallback, useRef, useSyncExternalStore } from 'react';
import { MUSIC_FONT } from './engrave';

const FONT = `30px ${MUSIC_FONT}`;
export const loadMusicFont = (): Promise<unknown> => document.fonts.load(FONT);

/** Whether the music font is there: what is engraved is measured with it. A browser that cannot load it draws all the same. */
export function useMusicFont(): boolean {
  const given = useRef(false);
  const subscribe = useCallback((changed: () => void) => {
    let alive = true;
    void loadMusicFont().finally(() => {
      given.current = true;
      if (alive) changed();
    });
    return () => {
      alive = false;
    };
  }, []);
  return useSyncExternalStore(
    subscribe,
    () => given.current || document.fonts.check(FONT),
    () => false,
  );
}
