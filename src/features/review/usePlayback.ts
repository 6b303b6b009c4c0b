'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { beatsToSeconds, secondsToBeats, type Beats } from '@/core/vocabulary';

type Take = { readonly id: string; readonly tempo: number; readonly offsetSec: number };

/** The take's sound with a cursor in beats; plays from any beat. */
export function usePlayback({ id, tempo, offsetSec }: Take) {
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
      setBeat(secondsToBeats(element().currentTime - offsetSec, tempo));
      frame = requestAnimationFrame(follow);
    };
    frame = requestAnimationFrame(follow);
    return () => cancelAnimationFrame(frame);
  }, [playing, element, offsetSec, tempo]);
  const playFrom = useCallback((from: Beats) => {
    const player = element();
    player.currentTime = Math.max(0, offsetSec + beatsToSeconds(from, tempo));
    setBeat(from);
    void player.play().catch(() => setPlaying(false));
  }, [element, offsetSec, tempo]);
  const toggle = useCallback(() => {
    const player = element();
    if (!player.paused) return player.pause();
    if (player.ended || player.currentTime === 0) return playFrom(0);
    void player.play().catch(() => setPlaying(false));
  }, [element, playFrom]);
  return { playing, beat, playFrom, toggle };
}
