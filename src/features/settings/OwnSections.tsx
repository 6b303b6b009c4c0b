'use client';
import type { AudioInputState } from '@/audio/input/audioInput';
import type { AudioInput } from '@/audio/input/audioInput';
import { readTuning, STANDARD_TUNING } from '@/core/neck';
import { ChoiceSetting, LevelSetting, NumberSetting } from '@/ui/Field';
import { useGuitar } from '@/ui/instrument';
import { useMemo, type ReactNode } from 'react';
import { DeviceChooser } from '../shell/DeviceChooser';
import { AFTER_TAKE, prefer, usePreferences } from '../shell/preferences';
import { useAppTheme } from '../shell/useAppTheme';
import { useIsAlive } from '../shell/useIsAlive';
import { TunerView, useTuner } from '../shell/Tuner';
import { useDevices, useRigState } from '../shell/useRig';

export function Section({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name} className="border-t border-line pt-3">
      <h2 className="mb-2 text-[19px] leading-7 font-[640]">{name}</h2>
      {children}
    </section>
  );
}

export function Sound({ rig }: { rig: AudioInput }) {
  const { outputId, bandLevel } = usePreferences();
  const state = useRigState(rig);
  const { outputs } = useDevices(state.phase);
  const named = outputs.filter(({ deviceId }) => deviceId !== 'default' && deviceId !== 'communications');
  return (
    <>
      <DeviceChooser rig={rig} />
      <ChoiceSetting
        name="Output"
        value={outputId ?? ''}
        choices={[
          ['', 'Default output'],
          ...named.map(({ deviceId, label }): [string, string] => [deviceId, label]),
          ...(outputId !== null && !named.some(({ deviceId }) => deviceId === outputId)
            ? [[outputId, 'An output that is not plugged in'] as [string, string]]
            : []),
        ]}
        onChange={(one) => {
          prefer({ outputId: one || null });
          void rig.speakThrough(one).catch(() => undefined);
        }}
      />
      <LevelSetting
        name="Band starts at"
        value={bandLevel}
        onChange={(value) => prefer({ bandLevel: value })}
      />
      <p className="grid grid-cols-[118px_minmax(0,1fr)] gap-x-3 py-[3px] leading-5 text-soft">
        <span className="text-dim">Browser extras</span>
        <span>
          <BrowserExtras state={state} />
        </span>
      </p>
      {state.phase === 'open' && (
        <p className="grid grid-cols-[118px_minmax(0,1fr)] gap-x-3 py-[3px] text-soft">
          <span className="text-dim">Runs at</span>
          <span className="font-[580] text-ink">{(state.rate / 1000).toFixed(1)} kHz</span>
        </p>
      )}
    </>
  );
}

export function Tuner({ rig }: { rig: AudioInput }) {
  const guitar = useGuitar();
  const { device, reference } = usePreferences();
  const state = useRigState(rig);
  const tuning = useMemo(() => {
    const read = readTuning(guitar.tuning);
    return read.ok ? read.value : STANDARD_TUNING;
  }, [guitar.tuning]);
  const reading = useTuner(rig, tuning, reference, state.phase === 'open');
  if (state.phase !== 'open')
    return (
      <button type="button" className="quiet text-ink" onClick={() => void rig.open(device)}>
        Listen to the strings
      </button>
    );
  return <TunerView reading={reading} tuning={tuning} a4={reference} />;
}

export function Takes() {
  const { afterTake, position } = usePreferences();
  return (
    <>
      <ChoiceSetting
        name="After a take"
        value={afterTake}
        choices={AFTER_TAKE}
        onChange={(one) => prefer({ afterTake: one })}
      />
      <NumberSetting
        name="Hand at fret"
        value={position}
        low={1}
        high={15}
        onChange={(one) => prefer({ position: one })}
      />
    </>
  );
}

export function Look() {
  const { chosen, choose } = useAppTheme();
  const isAlive = useIsAlive();
  return (
    <ChoiceSetting
      name="Theme"
      value={isAlive ? chosen : 'system'}
      choices={[
        ['system', 'as the system'],
        ['dusk', 'dusk'],
        ['noon', 'noon'],
      ]}
      onChange={choose}
    />
  );
}

export function CautionWords() {
  const { restMinutes } = usePreferences();
  return (
    <div className="leading-6 text-soft">
      <p>Headphones low first, then up to where the guitar sits in the band. Ears do not come back.</p>
      <div className="my-1 max-w-[300px]">
        <NumberSetting
          name="Rest every"
          value={restMinutes}
          low={5}
          high={120}
          unit="minutes of playing"
          onChange={(one) => prefer({ restMinutes: one })}
        />
      </div>
      <p>
        Warm up before wide stretches and fast repetition. Stop on pain, numbness or tingling, and see a
        doctor or physiotherapist.
      </p>
    </div>
  );
}

/** Whether echo cancelling, noise suppression and gain control are off, as recording wants them. */
function BrowserExtras({ state }: { state: AudioInputState }) {
  if (state.phase !== 'open') return 'shown when the input is open';
  if (state.refusals.length === 0) return 'echo, noise and gain control are off';
  return <b className="text-ink">{state.refusals.join(' and ')} cannot be turned off here</b>;
}
