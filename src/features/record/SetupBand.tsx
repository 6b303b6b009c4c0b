'use client';
import { CLICK_BEATS, type ClickBeats } from '@/core/band';
import { ChoiceSetting, LevelSetting, Setting } from '@/ui/Field';
import { prefer, usePreferences } from '../shell/preferences';
import { OwnBacking } from './OwnBacking';
import type { SettingsPart } from './settings';

const CLICK_WORDS: Record<ClickBeats, string> = {
  off: 'in the count-in only',
  every: 'on every beat',
  'two-and-four': 'on two and four',
  one: 'once a bar',
};

/** Which band plays, how loud, and where it leaves the player alone. */
export function SetupBand({ settings, set, chartId }: SettingsPart & { chartId: string }) {
  const { bandLevel, levels, chords } = usePreferences();
  const level = (part: keyof typeof levels) => (value: number) =>
    prefer({ levels: { ...levels, [part]: value } });
  return (
    <>
      <LevelSetting name="All" value={bandLevel} onChange={(value) => prefer({ bandLevel: value })} />
      {bandLevel > 0.85 && (
        <p role="status" className="ml-[130px] text-sm leading-5 text-ink">
          Loud. Take the headphones down first: ears do not come back.
        </p>
      )}
      <LevelSetting name="Drums" mute="1" most={1.5} value={levels.drums} onChange={level('drums')} />
      <LevelSetting name="Bass" mute="2" most={1.5} value={levels.bass} onChange={level('bass')} />
      <LevelSetting name="Chords" mute="3" most={1.5} value={levels.chords} onChange={level('chords')} />
      <LevelSetting name="Click" most={1.5} value={levels.click} onChange={level('click')} />
      <ChoiceSetting
        name="It clicks"
        value={settings.click}
        choices={CLICK_BEATS.map((one) => [one, CLICK_WORDS[one]] as const)}
        onChange={(click) => set({ click })}
      />
      <ChoiceSetting
        name="Chords by"
        value={chords}
        choices={[
          ['keys', 'keys'],
          ['guitar', 'guitar'],
        ]}
        onChange={(one) => prefer({ chords: one })}
      />
      <Setting name="You alone in">
        <span className="flex flex-wrap items-center gap-x-2 gap-y-1 text-dim">
          choruses{' '}
          <input
            className="field w-16 !py-1 text-ink"
            aria-label="Choruses without the band"
            placeholder="none"
            value={settings.aloneChoruses}
            onChange={(event) => set({ aloneChoruses: event.target.value })}
          />
          bars{' '}
          <input
            className="field w-16 !py-1 text-ink"
            aria-label="Bars without the band"
            placeholder="none"
            value={settings.aloneBars}
            onChange={(event) => set({ aloneBars: event.target.value })}
          />
        </span>
      </Setting>
      <OwnBacking
        chartId={chartId}
        chosen={settings.backingId}
        onChoose={(one) =>
          set(
            one
              ? { backingId: one.id, tempo: one.tempo, tempoStep: 0, keyStep: 0, bars: null }
              : { backingId: null },
          )
        }
      />
    </>
  );
}
