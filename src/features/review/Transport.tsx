'use client';
import { playTroubleWords } from '@/presentation';
import { useRef } from 'react';
import { formPositionOf, type Timeline } from '@/core/chart';
import type { PlayerState, TakePlayer } from '@/audio/playback/takePlayer';
import { KeyOf } from '../shell/commands/KeyOf';
import { RoundSign } from '@/ui/icons/RoundSign';
import { useIsPainted } from '@/ui/useIsPainted';
import { TransportSettings } from './TransportSettings';
import { useCursor } from './useTakePlayer';

type Props = { player: TakePlayer; state: PlayerState; timeline: Timeline; soundGone: boolean };

export function placeText(timeline: Timeline, beat: number, withBeat = false): string {
  if (beat < 0) return 'Before bar 1';
  const { chorus, bar, beatInBar } = formPositionOf(timeline, beat);
  return `Chorus ${chorus + 1}, bar ${bar + 1}${withBeat ? `, beat ${Math.floor(beatInBar + 0.1) + 1}` : ''}`;
}

/** Play, where it is and what goes round; how fast and how loud come a moment later. */
export function Transport({ player, state, timeline, soundGone }: Props) {
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
