'use client';
import { useRef, useState, type ReactNode } from 'react';
import { present } from '@/core/shared';
import type { AudioInput } from '@/audio/input/audioInput';
import { ChoiceSetting, NumberSetting } from '@/ui/Field';
import { DeviceChooser } from '../shell/DeviceChooser';
import { AFTER_TAKE, HELP, prefer, usePreferences, type Help } from '../shell/preferences';
import type { RecordChart, Settings } from './settings';
import { SetupBand } from './SetupBand';
import { hiddenSettings } from './favourites';
import { SetupHabits } from './SetupHabits';
import { PlanWhy, SetupFirst, SetupWhat } from './SetupWhat';

type Props = {
  charts: readonly RecordChart[];
  settings: Settings;
  onChange: (settings: Settings) => void;
  onStart: () => void;
  rig: AudioInput;
  onFile: (file: File, barOneAt: number) => void;
  onStandIn: () => void;
  trouble: string | null;
};

/** Before the count-in: what matters in one row, the rest under *More*; everything as it was last time. */
export function Setup({ charts, settings, onChange, onStart, rig, onFile, onStandIn, trouble }: Props) {
  const set = (change: Partial<Settings>) => onChange({ ...settings, ...change });
  const chart = present(charts.find((one) => one.id === settings.chartId));
  return (
    <div className="mx-4 pt-3 pb-6 sm:mx-8">
      <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-4">
        <div>
          <p className="text-xl text-soft">Next take over</p>
          <h1 className="text-[44px] leading-[52px] font-[640] tracking-tight sm:text-[64px] sm:leading-[72px]">
            {chart.title}
          </h1>
        </div>
        <button type="button" className="go mb-2 flex items-center gap-4 text-2xl" onClick={onStart}>
          Count me in <span className="text-base font-[560]">Space</span>
        </button>
      </div>
      {trouble && (
        <p
          role="alert"
          className="mt-3 max-w-[860px] border-l-[3px] border-now py-1 pl-4 text-xl leading-8 text-ink"
        >
          {trouble}
        </p>
      )}
      <div className="mt-4 grid grid-cols-2 items-start gap-x-5 gap-y-2 border-t border-line pt-3 lg:grid-cols-[minmax(0,1.3fr)_84px_84px_minmax(0,1.1fr)_minmax(0,1fr)_minmax(0,370px)]">
        <SetupFirst charts={charts} chart={chart} settings={settings} set={set} onChange={onChange} />
        <div className="col-span-2 lg:col-span-1 lg:col-start-6 lg:row-span-2 lg:row-start-1 lg:border-l lg:border-line lg:pl-5">
          <DeviceChooser rig={rig} />
        </div>
        <div className="col-span-2 space-y-3 pt-1 lg:col-span-5">
          <PlanWhy settings={settings} />
          <SetupHabits settings={settings} charts={charts} onChange={onChange} />
        </div>
      </div>
      <div className="mt-3">
        <OtherWays onFile={onFile} onStandIn={onStandIn} />
      </div>
      <More settings={settings}>
        <div className="mt-4 grid gap-x-8 gap-y-8 md:grid-cols-2 lg:grid-cols-3">
          <Column name="What is played">
            <SetupWhat chart={chart} settings={settings} set={set} />
          </Column>
          <Column name="The band">
            <SetupBand settings={settings} set={set} chartId={chart.id} />
          </Column>
          <Column name="You">
            <Hands />
          </Column>
        </div>
      </More>
    </div>
  );
}

/** The rest, when it is asked for; what is set there and not as it begins is told all the same. */
function More({ settings, children }: { settings: Settings; children: ReactNode }) {
  const { hasMore, bandLevel, levels, chords } = usePreferences();
  const hidden = hiddenSettings({ settings, band: { bandLevel, levels, chords } });
  return (
    <>
      <p className="mt-4 flex flex-wrap items-baseline gap-x-5 text-[15px]">
        <button
          type="button"
          aria-expanded={hasMore}
          className="font-[580] text-soft underline hover:text-ink"
          onClick={() => prefer({ hasMore: !hasMore })}
        >
          {hasMore ? 'Less' : 'More: bars, key, band, help'}
        </button>
        {!hasMore && hidden.length > 0 && <span className="text-soft">set: {hidden.join(', ')}</span>}
      </p>
      {hasMore && children}
    </>
  );
}

function Column({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name} className="min-w-0 border-t border-line pt-3">
      <h2 className="mb-2 text-[19px] leading-7 font-[640]">{name}</h2>
      {children}
    </section>
  );
}

/** What the screen shows and does while the hands are on the guitar. */
function Hands() {
  const { help, afterTake, position } = usePreferences();
  return (
    <div>
      <ChoiceSetting
        name="Help"
        value={String(help)}
        choices={HELP.map((words, index) => [String(index), words] as const)}
        onChange={(one) => prefer({ help: Number(one) as Help })}
      />
      <NumberSetting
        name="Hand at fret"
        value={position}
        low={1}
        high={15}
        onChange={(one) => prefer({ position: one })}
      />
      <ChoiceSetting
        name="After a take"
        value={afterTake}
        choices={AFTER_TAKE}
        onChange={(one) => prefer({ afterTake: one })}
      />
    </div>
  );
}

/**
 * A recording by choosing or dropping, and where its bar 1 begins; or the stand-in player without waiting for
 * it to play.
 */
function OtherWays({
  onFile,
  onStandIn,
}: {
  onFile: (file: File, barOneAt: number) => void;
  onStandIn: () => void;
}) {
  const [barOne, setBarOne] = useState('0');
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const take = (file: File | undefined) => {
    if (file) onFile(file, Number.isFinite(Number(barOne)) ? Number(barOne) : 0);
  };
  return (
    <div
      className={`flex flex-wrap items-center gap-x-6 gap-y-2 text-[15px] ${over ? 'bg-row' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        take(event.dataTransfer.files[0]);
      }}
    >
      <span>
        <button type="button" className="quiet !py-1 text-ink" data-tour="stand-in" onClick={onStandIn}>
          Let the stand-in player play
        </button>
        <span className="ml-3 text-sm text-dim">a whole take in a few seconds</span>
      </span>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <button type="button" className="quiet !py-1 text-ink" onClick={() => input.current?.click()}>
          Bring a recording
        </button>
        <input
          ref={input}
          type="file"
          accept="audio/*,.wav,.mp3,.flac,.ogg,.m4a"
          className="sr-only"
          aria-label="Recording"
          tabIndex={-1}
          onChange={(event) => {
            take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        <label className="flex items-center gap-2 text-soft">
          Bar 1 begins at{' '}
          <input
            className="field w-16 !py-1"
            inputMode="decimal"
            value={barOne}
            onChange={(event) => setBarOne(event.target.value)}
          />{' '}
          s
        </label>
      </div>
    </div>
  );
}
