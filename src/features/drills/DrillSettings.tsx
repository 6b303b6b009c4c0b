'use client';
import Link from 'next/link';
import { elementAt } from '@/core/shared';
import { NumberSetting, Setting } from '@/ui/Field';
import { RadioRow, Select } from '@/ui/controls';
import { DeviceChooser } from '../shell/DeviceChooser';
import { usePreferences } from '../shell/preferences';
import type { DrillModel } from './useDrillModel';

type Props = { model: DrillModel; ends: readonly [string, string] | null };

/** Tempo steps, who plays, and where it goes from here. */
export function DrillSettings({ model, ends }: Props) {
  const { drill, change } = model;
  return (
    <>
      <Ladder model={model} />
      <You model={model} />
      {ends && (
        <p className="mt-5 border-t border-line pt-3 text-soft">
          Hear{' '}
          <Link className="underline hover:text-ink" href={`/takes/${ends[0]}`}>
            the first attempt
          </Link>{' '}
          and{' '}
          <Link className="underline hover:text-ink" href={`/takes/${ends[1]}`}>
            the latest
          </Link>
          .
        </p>
      )}
      <p className="mt-5">
        <button type="button" className="quiet" onClick={() => change({ away: !drill.away })}>
          {drill.away ? 'Resume it' : 'Pause it'}
        </button>{' '}
        <Link className="ml-2 text-soft underline hover:text-ink" href={`/drills/${drill.id}/sheet`}>
          Lesson sheet
        </Link>{' '}
        {drill.away && <span className="ml-2 text-dim">Paused: it is not scheduled.</span>}
      </p>
    </>
  );
}

function Ladder({ model: { drill, tempo, change, toKey } }: { model: DrillModel }) {
  const { rungs, up, down } = drill.ladder;
  return (
    <section className="mt-6 border-t border-line pt-2" aria-label="Tempo steps">
      <h2 className="heading">Tempo steps</h2>
      <NumberSetting
        name="Goal"
        value={elementAt(rungs, rungs.length - 1)}
        low={40}
        high={320}
        onChange={(goal) => change({ goal })}
      />
      <NumberSetting
        name="Now at"
        value={tempo}
        low={40}
        high={320}
        onChange={(wanted) => change({ tempo: wanted })}
      />
      <NumberSetting
        name="Up after"
        value={up}
        low={1}
        high={5}
        unit="passes in a row"
        onChange={(passes) => change({ up: passes })}
      />
      <NumberSetting
        name="Down after"
        value={down}
        low={1}
        high={5}
        unit="misses in a row"
        onChange={(misses) => change({ down: misses })}
      />
      <Setting name="Another key">
        <Select
          label="Another key"
          className="w-full font-[580]"
          value={0}
          options={[[0, 'as it is'], ...KEYS]}
          onChange={toKey}
        />
      </Setting>
    </section>
  );
}

function You({ model: { rig, standIn, setStandIn } }: { model: DrillModel }) {
  const { device } = usePreferences();
  return (
    <section className="mt-5 border-t border-line pt-2" aria-label="You">
      <h2 className="heading">You</h2>
      <DeviceChooser rig={rig} />
      {device.kind === 'stand-in' && (
        <RadioRow
          label="The stand-in player"
          className="mt-1 text-soft"
          value={standIn}
          onChange={setStandIn}
          choices={[
            ['plays', 'it plays the example'],
            ['misses', 'it misses on purpose'],
          ]}
        />
      )}
    </section>
  );
}

/** Where a drill may go: round in fourths first, as it is practised. */
const KEYS: readonly (readonly [number, string])[] = [
  [5, 'a fourth up'],
  [-5, 'a fourth down'],
  [1, 'a half step up'],
  [-1, 'a half step down'],
  [2, 'a whole step up'],
  [-2, 'a whole step down'],
  [3, 'a minor third up'],
  [-3, 'a minor third down'],
  [4, 'a major third up'],
  [-4, 'a major third down'],
  [6, 'a tritone away'],
];
