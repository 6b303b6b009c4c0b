'use client';
import { playTroubleWords } from '@/presentation';
import { useRef } from 'react';
import { formPositionOf, type Timeline } from '@/core/chart';
import { SPEEDS, type PlayerState, type TakePlayer } from '@/audio/playback/takePlayer';
import { KeyOf } from '../shell/commands/KeyOf';
import { RoundSign } from '@/ui/icons/RoundSign';
import { Select, Slider, Switch } from '@/ui/controls';
import { useCursor } from './useTakePlayer';

type Props = { player: TakePlayer; state: PlayerState; timeline: Timeline; soundGone: boolean };

export function placeText(timeline: Timeline, beat: number, withBeat = false): string {
  if (beat < 0) return 'Before bar 1';
  const { chorus, bar, beatInBar } = formPositionOf(timeline, beat);
  return `Chorus ${chorus + 1}, bar ${bar + 1}${withBeat ? `, beat ${Math.floor(beatInBar + 0.1) + 1}` : ''}`;
}

const percent = (value: number) => `${Math.round(value * 100)} %`;

/** Play, where it is, how fast, how loud the band; what goes round. */
export function Transport({ player, state, timeline, soundGone }: Props) {
  const place = useRef<HTMLElement>(null);
  useCursor(player, (beat) => {
    const text = placeText(timeline, beat);
    if (place.current && place.current.textContent !== text) place.current.textContent = text;
  });
  const { phase, speed, levels, loop } = state;
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
      <Level
        name="Band"
        value={levels.band}
        className="sm:flex"
        onChange={(band) => player.setLevels({ band })}
      />
      <Level
        name="Take"
        value={levels.take}
        className="md:flex"
        onChange={(take) => player.setLevels({ take })}
      />
      <label className="hidden items-center gap-2 sm:flex">
        Speed
        <Select
          label="Speed"
          value={speed}
          options={SPEEDS.map((one) => [one, percent(one)] as const)}
          onChange={(next) => player.setSpeed(next)}
        />
      </label>
      <label className="hidden items-center gap-1.5 lg:flex">
        <Switch checked={levels.click > 0} onChange={(on) => player.setLevels({ click: on ? 0.6 : 0 })} />
        click
      </label>
    </>
  );
}

type LevelProps = { name: string; value: number; className: string; onChange: (value: number) => void };

const Level = ({ name, value, className, onChange }: LevelProps) => (
  <label className={`hidden items-center gap-2 ${className}`}>
    {name}
    <Slider
      label={name}
      max={1}
      step={0.05}
      value={value}
      valueText={percent(value)}
      onChange={onChange}
      className="w-20"
    />
  </label>
);
