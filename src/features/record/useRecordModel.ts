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
import { endedIn, runningIn, Sitting, type SittingPolicy, type SittingState } from '@/audio/sitting';
import { TakeSession } from '@/audio/takeSession';
import { scoreOf, type TakeSettings } from '@/audio/takeSettings';
import type { SessionState } from '@/audio/sessionState';
import { prefer, preferences, usePreferences } from '../shell/preferences';
import { changeChannel, openPreferred } from '../shell/openPreferred';
import { sayTrashed } from '../shell/trash';
import { useRest } from '../shell/useRest';
import { useRigState } from '../shell/useRig';
import { useSession } from '../shell/useSession';
import { useResult, type Result } from './Finished';
import { useCatchUp, useTakeElsewhere, type InterruptedTake } from './Interrupted';
import { rememberLast } from './favourites';
import {
  defaultSettings,
  loopedSettings,
  routeFor,
  takeSettings,
  type RecordChart,
  type Settings,
} from './settings';
import { useBring } from './useBring';

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
  readonly sitting: Sitting;
  readonly state: SittingState;
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
  const { resources, rig, sitting, nextSeed } = useRecordingResources(open, back);
  const state = useSyncExternalStore(sitting.subscribe, sitting.getState, sitting.getState);
  const session = runningIn(state);
  const running = useSession(session);
  const result = useResult(endedIn(state));
  const chart = present(charts.find((one) => one.id === settings.chartId));
  const route = useMemo(() => {
    const worked = routeFor(settings, chart.text);
    return worked.ok ? worked.value : null;
  }, [settings, chart.text]);
  const bring = useBring(settings, chart, route, open);
  useCatchUp(useCallback(() => router.refresh(), [router]));
  const isReady = state.view.scene === 'ready';
  useWarmBand(resources, settings, chart, isReady);
  useMix(session);
  const start = useStart(charts, sitting, nextSeed);
  const isIdle = isReady && bring.state.phase === 'idle';
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
    sitting,
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
    chooseChannel: (channel) => changeChannel(rig, channel),
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
function useStart(
  charts: readonly RecordChart[],
  sitting: Sitting,
  nextSeed: () => number,
): (wanted: Settings) => Promise<void> {
  return useCallback(
    async (wanted) => {
      const chart = present(charts.find((one) => one.id === wanted.chartId));
      const made = takeSettings(wanted, chart, preferences(), nextSeed());
      if (!made.ok) {
        const [{ message, suggestion }] = made.problems;
        return sitting.say(suggestion ? `${message} Try: ${suggestion}` : message);
      }
      const { bandLevel, levels, chords } = preferences();
      rememberLast({ settings: wanted, band: { bandLevel, levels, chords } });
      const own = wanted.backingId === null ? null : await backing(wanted.backingId).catch(() => null);
      await sitting.start(own ? { ...made.value, backing: own } : made.value);
    },
    [charts, sitting, nextSeed],
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

/** A result stands alone for a moment, then the next count-in begins behind it. */
const TAKES: SittingPolicy = { resultAloneMs: 700, resultStays: true, counts: false };

type VisitResources = {
  readonly resources: RecordingResources;
  readonly sitting: Sitting;
  /** Another band for every take. */
  readonly nextSeed: () => number;
};

/**
 * What recording needs for this visit: the input stays open from take to take, and everything is let go when
 * the screen is left.
 */
function useRecordingResources(
  open: (id: string, note?: string) => void,
  back: (take: { id: string; state: string }) => void,
): VisitResources & { rig: AudioInput } {
  const [made] = useState(() => resourcesOfVisit(open, back));
  const { resources, sitting } = made;
  useEffect(() => {
    sitting.enter();
    return () => {
      sitting.leave();
      resources.close();
    };
  }, [resources, sitting]);
  return { ...made, rig: resources.input };
}

function resourcesOfVisit(
  open: (id: string, note?: string) => void,
  back: (take: { id: string; state: string }) => void,
): VisitResources {
  const resources = new RecordingResources(new AudioInput());
  let seed = 0;
  const nextSeed = () => ++seed;
  const sitting = new Sitting(TAKES, {
    openInput: () => openPreferred(resources),
    makeSession: (settings) => new TakeSession(settings, resources),
    nextSettings: (last: TakeSettings | null) => ({ ...present(last), seed: nextSeed() }),
    rolls: () => preferences().afterTake === 'roll',
    over: (id, kept, cut) => {
      if (kept && preferences().afterTake === 'review') open(id, cut ? '?cut=1' : '');
    },
    trashed: (id) => sayTrashed(id, back),
  });
  return { resources, sitting, nextSeed };
}

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
