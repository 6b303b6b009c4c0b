'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { beatAt, secondsAt, steady, type Pace } from '@/core/chart';
import type { Beats } from '@/core/vocabulary';

type Take = { readonly id: string; readonly tempo: number; readonly pace: Pace | null; readonly offsetSec: number };

/** The take's sound with a cursor in beats; plays from any beat. */
export function usePlayback({ id, tempo, pace: moving, offsetSec }: Take) {
  const pace = useMemo(() => moving ?? steady(tempo), [moving, tempo]);
  const audio = useRef<HTMLAudioElement | null>(null);
  const [playing, setPlaying] = useState(false);
  const [beat, setBeat] = useState<Beats | null>(null);
  const element = useCallback(() => {
    if (!audio.current) {
      const made = new Audio(`/api/takes/${id}/audio`);
      made.preload = 'auto';
      made.addEventListener('ended', () => setPlaying(false));
      made.addEventListener('pause', () => setPlaying(false));
      made.addEventListener('play', () => setPlaying(true));
      audio.current = made;
    }
    return audio.current;
  }, [id]);
  useEffect(() => () => audio.current?.pause(), []);
  useEffect(() => {
    if (!playing) return;
    let frame = 0;
    const follow = () => {
      setBeat(beatAt(pace, element().currentTime - offsetSec));
      frame = requestAnimationFrame(follow);
    };
    frame = requestAnimationFrame(follow);
    return () => cancelAnimationFrame(frame);
  }, [playing, element, offsetSec, pace]);
  const playFrom = useCallback((from: Beats) => {
    const player = element();
    player.currentTime = Math.max(0, offsetSec + secondsAt(pace, from));
    setBeat(from);
    void player.play().catch(() => setPlaying(false));
  }, [element, offsetSec, pace]);
  const toggle = useCallback(() => {
    const player = element();
    if (!player.paused) return player.pause();
    if (player.ended || player.currentTime === 0) return playFrom(0);
    void player.play().catch(() => setPlaying(false));
  }, [element, playFrom]);
  return { playing, beat, playFrom, toggle };
}
