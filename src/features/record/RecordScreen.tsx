'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { CLICK_BEATS } from '@/core/band';
import { planFromWords, type PlanWords } from '@/core/plan';
import { unwrap, present, elementAt } from '@/core/shared';
import { backing, type OwnBacking } from '@/audio/band/backings';
import type { DeviceChoice } from '@/audio/input/device';
import { AudioInput } from '@/audio/input/audioInput';
import { RecordingResources } from '@/audio/recordingResources';
import { scoreOf, TakeSession } from '@/audio/takeSession';
import { Cautions } from '../shell/Cautions';
import { prefer, preferences, usePreferences, type Help } from '../shell/preferences';
import { Shell } from '../shell/Shell';
import { sayTrashed } from '../shell/trash';
import { useKeys } from '../shell/useKeys';
import { useRigState } from '../shell/useRig';
import { useSession } from '../shell/useSession';
import type { Keys } from '../shell/pedal';
import { movingChannel } from '../shell/channels';
import { Finished, useResult } from './Finished';
import { RecordFlow } from './flow';
import { FormPreview } from './FormPreview';
import { Interrupted, useCatchUp, useTakeElsewhere, type InterruptedTake } from './Interrupted';
import { Live } from './Live';
import { NoInput } from '../shell/NoInput';
import { defaultSettings, routeFor, takeSettings, type RecordChart, type Settings } from './settings';
import { Setup } from './Setup';
import { Silent } from './Silent';
import { useBring } from './useBring';
import { useRest } from '../shell/useRest';
import { Waiting } from '../shell/Waiting';
import { Working } from './Working';
import type { AudioInputState } from '@/audio/input/audioInput';

type Props = {
  charts: readonly RecordChart[];
  chartId: string;
  plan?: PlanWords | null;
  interrupted: readonly InterruptedTake[];
};

