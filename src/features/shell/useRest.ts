'use client';
import { useEffect, useRef, useState } from 'react';
import { usePreferences } from './preferences';

const LOOK_MS = 5_000;
/** A pause this long is a rest: the count begins anew. */
const RESTED_MS = 5 * 60_000;

/** Playing time since the last rest, and whether a rest is due by the player's own interval. */
export function useRest(playing: boolean): {
  readonly due: boolean;
  readonly minutes: number;
  readonly rested: () => void;
} {
  const { restMinutes } = usePreferences();
  const played = useRef(0);
  const idle = useRef(0);
  const [minutes, setMinutes] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => {
      if (playing) {
        played.current += LOOK_MS;
        idle.current = 0;
      } else if ((idle.current += LOOK_MS) >= RESTED_MS) played.current = 0;
      setMinutes(Math.floor(played.current / 60_000));
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [playing]);
  return {
    due: minutes >= restMinutes,
    minutes,
    rested: () => {
      played.current = 0;
      setMinutes(0);
    },
  };
}
