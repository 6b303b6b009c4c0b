'use client';
import Link from 'next/link';
import { useMemo, useRef, useState, type ReactNode } from 'react';
import { CLICK_BEATS, type ClickBeats } from '@/core/band';
import { changeLoops, readChart, sectionsOf, TEMPO_LIMITS } from '@/core/chart';
import { PLANS, PLAN_IDS, type PlanId } from '@/core/plan';
import type { AudioInput } from '@/audio/input/audioInput';
import { chordText } from '@/ui/chordParts';
import { ChoiceSetting, LevelSetting, NumberSetting, Setting } from '@/ui/Field';
import { DeviceChooser } from '../shell/DeviceChooser';
import { AFTER_TAKE, HELP, prefer, usePreferences, type Help } from '../shell/preferences';
import { OwnBacking } from './OwnBacking';
import { KEY_STEPS, withChart, type RecordChart, type Settings } from './settings';
import { present } from '@/core/shared';

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

/**
 * Before the count-in: what is played, with which band, and through which input; everything as it was last
 * time.
 */
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
      <div className="mt-5 grid gap-x-8 gap-y-8 md:grid-cols-2 lg:grid-cols-3">
        <Column name="What is played">
          <What charts={charts} chart={chart} settings={settings} set={set} onChange={onChange} />
        </Column>
        <Column name="The band">
          <Band settings={settings} set={set} chartId={chart.id} />
        </Column>
        <Column name="You">
          <DeviceChooser rig={rig} />
          <Hands />
          <OtherWays onFile={onFile} onStandIn={onStandIn} />
        </Column>
      </div>
    </div>
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

type PartProps = { settings: Settings; set: (change: Partial<Settings>) => void };

function What({
  charts,
  chart,
  settings,
  set,
  onChange,
}: PartProps & {
  charts: readonly RecordChart[];
  chart: RecordChart;
  onChange: (settings: Settings) => void;
}) {
  const passes = settings.choruses > 1;
  return (
    <>
      <ChoiceSetting
        name="Chart"
        value={settings.chartId}
        choices={charts.map(({ id, title }) => [id, title] as const)}
        onChange={(id) => onChange(withChart(settings, charts, id))}
      />
      <Bars chart={chart} settings={settings} set={set} />
      <NumberSetting
        name="Choruses"
        value={settings.choruses}
        low={1}
        high={40}
        onChange={(choruses) => set({ choruses })}
      />
      {settings.backingId === null ? (
        <NumberSetting
          name="Tempo"
          value={settings.tempo}
          low={TEMPO_LIMITS[0]}
          high={TEMPO_LIMITS[1]}
          onChange={(tempo) => set({ tempo })}
        />
      ) : (
        <Setting name="Tempo">
          <span className="py-1 font-[620] text-ink">{Math.round(settings.tempo * 10) / 10}</span>{' '}
          <span className="text-dim">as your backing has it</span>
        </Setting>
      )}
      {passes && settings.backingId === null && (
        <>
          <NumberSetting
            name="Each chorus"
            value={settings.tempoStep}
            low={-40}
            high={40}
            unit={settings.tempoStep < 0 ? 'slower' : 'faster'}
            onChange={(tempoStep) => set({ tempoStep })}
          />
          <ChoiceSetting
            name="Key"
            value={String(settings.keyStep)}
            choices={KEY_STEPS.map(([step, words]) => [String(step), words] as const)}
            onChange={(step) => set({ keyStep: Number(step) })}
          />
        </>
      )}
      <NumberSetting
        name="Count-in"
        value={settings.countInBars}
        low={1}
        high={2}
        unit={settings.countInBars === 1 ? 'bar' : 'bars'}
        onChange={(countInBars) => set({ countInBars })}
      />
      <ChoiceSetting
        name="Judged by"
        value={settings.plan.id}
        choices={PLAN_IDS.map((id) => [id, PLANS[id].name] as const)}
        onChange={(id: PlanId) => set({ plan: { id } })}
      />
      <p className="mt-1.5 text-sm leading-5 text-dim">
        {PLANS[settings.plan.id].why}
        {settings.plan.parts &&
          ` ${settings.plan.parts.length === 1 ? 'One part' : `${settings.plan.parts.length} parts`} of the form by another school.`}{' '}
        <Link
          className="text-soft underline hover:text-ink"
          href={`/study/${settings.chartId}?plan=${encodeURIComponent(JSON.stringify(settings.plan))}`}
        >
          Study it first
        </Link>
      </p>
    </>
  );
}

