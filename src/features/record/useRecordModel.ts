'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { Route } from '@/core/chart';
import type { PlanWords } from '@/core/plan';
import { present } from '@/core/shared';
import { backing } from '@/audio/band/backings';
import { AudioInput, type AudioInputState } from '@/audio/input/audioInput';
import type { DeviceChoice } from '@/audio/input/device';
import { RecordingResources } from '@/audio/recordingResources';
import { scoreOf, TakeSession, type SessionState } from '@/audio/takeSession';
import { prefer, preferences, usePreferences } from '../shell/preferences';
import { sayTrashed } from '../shell/trash';
import { useRest } from '../shell/useRest';
import { useRigState } from '../shell/useRig';
import { useSession } from '../shell/useSession';
import { useResult, type Result } from './Finished';
import { RecordFlow } from './flow';
import { useCatchUp, useTakeElsewhere, type InterruptedTake } from './Interrupted';
import {
  defaultSettings,
  loopedSettings,
  routeFor,
  takeSettings,
  type RecordChart,
  type Settings,
} from './settings';
import { useBring } from './useBring';
import { type FlowState } from './flowState';

export type RecordProps = {
  charts: readonly RecordChart[];
  chartId: string;
  plan?: PlanWords | null;
  interrupted: readonly InterruptedTake[];
};

/** All that the scenes of Record and its commands work with. */
export type RecordModel = {
  readonly charts: readonly RecordChart[];
  readonly chart: RecordChart;
  readonly settings: Settings;
  readonly setSettings: (change: Settings | ((now: Settings) => Settings)) => void;
  readonly route: Route | null;
  readonly flow: RecordFlow;
  readonly state: FlowState;
  /** What the running take does. */
  readonly running: SessionState;
  readonly rig: AudioInput;
  readonly rigState: AudioInputState;
  readonly result: Result | null;
  readonly rest: ReturnType<typeof useRest>;
  readonly bring: ReturnType<typeof useBring>;
  /** A take that was cut off and waits to be decided on. */
  readonly cut: InterruptedTake | null;
  readonly decide: (id: string, isDecided: boolean) => void;
  /** Counts a take in with the settings as they stand. */
  readonly start: () => void;
  /** Round and round the two bars the result names; null where it names none. */
  readonly loop: (() => void) | null;
  readonly comeInBy: (device: DeviceChoice) => void;
  readonly letStandInPlay: () => void;
  readonly chooseChannel: (channel: number | 'mix') => void;
  /** Opens the review of a take. */
  readonly open: (id: string) => void;
  /** A take came back out of the trash. */
  readonly back: (take: { id: string; state: string }) => void;
};

export function useRecordModel({ charts, chartId, plan = null, interrupted }: RecordProps): RecordModel {
  const router = useRouter();
  const [settings, setSettings] = useState<Settings>(() => defaultSettings(charts, chartId, plan));
  const open = useCallback((id: string, note = '') => router.push(`/takes/${id}${note}`), [router]);
  const back = useCallback(
    (take: { id: string; state: string }) => (take.state === 'ready' ? open(take.id) : router.refresh()),
    [open, router],
  );
  const { resources, rig, flow } = useRecordingResources(open, back);
  const state = useSyncExternalStore(flow.subscribe, flow.getState, flow.getState);
  const running = useSession(state.session);
  const result = useResult(state.finished);
  const chart = present(charts.find((one) => one.id === settings.chartId));
  const route = useMemo(() => {
    const worked = routeFor(settings, chart.text);
    return worked.ok ? worked.value : null;
  }, [settings, chart.text]);
  const bring = useBring(settings, chart, route, open);
  useCatchUp(useCallback(() => router.refresh(), [router]));
  useWarmBand(resources, settings, chart, state.scene === 'setup');
  useMix(state.session);
  const start = useStart(charts, flow);
  const isIdle = state.scene === 'setup' && bring.state.phase === 'idle';
  const comeInBy = (device: DeviceChoice) => {
    prefer({ device });
    void start(settings);
  };
  return {
    charts,
    chart,
    settings,
    setSettings,
    route,
    flow,
    state,
    running,
    rig,
    rigState: useRigState(rig),
    result,
    rest: useRest(running.phase === 'running'),
    bring,
    ...useCutOff(interrupted, isIdle),
    start: () => void start(settings),
    loop: loopOf(result, settings, (looped) => {
      setSettings(looped);
      void start(looped);
    }),
    comeInBy,
    letStandInPlay: () => comeInBy(standInDevice()),
    chooseChannel: (channel) => {
      const { device } = preferences();
      if (device.kind !== 'input') return;
      prefer({ device: { ...device, channel } });
      void rig.open({ ...device, channel });
    },
    open,
    back,
  };
}

