'use client';
import { useCallback, useEffect, useMemo, useState, type ReactNode } from 'react';
import type { Chart } from '@/core/chart';
import { planFromWords } from '@/core/plan';
import { certain } from '@/core/vocabulary';
import type { SessionState, TakeSession } from '@/audio/takeSession';
import { Shell } from '../shell/Shell';
import type { Settings } from './Setup';
import { Stage } from './Stage';
import { useLiveLine } from './useLiveLine';

type Props = { session: TakeSession; state: SessionState; chart: Chart; settings: Settings; side: ReactNode };

/** The stage while a take runs. Drawn anew once a beat, its meter ten times a second, only the cursor for every frame. */
export function Live({ session, state, chart, settings, side }: Props) {
  const beat = useBeat(session);
  const plan = useMemo(() => certain(planFromWords(settings.plan)), [settings.plan]);
  const follow = useCallback((draw: (beat: number) => void) => everyFrame(() => draw(Math.min(session.position(), session.endBeat - 0.001))), [session]);
  const line = useLiveLine(session, chart, settings.tempo, plan);
  const waits = state.phase === 'opening' || state.phase === 'finishing' ? state.what : null;
  return (
    <Shell place="Record" side={side} footer={
      <>
        <button type="button" aria-label="Stop and keep the take" onClick={() => void session.stop(false)}><StopSign /></button>
        <b className="text-ink" role="status">{waits ?? 'Recording'}</b>
        <span><kbd className="key">Space</kbd> or pedal stops and opens the review; hold throws the take away</span>
        <Meter session={session} />
        <Latency session={session} />
      </>
    }>
      {state.phase === 'running' && beat > 4 && session.highest < -60 && (
        <p role="alert" className="mx-4 border-l-[3px] border-now pl-4 text-xl text-ink sm:mx-8">Nothing comes in. Look at the volume, the lead and the chosen input; the take can still be stopped.</p>
      )}
      <Stage chart={chart} tempo={settings.tempo} choruses={settings.choruses} plan={plan} beat={Math.min(beat, session.endBeat - 0.001)} follow={follow} line={line} />
    </Shell>
  );
}

/** Calls for every frame the browser draws, until told to stop. */
function everyFrame(work: () => void): () => void {
  let id = requestAnimationFrame(function tick() {
    work();
    id = requestAnimationFrame(tick);
  });
  return () => cancelAnimationFrame(id);
}

/** The beat the take is in, from the audio clock; a change of beat is a change of state, a change of place in it is none. */
function useBeat(session: TakeSession): number {
  const [beat, setBeat] = useState(() => Math.floor(session.position()));
  useEffect(() => everyFrame(() => setBeat(Math.floor(session.position() + 1e-3))), [session]);
  return beat + 1e-3;
}

const METER_MS = 100;

function Meter({ session }: { session: TakeSession }) {
  const [{ level, waiting }, setRead] = useState({ level: session.level, waiting: 0 });
  useEffect(() => {
    const timer = setInterval(() => setRead({ level: Math.round(session.level), waiting: session.waiting }), METER_MS);
    return () => clearInterval(timer);
  }, [session]);
  return (
    <>
      <span className="ml-auto flex items-center gap-2.5">input <LevelBar level={level} /> <span className="w-20 text-right">{level <= -100 ? 'silent' : `${String(level).replace('-', '−')} dBFS`}</span></span>
      {waiting > 3 && <span role="status" className="text-ink">{waiting} s wait to be sent; recording goes on</span>}
    </>
  );
}

const LATENCY_MS = 500;

/** What the browser says of its own delay, and, for whoever asks, how long after its sound 19 notes of 20 were drawn. */
function Latency({ session }: { session: TakeSession }) {
  const [drawn, setDrawn] = useState<number | null>(null);
  useEffect(() => {
    const timer = setInterval(() => {
      const sorted = [...session.drawnAfter].sort((a, b) => a - b);
      setDrawn(sorted.length < 5 ? null : Math.round(sorted[Math.floor(0.95 * (sorted.length - 1))]! * 1000));
    }, LATENCY_MS);
    return () => clearInterval(timer);
  }, [session]);
  const words = drawn === null ? undefined : `19 notes of 20 are drawn within ${drawn} ms of their sound`;
  return <span className="hidden sm:inline" title={words} data-drawn-ms={drawn ?? undefined}>Latency {Math.round(session.latency * 1000)} ms, by the browser</span>;
}

function LevelBar({ level }: { level: number }) {
  const share = Math.max(0, Math.min(1, (level + 60) / 60));
  return (
    <svg width={120} height={8} role="img" aria-label="Input level">
      <rect width={120} height={8} fill="var(--line)" />
      <rect width={120 * share} height={8} fill={level > -1 ? 'var(--now)' : 'var(--h1)'} />
    </svg>
  );
}

const StopSign = () => (
  <svg width={32} height={32} aria-hidden="true"><circle cx={16} cy={16} r={15} fill="none" stroke="var(--now)" strokeWidth={2} /><path d="M11 11h10v10h-10z" fill="var(--now)" /></svg>
);