/** From choosing to playing to the result and on to the next take: all of Record. */
export function RecordScreen({ charts, chartId, plan = null, interrupted }: Props) {
  const router = useRouter();
  const prefs = usePreferences();
  const [settings, setSettings] = useState<Settings>(() => defaultSettings(charts, chartId, plan));
  const open = useCallback((id: string, note = '') => router.push(`/takes/${id}${note}`), [router]);
  const back = useCallback(
    (take: { id: string; state: string }) => (take.state === 'ready' ? open(take.id) : router.refresh()),
    [open, router],
  );
  const { resources: resources, rig, flow } = useRecordingResources(open, back);
  const { scene, session, finished, rolling, trouble } = useSyncExternalStore(
    flow.subscribe,
    flow.getState,
    flow.getState,
  );
  const state = useSession(session);
  const rigState = useRigState(rig);
  const result = useResult(finished);
  const [decided, setDecided] = useState<readonly string[]>([]);
  const fileInput = useRef<HTMLInputElement>(null);
  const chart = present(charts.find((one) => one.id === settings.chartId));
  const route = useMemo(() => {
    const worked = routeFor(settings, chart.text);
    return worked.ok ? worked.value : null;
  }, [settings, chart.text]);
  const choice = useMemo(() => unwrap(planFromWords(settings.plan)), [settings.plan]);
  const bring = useBring(settings, chart, route, open);
  useCatchUp(useCallback(() => router.refresh(), [router]));
  const rest = useRest(state.phase === 'running');

  const start = useCallback(
    async (wanted: Settings) => {
      const made = takeSettings(
        wanted,
        present(charts.find((one) => one.id === wanted.chartId)),
        preferences(),
        flow.nextSeed(),
      );
      if (!made.ok)
        return flow.say(
          [made.problems[0].message, made.problems[0].suggestion && `Try: ${made.problems[0].suggestion}`]
            .filter(Boolean)
            .join(' '),
        );
      const own: OwnBacking | null =
        wanted.backingId === null ? null : await backing(wanted.backingId).catch(() => null);
      await flow.start(own ? { ...made.value, backing: own } : made.value);
    },
    [charts, flow],
  );
  const again = () => void start(settings);
  useWarmBand(resources, settings, chart, scene === 'setup');

  const loop = () => {
    if (!result?.loop) return;
    const from = settings.bars?.[0] ?? 1;
    const next: Settings = {
      ...settings,
      bars: [result.loop[0] + from - 1, result.loop[1] + from - 1],
      choruses: Math.max(4, settings.choruses),
      keyStep: 0,
      aloneBars: '',
      aloneChoruses: '',
    };
    setSettings(next);
    void start(next);
  };
  const comeInBy = (device: DeviceChoice) => {
    prefer({ device });
    again();
  };
  const standIn: DeviceChoice = {
    kind: 'stand-in',
    character: prefs.device.kind === 'stand-in' ? prefs.device.character : 'steady',
    delayMs: 0,
  };
  const chooseChannel = (channel: number | 'mix') => {
    const { device } = preferences();
    if (device.kind !== 'input') return;
    prefer({ device: { ...device, channel } });
    void rig.open({ ...device, channel });
  };

  const elsewhere = useTakeElsewhere();
  const cut =
    scene === 'setup' && bring.state.phase === 'idle' && elsewhere === false
      ? (interrupted.find(({ id }) => !decided.includes(id)) ?? null)
      : null;
  const mixKeys: Keys = {
    louder: () => prefer({ bandLevel: Math.min(1, Math.round(preferences().bandLevel * 20 + 1) / 20) }),
    quieter: () => prefer({ bandLevel: Math.max(0, Math.round(preferences().bandLevel * 20 - 1) / 20) }),
    drums: () => toggle('drums'),
    bass: () => toggle('bass'),
    chords: () => toggle('chords'),
    help: () => prefer({ help: ((preferences().help + 1) % 4) as Help }),
    click: () =>
      setSettings((now) => ({
        ...now,
        click: elementAt(CLICK_BEATS, (CLICK_BEATS.indexOf(now.click) + 1) % CLICK_BEATS.length),
      })),
  };
  const keysOf = (): Keys => {
    // a cut-off take has keys of its own
    if (bring.state.phase === 'working' || cut) return {};
    switch (scene) {
      case 'no-input':
        return { press: again, hold: () => flow.back(), double: () => comeInBy(standIn) };
      case 'waiting': {
        const other = movingChannel(rig.levels, rig.channel);
        return {
          press: () => (other === null ? session?.startAllTheSame() : chooseChannel(other)),
          hold: () => void session?.discard(),
          ...(other === null ? {} : { double: () => session?.startAllTheSame() }),
        };
      }
      case 'silent':
        return {
          press: () => {
            flow.throwAway();
            again();
          },
          hold: () => flow.throwAway(),
        };
      case 'finished':
        return {
          press: rolling ? () => flow.stay() : again,
          hold: () => flow.throwAway(),
          discard: () => flow.throwAway(),
          review: () => {
            if (finished?.kept) open(finished.id);
          },
          ...(rolling || !result?.loop ? {} : { double: loop, loop }),
        };
      case 'live':
        if (state.phase === 'running')
          return {
            press: () => void session?.stop(false),
            hold: () => flow.discardRunning(),
            discard: () => flow.discardRunning(),
            ...mixKeys,
          };
        if (state.phase === 'opening')
          return { hold: () => void session?.discard(), discard: () => void session?.discard() };
        return {};
      case 'setup':
        return { press: again, ...mixKeys };
    }
  };
  useKeys(keysOf());
  useEffect(() => {
    session?.setBandLevel(prefs.bandLevel);
    session?.setLevels(prefs.levels);
  }, [session, prefs.bandLevel, prefs.levels]);

  if (bring.state.phase === 'working') return <Working work={bring.state} onCancel={bring.cancel} />;
  if (cut)
    return (
      <Interrupted
        key={cut.id}
        take={cut}
        onKept={open}
        onGone={(id) => setDecided([...decided, id])}
        onBack={(one) => {
          setDecided((now) => now.filter((id) => id !== one.id));
          back(one);
        }}
        onLater={() => setDecided([...decided, cut.id])}
      />
    );
  switch (scene) {
    case 'no-input':
      return (
        <>
          <input
            ref={fileInput}
            type="file"
            accept="audio/*,.wav,.mp3,.flac,.ogg,.m4a"
            className="sr-only"
            tabIndex={-1}
            aria-label="A recording"
            onChange={(event) => {
              const chosen = event.target.files?.[0];
              if (chosen) {
                flow.back();
                bring.file(chosen, 0);
              }
            }}
          />
          <NoInput
            trouble={rigState.phase === 'trouble' ? rigState.trouble : 'busy'}
            title={chart.title}
            onAgain={again}
            onDevice={(deviceId) => comeInBy({ kind: 'input', deviceId, channel: 'mix' })}
            onFile={() => fileInput.current?.click()}
            onStandIn={() => comeInBy(standIn)}
            onBack={() => flow.back()}
          />
        </>
      );
    case 'waiting':
      return (
        <Waiting
          rig={rig}
          title={chart.title}
          onChannel={chooseChannel}
          onStart={() => session?.startAllTheSame()}
          onBack={() => void session?.discard()}
        />
      );
    case 'silent':
      return (
        <Silent
          onKeep={() => {
            if (finished) open(finished.id);
          }}
          onThrow={() => flow.throwAway()}
        />
      );
    case 'finished':
      return (
        <Finished
          take={present(finished)}
          result={result}
          next={rolling ? flow : null}
          again={{ words: 'again from the top', act: again }}
          stay={{ words: 'stay and look', act: () => flow.stay() }}
          discard={{ words: 'throw this take away', act: () => flow.throwAway() }}
          loop={
            result?.loop ? { words: `loop bars ${result.loop[0]} and ${result.loop[1]}`, act: loop } : null
          }
          review={() => {
            if (finished?.kept) open(finished.id);
          }}
          setup={() => flow.back()}
        />
      );
    case 'live':
      if (session)
        return (
          <Live
            session={session}
            state={state}
            settings={settings}
            rig={rig}
            title={chart.title}
            before={result}
          />
        );
  }
  const words = trouble ?? (bring.state.phase === 'failed' ? bring.state.message : inputWords(rigState));
  return (
    <Shell
      place="Record"
      footer={
        <>
          <span>
            <kbd className="key">Space</kbd> or pedal: count me in
          </span>
          <span className="hidden sm:inline">
            <kbd className="key">?</kbd> every key
          </span>
          <span className="sm:ml-auto">
            Start with the output low; headphones keep the band out of the microphone.
          </span>
        </>
      }
    >
      <Cautions rest={rest} />
      <Setup
        charts={charts}
        settings={settings}
        onChange={(next) => {
          flow.say(null);
          setSettings(next);
        }}
        onStart={again}
        rig={rig}
        onFile={bring.file}
        onStandIn={bring.standIn}
        trouble={words}
      />
      {route && (
        <div className="mx-4 pb-8 sm:mx-8">
          <FormPreview chart={route.chart} tempo={settings.tempo} plan={choice} />
        </div>
      )}
    </Shell>
  );
}

