'use client';
import { playTroubleWords } from '@/presentation';
import { useEffect, useRef, useState } from 'react';
import { formPositionOf, type Timeline } from '@/core/chart';
import type { PlayerState, TakePlayer } from '@/audio/playback/takePlayer';
import { ask } from '@/audio/persistence/serverTakes';
import { KeyOf } from '../shell/commands/KeyOf';
import { RoundSign } from '@/ui/icons/RoundSign';
import { useIsPainted } from '@/ui/useIsPainted';
import { TransportSettings } from './TransportSettings';
import { useCursor } from './useTakePlayer';

type Props = {
  player: TakePlayer;
  state: PlayerState;
  timeline: Timeline;
  takeId: string;
  soundGone: boolean;
};

export function placeText(timeline: Timeline, beat: number, withBeat = false): string {
  if (beat < 0) return 'Before bar 1';
  const { chorus, bar, beatInBar } = formPositionOf(timeline, beat);
  return `Chorus ${chorus + 1}, bar ${bar + 1}${withBeat ? `, beat ${Math.floor(beatInBar + 0.1) + 1}` : ''}`;
}

/** Play, where it is and what goes round; how fast and how loud come a moment later. */
export function Transport({ player, state, timeline, takeId, soundGone }: Props) {
  const damage = useDamage(soundGone ? null : takeId, state.phase);
  const isPainted = useIsPainted();
  const place = useRef<HTMLElement>(null);
  useCursor(player, (beat) => {
    const text = placeText(timeline, beat);
    if (place.current && place.current.textContent !== text) place.current.textContent = text;
  });
  const { phase, loop } = state;
  return (
    <>
      <button
        type="button"
        onClick={() => player.toggle()}
        aria-label={phase === 'idle' ? 'Play the take' : 'Pause'}
      >
        <RoundSign name={phase === 'idle' ? 'play' : 'pause'} />
      </button>
      <b className="w-[148px] text-ink" ref={place} role="status">
        {placeText(timeline, 0)}
      </b>
      {phase === 'loading' && <span className="text-dim">opening the sound</span>}
      {state.trouble && (
        <span role="alert" className="text-ink">
          {playTroubleWords(state.trouble)}
        </span>
      )}
      {soundGone && phase !== 'loading' && (
        <span className="text-dim">its sound is gone: notes are plucked</span>
      )}
      {damage && (
        <span role="status" className="text-ink">
          {damage}
        </span>
      )}
      {loop && (
        <button type="button" className="text-now" onClick={() => player.setLoop(null)}>
          {placeText(timeline, loop[0]).replace('Chorus', 'loops from chorus')}{' '}
          <KeyOf command="review.form.loop" className="ml-1" />
        </button>
      )}
      {isPainted && <TransportSettings player={player} state={state} />}
    </>
  );
}

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

/** What was found damaged in the sound when it was opened, in words; null where it is whole. */
function useDamage(takeId: string | null, phase: PlayerState['phase']): string | null {
  const [words, setWords] = useState<string | null>(null);
  const before = useRef(phase);
  useEffect(() => {
    const isOpened = before.current === 'loading' && phase !== 'loading';
    before.current = phase;
    if (!isOpened || takeId === null) return;
    ask<{ damaged: readonly (readonly [number, number])[] }>(`/api/takes/${takeId}/audio?damage=1`)
      .then(({ damaged }) => {
        const stretches = damaged.map(([from, to]) => `${clock(from)}–${clock(Math.ceil(to))}`).join(', ');
        setWords(stretches ? `damaged, and silent: ${stretches}; a backup may have it` : null);
      })
      // whether it is damaged is not worth a word of trouble: it is heard
      .catch(() => undefined);
  }, [takeId, phase]);
  return words;
}