/** Which bars to go round in: the whole form, a section, or any. */
function Bars({ chart, settings, set }: PartProps & { chart: RecordChart }) {
  const form = useMemo(() => {
    const read = readChart(chart.text);
    return read.ok ? read.value : null;
  }, [chart.text]);
  const [picked, setPicked] = useState<string | null>(null);
  const [text, setText] = useState<string | null>(null);
  if (!form) return null;
  const count = form.bars.length;
  const sections = sectionsOf(form);
  const changes = changeLoops(form);
  const { bars } = settings;
  const is = (one: readonly [number, number]) => bars !== null && bars[0] === one[0] && bars[1] === one[1];
  const choices: (readonly [string, string, readonly [number, number] | null])[] = [
    ['whole', `the whole form, ${count}`, null],
    ...sections.map(
      (one, index) => [`s${index}`, `section ${one.name}, ${one.bars[0]}–${one.bars[1]}`, one.bars] as const,
    ),
    ...changes.map(
      (one, index) =>
        [`c${index}`, `${chordText(one.from)} to ${chordText(one.to)}, bar ${one.bar}`, one.bars] as const,
    ),
    ['any', 'a loop of bars', bars ?? [1, Math.min(2, count)]],
  ];
  let value: string;
  if (bars === null) value = 'whole';
  else if (picked !== null && choices.some(([key, , at]) => key === picked && at && is(at))) value = picked;
  else value = choices.find(([key, , at]) => key.startsWith('s') && at && is(at))?.[0] ?? 'any';
  const commit = () => {
    const found = /^\s*(\d{1,3})(?:\s*[-–]\s*(\d{1,3}))?\s*$/.exec(text ?? '');
    if (found) {
      const from = Math.max(1, Math.min(count, Number(found[1])));
      set({ bars: [from, Math.max(from, Math.min(count, Number(found[2] ?? found[1])))] });
    }
    setText(null);
  };
  return (
    <>
      <ChoiceSetting
        name="Bars"
        value={value}
        choices={choices.map(([key, words]) => [key, words] as const)}
        onChange={(one) => {
          setPicked(one);
          set({ bars: present(choices.find(([key]) => key === one))[2] });
        }}
      />
      {value === 'any' && bars && (
        <Setting name="Loop bars">
          <input
            className="field w-28 !py-1 font-[620] text-ink"
            aria-label="Loop bars"
            value={text ?? `${bars[0]}–${bars[1]}`}
            onChange={(event) => setText(event.target.value)}
            onBlur={commit}
            onKeyDown={(event) => {
              if (event.key === 'Enter') commit();
            }}
          />
        </Setting>
      )}
    </>
  );
}

const CLICK_WORDS: Record<ClickBeats, string> = {
  off: 'in the count-in only',
  every: 'on every beat',
  'two-and-four': 'on two and four',
  one: 'once a bar',
};

function Band({ settings, set, chartId }: PartProps & { chartId: string }) {
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

/** What the screen shows and does while the hands are on the guitar. */
function Hands() {
  const { help, afterTake, position } = usePreferences();
  return (
    <div className="mt-3 border-t border-line pt-2">
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
      className={`mt-3 border-t pt-2.5 ${over ? 'border-now bg-row' : 'border-line'}`}
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
      <button type="button" className="quiet mt-2 !py-1 text-ink" onClick={onStandIn}>
        Let the stand-in player play
      </button>
      <span className="ml-3 text-sm text-dim">a whole take in a few seconds</span>
    </div>
  );
}
