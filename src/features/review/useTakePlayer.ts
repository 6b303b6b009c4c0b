'use client';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { steady } from '@/core/chart';
import { playedFrom } from '@/core/correct';
import type { Judgement } from '@/core/review';
import type { Beats } from '@/core/shared';
import { sourceOf } from '@/audio/playback/takeSound';
import { TakePlayer, type PlayerState } from '@/audio/playback/takePlayer';
import { prefer, preferences } from '../shell/preferences';
import type { ReviewTake } from './useReview';

/** A take under the fingers: one player for as long as the page shows the take. */
export function useTakePlayer(
  take: ReviewTake,
  { notes, timeline }: Judgement,
): { player: TakePlayer; state: PlayerState } {
  const { id, chartText, tempo, choruses, offsetSec, soundGone, pace } = take;
  const [player] = useState(() => {
    const walk = pace ?? steady(tempo);
    return new TakePlayer(
      sourceOf({
        id,
        chartText,
        tempo,
        pace: walk,
        choruses,
        offsetSec,
        soundGone,
        endBeat: choruses * timeline.formBeats + 2,
      }),
    );
  });
  useEffect(
    () => player.hasNotes(playedFrom(notes, pace ?? steady(tempo), offsetSec)),
    [player, notes, pace, tempo, offsetSec],
  );
  useEffect(() => keepMix(player), [player]);
  useEffect(() => () => void player.close(), [player]);
  const state = useSyncExternalStore(player.subscribe, player.getState, player.getState);
  return { player, state };
}

/** As loud as it was left in the last review, and kept as it is left in this one. @returns how to stop */
function keepMix(player: TakePlayer): () => void {
  const { mix } = preferences();
  // a take that was silenced once is heard again in the next review
  player.setLevels({ ...mix, take: mix.take || 1 });
  return player.subscribe(() => {
    const { levels } = player.getState();
    if (levels !== preferences().mix) prefer({ mix: levels });
  });
}

/** Tells where the sound is, once a frame while it plays, and once whenever it stands still. */
export function useCursor(player: TakePlayer, move: (beat: Beats, playing: boolean) => void): void {
  const latest = useRef(move);
  useEffect(() => {
    latest.current = move;
  });
  useEffect(() => {
    return followPlayer(player, (beat, playing) => latest.current(beat, playing));
  }, [player]);
}

/**
 * Tells where it sounds, frame by frame while it plays.
 * @returns a way to stop
 */
export function followPlayer(player: TakePlayer, move: (beat: Beats, playing: boolean) => void): () => void {
  let frame = 0;
  const follow = () => {
    const playing = player.getState().phase === 'playing';
    move(player.beat, playing);
    frame = playing ? requestAnimationFrame(follow) : 0;
  };
  const wake = () => {
    if (!frame) frame = requestAnimationFrame(follow);
  };
  wake();
  const stop = player.subscribe(wake);
  return () => {
    stop();
    cancelAnimationFrame(frame);
  };
}
