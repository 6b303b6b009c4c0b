'use client';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { beatAt, readChart, timelineOf } from '@/core/chart';
import { planFromWords } from '@/core/plan';
import { elementAt, unwrap } from '@/core/shared';
import { useCommands } from '../shell/commands/useCommands';
import { everyFrame } from '../shell/useSession';
import { useWakeLock } from '../shell/useWakeLock';
import Link from 'next/link';
import { Stage } from './Stage';
import { listenToStage, pressFromHere, type HeardStage } from './stageEvents';
import type { RunningStage } from '@/server/stageHub';

/** The stage of a take that runs on another device, and a pedal for it. */
export function SecondScreen() {
  useWakeLock();
  const [heard, setHeard] = useState<HeardStage | null>(null);
  const [isAway, setAway] = useState(false);
  useEffect(() => listenToStage({ onStage: setHeard, onAway: setAway }), []);
  const does = heard?.stage.does ?? null;
  const canPress = does !== null && !isAway;
  useCommands({ 'second.press': { when: canPress, run: pressFromHere, label: does ?? '' } });
  const running = isAway ? null : heard?.stage.running;
  return (
    <div className="flex min-h-dvh flex-col pt-4">
      <main className="flex grow flex-col">
        {running && heard ? (
          <Running running={running} zeroAt={heard.zeroAt} />
        ) : (
          <Nothing isAway={isAway} isReady={does !== null} />
        )}
      </main>
      <footer className="sticky bottom-0 border-t border-line bg-panel px-4 py-2 sm:px-8">
        <button
          type="button"
          disabled={!canPress}
          onClick={pressFromHere}
          className="go min-h-14 w-full text-xl disabled:opacity-50"
        >
          {does ?? 'Nothing to press'}
        </button>
      </footer>
    </div>
  );
}

function Nothing({ isAway, isReady }: { isAway: boolean; isReady: boolean }) {
  return (
    <div className="mx-4 mt-10 sm:mx-8" role="status">
      <h1 className="text-[40px] leading-[48px] font-[640] tracking-tight sm:text-[64px] sm:leading-[72px]">
        {nothingWords(isAway, isReady)}
      </h1>
      <p className="mt-3 text-2xl leading-8 text-soft">
        {isReady
          ? 'The stage appears here as soon as the take begins. The button below is its pedal.'
          : 'Open Record on the computer that your guitar is plugged into. This screen follows the take, and is its pedal.'}
      </p>
      <p className="mt-6 text-soft">
        <Link href="/" className="underline hover:text-ink">
          To the other screens
        </Link>
      </p>
    </div>
  );
}

function nothingWords(isAway: boolean, isReady: boolean): string {
  if (isAway) return 'The computer is away.';
  return isReady ? 'Ready.' : 'No take is running.';
}

function Running({ running, zeroAt }: { running: RunningStage; zeroAt: number }) {
  const { chartText, choruses, pace, plan: words, help, position } = running;
  const chart = useMemo(() => unwrap(readChart(chartText)), [chartText]);
  const planKey = JSON.stringify(words);
  const plan = useMemo(() => unwrap(planFromWords(JSON.parse(planKey) as RunningStage['plan'])), [planKey]);
  const tempi = pace.tempi.join(' ');
  const now = useMemo(() => {
    const walk = { passBeats: pace.passBeats, tempi: tempi.split(' ').map(Number) };
    return () => beatAt(walk, (Date.now() - zeroAt) / 1_000);
  }, [pace.passBeats, tempi, zeroAt]);
  const [beat, setBeat] = useState(() => Math.floor(now()));
  useEffect(() => everyFrame(() => setBeat(Math.floor(now() + 1e-3))), [now]);
  const last = timelineOf(chart, elementAt(pace.tempi, 0)).formBeats * choruses - 0.001;
  return (
    <Stage
      chart={chart}
      tempo={elementAt(pace.tempi, 0)}
      choruses={choruses}
      plan={plan}
      beat={Math.min(last, beat + 1e-3)}
      follow={useCallback(
        (draw: (at: number) => void) => everyFrame(() => draw(Math.min(last, now()))),
        [now, last],
      )}
      help={help}
      position={position}
    />
  );
}
