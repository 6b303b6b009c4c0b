'use client';
import { SPEEDS, type PlayerState, type TakePlayer } from '@/audio/playback/takePlayer';
import { Select, Slider, Switch } from '@/ui/controls';

type Props = { player: TakePlayer; state: PlayerState };

const percent = (value: number): string => `${Math.round(value * 100)} %`;

/** How loud the band and the take are, how fast they play, and the click. */
export const TransportSettings = ({ player, state: { speed, levels } }: Props) => (
  <>
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
