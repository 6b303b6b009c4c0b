'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { readChart } from '@/core/chart';
import { certain } from '@/core/vocabulary';
import { planFromWords, type PlanWords } from '@/core/plan';
import { discardTake } from '@/audio/takeStore';
import { TakeSession, type SessionState } from '@/audio/takeSession';
import { Shell } from '../shell/Shell';
import { FormPreview } from './FormPreview';
import { Interrupted, type InterruptedTake } from './Interrupted';
import { Live } from './Live';
import { listenToPedal } from './pedal';
import { defaultSettings, Setup, type RecordChart, type Settings } from './Setup';
import { useBring } from './useBring';
import { Working } from './Working';

type Props = { charts: readonly RecordChart[]; chartId: string; plan?: PlanWords | null; interrupted: readonly InterruptedTake[] };

/** From choosing to playing to the review: setup, stage, and what can go wrong on the way. */
export function RecordScreen({ charts, chartId, plan = null, interrupted }: Props) {
  const router = useRouter();
  const [settings, setSettings] = useState<Settings>(() => defaultSettings(charts, chartId, plan));
  const [session, setSession] = useState<TakeSession | null>(null);
  const state = useSessionState(session);
  const chart = useMemo(() => certain(readChart(charts.find((one) => one.id === settings.chartId)!.text)), [charts, settings.chartId]);
  const choice = useMemo(() => certain(planFromWords(settings.plan)), [settings.plan]);
  const open = useCallback((takeId: string, note = '') => router.push(`/takes/${takeId}${note}`), [router]);
  const bring = useBring(settings, chart, open);
  const start = useCallback(() => {
    const next = new TakeSession({ ...settings, chartText: chart.text, seed: 1 });
    setSession(next);
    void next.start();
  }, [settings, chart]);
  useEffect(() => {
    if (state.phase === 'done') open(state.takeId, state.cut ? '?cut=1' : '');
  }, [state, open]);
  // a tab that goes away mid-take leaves what was sent, to be offered again; the lock goes with it
  useEffect(() => () => { if (session?.state.phase === 'running') void session.stop(false); }, [session]);
  const running = state.phase === 'running';
  const ready = (state.phase === 'idle' || state.phase === 'failed') && bring.state.phase !== 'working';
  useEffect(() => listenToPedal({
    press: () => { if (running) void session?.stop(false); else if (ready) start(); },
    hold: () => { if (running) void session?.discard(); },
  }), [running, ready, session, start]);
  const side = <span className="hidden sm:inline">{chart.title} · {settings.tempo} · {settings.choruses} {settings.choruses === 1 ? 'chorus' : 'choruses'}</span>;
  if (session && (running || state.phase === 'opening' || state.phase === 'finishing')) return <Live session={session} state={state} chart={chart} settings={settings} side={side} />;
  if (bring.state.phase === 'working') return <Working work={bring.state} onCancel={bring.cancel} />;
  if (session && state.phase === 'silent')
    return <Silent onKeep={() => open(state.takeId)} onThrow={() => void discardTake(state.takeId).then(() => setSession(null))} />;
  const trouble = state.phase === 'failed' ? state.message : bring.state.phase === 'failed' ? bring.state.message : null;
  return (
    <Shell place="Record" side={side} footer={<><span><kbd className="key">Space</kbd> or pedal: count me in</span><span className="sm:ml-auto">Start with the output low; headphones keep the band out of the microphone.</span></>}>
      <Interrupted takes={interrupted} onDone={open} />
      <Setup charts={charts} settings={settings} onChange={setSettings} onStart={start} onFile={bring.file} onStandIn={bring.standIn} trouble={trouble} />
      <div className="mx-4 pb-8 sm:mx-8"><FormPreview chart={chart} tempo={settings.tempo} plan={choice} /></div>
    </Shell>
  );
}

const IDLE: SessionState = { phase: 'idle' };
const nothing = () => () => undefined;
function useSessionState(session: TakeSession | null): SessionState {
  return useSyncExternalStore(session?.subscribe ?? nothing, session?.getState ?? (() => IDLE), () => IDLE);
}

function Silent({ onKeep, onThrow }: { onKeep: () => void; onThrow: () => void }) {
  return (
    <Shell place="Record">
      <div className="mx-4 mt-24 sm:mx-8" role="alert">
        <p className="text-[64px] leading-[72px] font-[620] tracking-tight text-soft">Nothing came in.<br /><b className="text-ink">No note was heard in this take.</b></p>
        <p className="mt-6 max-w-3xl text-2xl leading-9 text-soft">Look at the volume on the guitar, the lead and the gain, and at which input is chosen. The take can be thrown away or kept as it is.</p>
        <p className="mt-8 flex gap-4"><button type="button" className="go" onClick={onThrow}>Throw it away, try again</button><button type="button" className="quiet" onClick={onKeep}>Keep it</button></p>
      </div>
    </Shell>
  );
}
