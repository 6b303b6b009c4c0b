'use client';
import { CHARACTERS, type StandInCharacter } from '@/core/band';
import type { DeviceChoice } from '@/audio/input/device';
import type { AudioInput } from '@/audio/input/audioInput';
import { ChoiceSetting, NumberSetting } from '@/ui/Field';
import { prefer, usePreferences } from './preferences';
import { useDevices, useLevel, useRigState } from './useRig';
import type { InputTrouble } from '@/audio/input/device';

const PLAYERS = Object.keys(CHARACTERS) as StandInCharacter[];
const valueOf = (device: DeviceChoice): string =>
  device.kind === 'stand-in' ? `stand-in:${device.character}` : `input:${device.deviceId ?? ''}`;

function choiceOf(value: string, before: DeviceChoice): DeviceChoice {
  if (value.startsWith('stand-in:'))
    return {
      kind: 'stand-in',
      character: value.slice('stand-in:'.length) as StandInCharacter,
      delayMs: before.kind === 'stand-in' ? before.delayMs : 0,
    };
  return { kind: 'input', deviceId: value.slice('input:'.length) || null, channel: 'mix' };
}

/**
 * What comes in: the inputs of this computer and, as one of them, the stand-in player; its level, and what is
 * wrong with it.
 */
export function DeviceChooser({ rig }: { rig: AudioInput }) {
  const { device } = usePreferences();
  const state = useRigState(rig);
  const { inputs } = useDevices(state.phase);
  const named = inputs.filter(({ deviceId }) => deviceId !== 'default' && deviceId !== 'communications');
  const choices: [string, string][] = [
    ['input:', 'Default input'],
    ...named.map(({ deviceId, label }): [string, string] => [`input:${deviceId}`, label]),
    ...PLAYERS.map((one): [string, string] => [`stand-in:${one}`, `Stand-in: ${CHARACTERS[one].name}`]),
  ];
  const value = valueOf(device);
  if (!choices.some(([one]) => one === value)) choices.push([value, 'An input that is not plugged in']);
  const choose = (next: DeviceChoice) => {
    prefer({ device: next });
    if (state.phase !== 'closed') void rig.open(next);
  };
  const channels = state.phase === 'open' ? state.channels : 1;
  return (
    <>
      <ChoiceSetting
        name="Input"
        value={value}
        choices={choices}
        onChange={(one) => choose(choiceOf(one, device))}
      />
      {device.kind === 'input' && channels > 1 && (
        <ChoiceSetting
          name="Channel"
          value={String(device.channel)}
          choices={[
            ['mix', 'all together'],
            ...Array.from({ length: channels }, (_, index): [string, string] => [
              String(index),
              `input ${index + 1}`,
            ]),
          ]}
          onChange={(one) => choose({ ...device, channel: one === 'mix' ? 'mix' : Number(one) })}
        />
      )}
      {device.kind === 'stand-in' && (
        <p className="ml-[130px] text-sm leading-5 text-dim">{CHARACTERS[device.character].words}</p>
      )}
      {device.kind === 'stand-in' && (
        <NumberSetting
          name="Its delay"
          value={device.delayMs}
          low={0}
          high={250}
          unit="ms"
          onChange={(delayMs) => choose({ ...device, delayMs })}
        />
      )}
      <InputFacts rig={rig} onOpen={() => void rig.open(device)} />
    </>
  );
}

/** Level, and in a sentence whatever would spoil a take. */
function InputFacts({ rig, onOpen }: { rig: AudioInput; onOpen: () => void }) {
  const state = useRigState(rig);
  const { level, highest, clipped } = useLevel(rig);
  if (state.phase === 'closed' || state.phase === 'trouble' || state.phase === 'lost')
    return (
      <div className="grid grid-cols-[118px_minmax(0,1fr)] items-center gap-x-3 py-[3px]">
        <span className="text-dim">Level</span>
        <span className="flex flex-wrap items-center gap-x-3">
          <button type="button" className="quiet !py-1 text-ink" onClick={onOpen}>
            Listen to the input
          </button>
          {state.phase === 'lost' && (
            <span role="alert" className="text-ink">
              It was unplugged.
            </span>
          )}
          {state.phase === 'trouble' && (
            <span role="alert" className="text-ink">
              {TROUBLE_WORDS[state.trouble]}
            </span>
          )}
        </span>
      </div>
    );
  const words = levelWords(highest, clipped, state.phase === 'open');
  return (
    <>
      <div className="grid grid-cols-[118px_minmax(0,1fr)_84px] items-center gap-x-3 py-[3px]">
        <span className="text-dim">Level</span>
        <LevelBar level={level} clipped={clipped > 0} />
        <span className="text-right whitespace-nowrap text-soft">
          {level <= -100 ? 'silent' : `${String(level).replace('-', '−')} dBFS`}
        </span>
      </div>
      {words && (
        <p role="status" className="ml-[130px] flex flex-wrap items-baseline gap-x-3 leading-5 text-ink">
          {words}
          {clipped > 0 && (
            <button type="button" className="text-now hover:underline" onClick={() => rig.listenAnew()}>
              Open it again
            </button>
          )}
        </p>
      )}
      {state.phase === 'open' && state.refusals.length > 0 && (
        <p role="status" className="ml-[130px] leading-5 text-ink">
          This browser does not turn off {state.refusals.join(' and ')}: notes may be swallowed. Another
          browser, or an interface, helps.
        </p>
      )}
    </>
  );
}

const LOUD = -6;

/** Level over 60 dB; the last six are where a take should not live. */
export function LevelBar({
  level,
  clipped = false,
  width = 200,
}: {
  level: number;
  clipped?: boolean;
  width?: number;
}) {
  const x = (db: number) => Math.max(0, Math.min(1, (db + 60) / 60)) * width;
  return (
    <svg
      viewBox={`0 0 ${width} 12`}
      className="w-full"
      role="img"
      aria-label={`Input level ${level <= -100 ? 'silent' : `${level} dBFS`}`}
    >
      <rect y={2} width={width} height={8} fill="var(--line)" />
      <rect y={2} width={x(Math.min(level, LOUD))} height={8} fill="var(--h1)" />
      {level > LOUD && <rect x={x(LOUD)} y={2} width={x(level) - x(LOUD)} height={8} fill="var(--h0)" />}
      <line x1={x(LOUD)} y1={0} x2={x(LOUD)} y2={12} stroke="var(--dim)" />
      {clipped && <rect x={width - 5} y={0} width={5} height={12} fill="var(--now)" />}
    </svg>
  );
}

const TROUBLE_WORDS: Record<InputTrouble, string> = {
  refused: 'The browser keeps it closed.',
  none: 'It is not there.',
  busy: 'It is in use elsewhere.',
  unsupported: 'This browser cannot record.',
};

/** What is wrong with the level, in dBFS; null where nothing is. */
function levelWords(highest: number, clipped: number, isOpen: boolean): string | null {
  if (clipped > 0) return 'Too loud: the tops are cut off. Turn the gain down.';
  if (highest < -84 && isOpen) return 'Nothing comes in. Look at the volume, the lead and the gain.';
  return highest > -60 && highest < -40 ? 'Very quiet. Turn the gain up if this was a note.' : null;
}