function standInDevice(): DeviceChoice {
  const { device } = preferences();
  const character = device.kind === 'stand-in' ? device.character : 'steady';
  return { kind: 'stand-in', character, delayMs: 0 };
}

/** Counts a take in with the settings that are given; what is wrong with them is said. */
function useStart(charts: readonly RecordChart[], flow: RecordFlow): (wanted: Settings) => Promise<void> {
  return useCallback(
    async (wanted) => {
      const chart = present(charts.find((one) => one.id === wanted.chartId));
      const made = takeSettings(wanted, chart, preferences(), flow.nextSeed());
      if (!made.ok) {
        const [{ message, suggestion }] = made.problems;
        return flow.say(suggestion ? `${message} Try: ${suggestion}` : message);
      }
      const own = wanted.backingId === null ? null : await backing(wanted.backingId).catch(() => null);
      await flow.start(own ? { ...made.value, backing: own } : made.value);
    },
    [charts, flow],
  );
}

function loopOf(
  result: Result | null,
  settings: Settings,
  start: (looped: Settings) => void,
): (() => void) | null {
  const bars = result?.loop;
  return bars ? () => start(loopedSettings(settings, bars)) : null;
}

/** A take that was cut off, unless it has been decided on or runs in another tab. */
function useCutOff(
  interrupted: readonly InterruptedTake[],
  isIdle: boolean,
): Pick<RecordModel, 'cut' | 'decide'> {
  const [decided, setDecided] = useState<readonly string[]>([]);
  const elsewhere = useTakeElsewhere();
  const isShown = isIdle && elsewhere === false;
  return {
    cut: isShown ? (interrupted.find(({ id }) => !decided.includes(id)) ?? null) : null,
    decide: (id, isDecided) =>
      setDecided((now) => (isDecided ? [...now, id] : now.filter((other) => other !== id))),
  };
}

/** The running take sounds as the player has set the band. */
function useMix(session: TakeSession | null): void {
  const { bandLevel, levels } = usePreferences();
  useEffect(() => {
    session?.setBandLevel(bandLevel);
    session?.setLevels(levels);
  }, [session, bandLevel, levels]);
}

/**
 * What recording needs for this visit: the input stays open from take to take, and everything is let go when
 * the screen is left.
 */
function useRecordingResources(
  open: (id: string, note?: string) => void,
  back: (take: { id: string; state: string }) => void,
): { resources: RecordingResources; rig: AudioInput; flow: RecordFlow } {
  const [{ resources, flow }] = useState(() => {
    const made = new RecordingResources(new AudioInput());
    return { resources: made, flow: flowOver(made, open, back) };
  });
  useEffect(() => {
    flow.enter();
    return () => {
      flow.leave();
      resources.close();
    };
  }, [resources, flow]);
  return { resources, rig: resources.input, flow };
}

const flowOver = (
  resources: RecordingResources,
  open: (id: string, note?: string) => void,
  back: (take: { id: string; state: string }) => void,
): RecordFlow =>
  new RecordFlow({
    openInput: async () => {
      const { device, outputId } = preferences();
      const opened = await resources.input.open(device);
      if (opened && outputId !== null) await resources.input.speakThrough(outputId).catch(() => false);
      return opened;
    },
    makeSession: (settings) => new TakeSession(settings, resources),
    afterTake: () => preferences().afterTake,
    review: (id, cut) => open(id, cut ? '?cut=1' : ''),
    trashed: (id) => sayTrashed(id, back),
  });

const SETTLED_MS = 400;

/** While the player still chooses, the band is made ready for what is chosen. */
function useWarmBand(
  resources: RecordingResources,
  settings: Settings,
  chart: RecordChart,
  isOn: boolean,
): void {
  useEffect(() => {
    if (!isOn) return;
    const timer = setTimeout(() => {
      const made = takeSettings(settings, chart, preferences(), 1);
      const route = routeFor(settings, chart.text);
      if (!made.ok || !route.ok) return;
      // where it fails it is tried again, and said, when the take begins
      void resources.warm(scoreOf(made.value, route.value)).catch(() => undefined);
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [resources, settings, chart, isOn]);
}
