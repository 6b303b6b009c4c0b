'use client';
import { useEffect, useState, type ReactNode } from 'react';
import type { Chart } from '@/core/chart';
import { readScale } from '@/core/music';
import { certain } from '@/core/vocabulary';
import type { SessionState, TakeSession } from '@/audio/takeSession';
import { Shell } from '../shell/Shell';
import type { Settings } from './Setup';
import { Stage } from './Stage';

type Props = { session: TakeSession; state: SessionState; chart: Chart; settings: Settings; side: ReactNode };

/** The stage while a take runs, following the audio clock frame by frame. */
export function Live({ session, state, chart, settings, side }: Props) {
  const now = useFrames(session);
  const { id, home } = settings.plan;
  const plan = { id, home: home === undefined ? undefined : certain(readScale(home)) };
  const waits = state.phase === 'opening' || state.phase === 'finishing' ? state.what : null;
  const quiet = state.phase === 'running' && now.beat > 4 && now.highest < -60;
  return (
    <Shell place="Record" side={side} footer={
      <>
        <button type="button" aria-label="Stop and keep the take" onClick={() => void session.stop(false)}><StopSign /></button>
        <b className="text-ink" role="status">{waits ?? 'Recording'}</b>
        <span><kbd className="key">Space</kbd> or pedal stops and opens the review; hold throws the take away</span>
        <span className="ml-auto flex items-center gap-2.5">input <LevelBar level={now.level} /> <span className="w-20 text-right">{now.level <= -100 ? 'silent' : `${now.level.toFixed(0).replace('-', '−')} dBFS`}</span></span>
        <span className="hidden sm:inline">Latency {Math.round(session.latency * 1000)} ms, by the browser</span>
        {now.waiting > 3 && <span role="status" className="text-ink">{now.waiting} s wait to be sent; recording goes on</span>}
      </>
    }>
      {quiet && <p role="alert" className="mx-4 border-l-[3px] border-now pl-4 text-xl text-ink sm:mx-8">Nothing comes in. Look at the volume, the lead and the chosen input; the take can still be stopped.</p>}
      <Stage chart={chart} tempo={settings.tempo} choruses={settings.choruses} plan={plan} beat={Math.min(now.beat, session.endBeat - 0.001)} />
    </Shell>
  );
}

type Frame = { beat: number; level: number; highest: number; waiting: number };
const readFrame = (session: TakeSession): Frame => ({ beat: session.position(), level: session.level, highest: session.highest, waiting: session.waiting });

function useFrames(session: TakeSession): Frame {
  const [frame, setFrame] = useState<Frame>(() => readFrame(session));
  useEffect(() => {
    let id = 0;
    const tick = () => {
      setFrame(readFrame(session));
      id = requestAnimationFrame(tick);
    };
    id = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(id);
  }, [session]);
  return frame;
}

function LevelBar({ level }: { level: number }) {
  const share = Math.max(0, Math.min(1, (level + 60) / 60));
  return (
    <svg width={120} height={8} role="img" aria-label={`Input level ${level.toFixed(0)} dBFS`}>
      <rect width={120} height={8} fill="var(--line)" />
      <rect width={120 * share} height={8} fill={level > -1 ? 'var(--now)' : 'var(--h1)'} />
    </svg>
  );
}

const StopSign = () => (
  <svg width={32} height={32} aria-hidden="true"><circle cx={16} cy={16} r={15} fill="none" stroke="var(--now)" strokeWidth={2} /><path d="M11 11h10v10h-10z" fill="var(--now)" /></svg>
);
