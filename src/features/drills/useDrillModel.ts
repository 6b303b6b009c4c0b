'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import type { LadderTry } from '@/core/scheduling';
import { elementAt } from '@/core/shared';
import type { StoredDrill, StoredRun } from '@/server/drillRows';
import { prefer } from '../shell/preferences';
import { useRest } from '../shell/useRest';
import { useRigState } from '../shell/useRig';
import { changeDrill, takeUp } from './drillServer';
import { attemptIn, sceneOf, troubleIn } from './drillScene';
import { stageOf } from './drillView';
import { useSitting } from './useSitting';

export type NextDrill = { readonly id: string; readonly name: string; readonly title: string };
export type DrillProps = {
  drill: StoredDrill;
  runs: readonly StoredRun[];
  /** What is due after this one. */ next: NextDrill | null;
  /** First and last attempt that can be heard. */ ends: readonly [string, string] | null;
  /** Begins at once: it was chosen on another screen by the key that starts it. */ begins?: boolean;
};

const LOWEST_TEMPO = 40;
const SLOWER_BY = 0.9;

/** A drill with its sitting, and what the player can do with it. */
export function useDrillModel({ drill: first, runs, next, begins = false }: DrillProps) {
  const router = useRouter();
  const { drill, setDrill, standIn, setStandIn, sitting, state, rig } = useSitting(first);
  const [failed, setFailed] = useState<string | null>(null);
  const { ladder } = drill;
  const tempo = elementAt(ladder.rungs, ladder.at);
  const stage = useMemo(() => stageOf(drill.drill, tempo), [drill.drill, tempo]);
  const { before, counted } = state;
  const scene = sceneOf(state);
  const tries: readonly LadderTry[] = useMemo(
    () => [...runs, ...[...before, ...counted].map(({ outcome }) => outcome.run)],
    [runs, before, counted],
  );
  const start = () => void sitting.start();
  useBeginning(begins, start);
  const report = (error: Error) => setFailed(error.message);
  const comeInBy = (device: Parameters<typeof prefer>[0]['device']) => {
    if (device) prefer({ device });
    start();
  };
  return {
    drill,
    next,
    standIn,
    setStandIn,
    sitting,
    state,
    scene,
    /** The take of the attempt that waits, runs or is being counted. */
    session: attemptIn(state),
    rig,
    rigState: useRigState(rig),
    rest: useRest(scene === 'live'),
    tempo,
    stage,
    tries,
    trouble: troubleIn(state) ?? failed ?? (scene === 'counting' ? 'Counting what was met.' : null),
    /** The latest attempt of this sitting. */
    last: counted[counted.length - 1]?.outcome ?? null,
    start,
    change: (body: Parameters<typeof changeDrill>[1]) => {
      setFailed(null);
      void changeDrill(drill.id, body).then(setDrill).catch(report);
    },
    /** One rung up or down; below the lowest one, a tenth slower. */
    toTempo: (by: 1 | -1) => {
      const below = Math.max(LOWEST_TEMPO, Math.round(tempo * SLOWER_BY));
      const wanted = ladder.rungs[ladder.at + by] ?? (by < 0 ? below : null);
      if (wanted === null) return;
      void changeDrill(drill.id, { tempo: wanted })
        .then((changed) => {
          setDrill(changed);
          sitting.again();
        })
        .catch(report);
    },
    /** The same drill in another key, so many half steps up. */
    toKey: (by: number) =>
      void takeUp({ drillId: drill.id, by })
        .then(({ id }) => router.push(`/drills/${id}`))
        .catch(report),
    openNext: () => router.push(next ? `/drills/${next.id}?go=1` : '/'),
    leave: () => router.push('/'),
    comeInByDevice: (deviceId: string) => comeInBy({ kind: 'input', deviceId, channel: 'mix' }),
    letStandInPlay: () => comeInBy({ kind: 'stand-in', character: 'steady', delayMs: 0 }),
  };
}
export type DrillModel = ReturnType<typeof useDrillModel>;

const AFTER_DRAWING_MS = 30;

/** Begins by itself where it was chosen by a key on another screen. */
function useBeginning(begins: boolean, start: () => void): void {
  const [begin] = useState(() => start);
  useEffect(() => {
    // a page that was loaded anew has no key that was pressed: sound would stay silent
    if (!begins || !navigator.userActivation?.hasBeenActive) return;
    const timer = setTimeout(begin, AFTER_DRAWING_MS);
    window.history.replaceState(null, '', window.location.pathname);
    return () => clearTimeout(timer);
  }, [begins, begin]);
}
