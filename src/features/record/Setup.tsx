'use client';
import Link from 'next/link';
import { useRef, useState, type ReactNode } from 'react';
import { readChart } from '@/core/chart';
import { PLANS, PLAN_IDS, type PlanId, type PlanWords } from '@/core/plan';

export type RecordChart = { readonly id: string; readonly title: string; readonly text: string };
export type Settings = {
  readonly chartId: string; readonly tempo: number; readonly choruses: number; readonly countInBars: number; readonly bandLevel: number;
  readonly plan: PlanWords;
};

const tempoOf = (chart: RecordChart | undefined): number => {
  const read = chart ? readChart(chart.text) : null;
  return read?.ok ? (read.value.tempo ?? 100) : 100;
};

export const defaultSettings = (charts: readonly RecordChart[], chartId: string, plan: PlanWords | null): Settings => ({
  chartId, tempo: tempoOf(charts.find((chart) => chart.id === chartId)), choruses: 2, countInBars: 1, bandLevel: 0.7, plan: plan ?? { id: 'scale-per-chord' },
});

type Props = {
  charts: readonly RecordChart[]; settings: Settings; onChange: (settings: Settings) => void; onStart: () => void;
  onFile: (file: File, barOneAt: number) => void; onStandIn: () => void; trouble: string | null;
};

/** Before the count-in: what is played over, how, and the three ways to come in. */
export function Setup({ charts, settings, onChange, onStart, onFile, onStandIn, trouble }: Props) {
  const set = (change: Partial<Settings>) => onChange({ ...settings, ...change });
  const chart = charts.find((one) => one.id === settings.chartId);
  return (
    <div className="mx-4 grid gap-x-16 gap-y-10 pt-4 pb-6 sm:mx-8 lg:grid-cols-[minmax(0,1fr)_400px]">
      <section aria-label="Take">
        <p className="text-xl text-soft">Next take over</p>
        <h1 className="text-[64px] leading-[72px] font-[640] tracking-tight">{chart?.title}</h1>
        {trouble && <p role="alert" className="mt-4 max-w-[720px] border-l-[3px] border-now py-1 pl-4 text-xl leading-8 text-ink">{trouble}</p>}
        <div className="mt-6 grid max-w-[760px] grid-cols-2 gap-x-8 gap-y-5 sm:grid-cols-4">
          <Labelled name="Chart" className="col-span-2">
            <select className="field w-full" value={settings.chartId} onChange={(event) => set({ chartId: event.target.value, tempo: tempoOf(charts.find((one) => one.id === event.target.value)) })}>
              {charts.map((one) => <option key={one.id} value={one.id}>{one.title}</option>)}
            </select>
          </Labelled>
          <Labelled name="Judged by" className="col-span-2">
            <select className="field w-full" value={settings.plan.id} onChange={(event) => set({ plan: { id: event.target.value as PlanId } })}>
              {PLAN_IDS.map((id) => <option key={id} value={id}>{PLANS[id].name}</option>)}
            </select>
          </Labelled>
          <NumberField name="Tempo" value={settings.tempo} low={40} high={320} onChange={(tempo) => set({ tempo })} />
          <NumberField name="Choruses" value={settings.choruses} low={1} high={12} onChange={(choruses) => set({ choruses })} />
          <NumberField name="Count-in bars" value={settings.countInBars} low={1} high={2} onChange={(countInBars) => set({ countInBars })} />
          <Labelled name={`Band ${Math.round(settings.bandLevel * 100)} %`}>
            <input type="range" min={0} max={1} step={0.05} value={settings.bandLevel} onChange={(event) => set({ bandLevel: Number(event.target.value) })} className="w-full accent-(--now)" />
          </Labelled>
        </div>
        <p className="mt-4 max-w-[760px] text-dim">{PLANS[settings.plan.id].why}{settings.plan.parts && ` ${settings.plan.parts.length === 1 ? 'One part' : `${settings.plan.parts.length} parts`} of the form by another school.`} <Link className="text-soft underline hover:text-ink" href={`/study/${settings.chartId}?plan=${encodeURIComponent(JSON.stringify(settings.plan))}`}>Study it first</Link></p>
        <button type="button" className="go mt-6 flex items-center gap-4 text-2xl" onClick={onStart}>Count me in <span className="text-base font-[560]">Space</span></button>
      </section>
      <section aria-label="Other ways in" className="lg:pt-8">
        <h2 className="heading">Other ways in</h2>
        <BringRecording onFile={onFile} />
        <div className="border-t border-line py-4">
          <button type="button" className="quiet text-lg text-ink" onClick={onStandIn}>Let the stand-in player play</button>
          <p className="mt-2 text-soft">It improvises over the same form by the same plan, to see what a review holds.</p>
        </div>
      </section>
    </div>
  );
}

function Labelled({ name, className = '', children }: { name: string; className?: string; children: ReactNode }) {
  return <label className={`block ${className}`}><span className="mb-1 block text-sm text-dim">{name}</span>{children}</label>;
}

function NumberField({ name, value, low, high, onChange }: { name: string; value: number; low: number; high: number; onChange: (value: number) => void }) {
  const [text, setText] = useState<string | null>(null);
  const commit = () => {
    const number = Math.round(Number(text));
    if (text !== null && text.trim() !== '' && Number.isFinite(number)) onChange(Math.max(low, Math.min(high, number)));
    setText(null);
  };
  return (
    <Labelled name={name}>
      <input className="field w-full text-xl" inputMode="numeric" value={text ?? String(value)} onChange={(event) => setText(event.target.value)} onBlur={commit}
        onKeyDown={(event) => { if (event.key === 'Enter') commit(); }} />
    </Labelled>
  );
}

/** A WAV by choosing or dropping, and where its bar 1 begins. */
function BringRecording({ onFile }: { onFile: (file: File, barOneAt: number) => void }) {
  const [barOne, setBarOne] = useState('0');
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const take = (file: File | undefined) => { if (file) onFile(file, Number.isFinite(Number(barOne)) ? Number(barOne) : 0); };
  return (
    <div className={`border-t py-4 ${over ? 'border-now bg-row' : 'border-line'}`} onDragOver={(event) => { event.preventDefault(); setOver(true); }} onDragLeave={() => setOver(false)}
      onDrop={(event) => { event.preventDefault(); setOver(false); take(event.dataTransfer.files[0]); }}>
      <button type="button" className="quiet text-lg text-ink" onClick={() => input.current?.click()}>Bring a recording</button>
      <input ref={input} type="file" accept=".wav,audio/wav" className="sr-only" aria-label="Recording" tabIndex={-1} onChange={(event) => { take(event.target.files?.[0]); event.target.value = ''; }} />
      <p className="mt-2 text-soft">A WAV file, chosen or dropped here. It is judged like a take.</p>
      <label className="mt-3 flex items-center gap-3 text-soft">Bar 1 begins at <input className="field w-24" inputMode="decimal" value={barOne} onChange={(event) => setBarOne(event.target.value)} /> s</label>
    </div>
  );
}
