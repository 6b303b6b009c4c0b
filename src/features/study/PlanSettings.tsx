'use client';
import type { ReactNode } from 'react';
import {
  DISAGREEMENTS,
  HAND_LIMITS,
  HEIGHT_INTENTS,
  PLANS,
  RUNGS,
  type HeightIntent,
  type PlanId,
  type SettingsWords,
} from '@/core/plan';
import { HomeScalePicker } from '@/ui/HomeScalePicker';
import { Checkbox, Select, Tip } from '@/ui/controls';

type Props = {
  settings: SettingsWords;
  /** The home scale without a choice of the player's. */
  fallback: string;
  onChange: (settings: SettingsWords) => void;
  onHear: (home: string) => void;
};

export const HEIGHTS: Record<HeightIntent, string> = {
  ground: 'on the ground',
  low: 'low',
  high: 'high',
  free: 'free',
};

/** The chord tones a part may be told to land on; '' leaves it to the school. */
const TARGETS = [
  ['', 'as the plan has it'],
  ['1', 'the root'],
  ['3', 'the third'],
  ['5', 'the fifth'],
  ['7', 'the seventh'],
  ['3 7', 'third or seventh'],
  ['1 3', 'root or third'],
  ['9', 'the ninth'],
] as const;

/** Where the hand may be told to be; '' leaves it free. */
const HANDS: readonly (readonly [string, string])[] = [
  ['', 'free'],
  ['nearest', 'the nearest shape'],
  ...Array.from({ length: HAND_LIMITS.shapes }, (_, index) => {
    const shape = `shape ${index + 1}`;
    return [shape, shape] as const;
  }),
  ...Array.from({ length: 12 }, (_, index) => [String(index + 1), `at fret ${index + 1}`] as const),
];

const MODES = ['dorian', 'mixolydian', 'lydian', 'major', 'phrygian', 'natural minor'];

/** Takes a setting away instead of leaving it empty. */
function withSetting<K extends keyof SettingsWords>(
  settings: SettingsWords,
  name: K,
  value: SettingsWords[K] | undefined,
): SettingsWords {
  const { [name]: _old, ...rest } = settings;
  return (value === undefined ? rest : { ...rest, [name]: value }) as SettingsWords;
}

/** What a school leaves to the player, for the whole form or for one part of it. */
export function PlanSettings({ settings, fallback, onChange, onHear }: Props) {
  const aims = settings.aims?.join(' ') ?? '';
  const known = TARGETS.some(([value]) => value === aims);
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pt-1.5 text-sm text-dim">
      <Named name="home scale">
        <HomeScalePicker
          value={settings.home}
          fallback={fallback}
          onChange={(home) => onChange(withSetting(settings, 'home', home))}
          onHear={({ name }) => onHear(name)}
        />
      </Named>
      <OfSchool id={settings.id} settings={settings} onChange={onChange} />
      {settings.id !== 'single-target' && (
        <Named name="land on">
          <Select
            label="Land on"
            look="line"
            value={aims}
            options={known ? TARGETS : [...TARGETS, [aims, aims] as const]}
            onChange={(value: string) =>
              onChange(withSetting(settings, 'aims', value === '' ? undefined : value.split(' ')))
            }
          />
        </Named>
      )}
      <Named name="tension">
        <Select
          label="Tension"
          look="line"
          value={settings.height ?? PLANS[settings.id].height}
          options={HEIGHT_INTENTS.map((height) => [height, HEIGHTS[height]] as const)}
          onChange={(height) => onChange({ ...settings, height })}
        />
      </Named>
      <Named name="hand">
        <Select
          label="Hand"
          look="line"
          value={settings.hand ?? ''}
          options={HANDS}
          onChange={(value: string) =>
            onChange(withSetting(settings, 'hand', value === '' ? undefined : value))
          }
        />
      </Named>
      <Named name="tonic = 6">
        <Tip words={DISAGREEMENTS.tonicSix}>
          <span className="justify-self-start py-1">
            <Checkbox
              label="tonic = 6"
              checked={settings.tonicSix ?? settings.id === 'sixth-diminished'}
              onChange={(tonicSix) => onChange({ ...settings, tonicSix })}
            />
          </span>
        </Tip>
      </Named>
    </div>
  );
}

const Named = ({ name, children }: { name: string; children: ReactNode }) => (
  <span className="flex items-center gap-1.5">
    {name} {children}
  </span>
);

type OfSchoolProps = Omit<Props, 'fallback' | 'onHear'> & { id: PlanId };

function OfSchool({ id, settings, onChange }: OfSchoolProps) {
  if (id === 'single-target')
    return (
      <Named name="target">
        <Select
          label="Target"
          look="line"
          value={settings.target ?? 'third'}
          options={RUNGS.map((rung) => [rung, rung] as const)}
          onChange={(target) => onChange({ ...settings, target })}
        />
      </Named>
    );
  if (id === 'parallel-mode')
    return (
      <Named name="mode">
        <Select
          label="Mode"
          look="line"
          value={settings.mode ?? ''}
          options={[['', 'each chord its own'], ...MODES.map((mode) => [mode, mode] as const)]}
          onChange={(mode: string) => onChange(withSetting(settings, 'mode', mode === '' ? undefined : mode))}
        />
      </Named>
    );
  if (id !== 'by-degrees') return null;
  return (
    <Named name="degrees">
      <input
        aria-label="Degrees"
        className="field w-32 !py-0.5 font-mono text-sm text-ink"
        defaultValue={settings.degrees ?? ''}
        placeholder="1 b3 4 5 6"
        onBlur={(event) => onChange(withSetting(settings, 'degrees', event.target.value.trim() || undefined))}
      />
    </Named>
  );
}