const toggle = (part: 'drums' | 'bass' | 'chords') => {
  const { levels } = preferences();
  prefer({ levels: { ...levels, [part]: levels[part] > 0 ? 0 : 1 } });
};

/**
 * The corner of this visit: its rig stays open from take to take, and everything is let go when the screen is
 * left.
 */
function useRecordingResources(
  open: (id: string, note?: string) => void,
  back: (take: { id: string; state: string }) => void,
): { resources: RecordingResources; rig: AudioInput; flow: RecordFlow } {
  const [{ corner, flow }] = useState(() => {
    const made = new RecordingResources(new AudioInput());
    return {
      corner: made,
      flow: new RecordFlow({
        openInput: async () => {
          const { device, outputId } = preferences();
          const opened = await made.input.open(device);
          if (opened && outputId !== null) await made.input.speakThrough(outputId).catch(() => false);
          return opened;
        },
        makeSession: (settings) => new TakeSession(settings, made),
        afterTake: () => preferences().afterTake,
        review: (id, cut) => open(id, cut ? '?cut=1' : ''),
        trashed: (id) => sayTrashed(id, back),
      }),
    };
  });
  useEffect(() => {
    flow.enter();
    return () => {
      flow.leave();
      corner.close();
    };
  }, [corner, flow]);
  return { resources: corner, rig: corner.input, flow };
}

const SETTLED_MS = 400;

/** While the player still chooses, the band is made ready for what is chosen. */
function useWarmBand(
  resources: RecordingResources,
  settings: Settings,
  chart: RecordChart,
  on: boolean,
): void {
  useEffect(() => {
    if (!on) return;
    const timer = setTimeout(() => {
      const made = takeSettings(settings, chart, preferences(), 1);
      const route = routeFor(settings, chart.text);
      if (made.ok && route.ok) void resources.warm(scoreOf(made.value, route.value)).catch(() => undefined); // it is tried again, and said, when the take begins
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [resources, settings, chart, on]);
}

const inputWords = (state: AudioInputState): string | null =>
  state.phase === 'lost'
    ? `${state.label || 'The input'} went away. Plug it in again, or choose another.`
    : null;
