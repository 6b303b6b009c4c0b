'use client';
import { calibrationWords } from '@/presentation';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { AGREEING } from '@/core/align';
import { Calibrator, type CalibrationState } from '@/audio/input/calibrator';
import { keepLatency } from '@/audio/input/latencies';
import type { AudioInput } from '@/audio/input/audioInput';
import { usePreferences } from '../shell/preferences';
import { useRigState } from '../shell/useRig';

const IDLE: CalibrationState = { phase: 'idle' };
const ms = (seconds: number): string => (seconds * 1000).toFixed(1);

/** The round trip of the chosen device: measured, shown click by click, kept for this device. */
export function LatencySection({ rig }: { rig: AudioInput }) {
  const { device } = usePreferences();
  const rigState = useRigState(rig);
  const [calibrator] = useState(() => new Calibrator(rig));
  const state = useSyncExternalStore(calibrator.subscribe, calibrator.getState, () => IDLE);
  useEffect(() => () => calibrator.cancel(), [calibrator]);
  useEffect(() => {
    if (state.phase === 'found' && rig.device) keepLatency(rig.device.key, state.seconds);
  }, [state, rig]);
  const known = rigState.phase === 'open' ? rig.latency : null;
  const isBusy = state.phase === 'clicking' || state.phase === 'clapping';
  const run = async (how: 'click' | 'clap') => {
    if (await rig.open(device)) void calibrator[how]();
  };
  const forget = () => {
    if (rig.device) keepLatency(rig.device.key, null);
    calibrator.cancel();
    void rig.open(device);
  };
  return (
    <>
      <Measured state={state} known={known} isBusy={isBusy} />
      <p className="mt-3 flex flex-wrap gap-2.5">
        {isBusy ? (
          <button type="button" className="quiet text-ink" onClick={() => calibrator.cancel()}>
            Stop, keep the old one
          </button>
        ) : (
          <>
            <button type="button" className="quiet text-ink" onClick={() => void run('click')}>
              Measure with clicks
            </button>
            <button type="button" className="quiet text-ink" onClick={() => void run('clap')}>
              Clap along
            </button>
            {known?.measured && (
              <button type="button" className="quiet" onClick={forget}>
                Forget it
              </button>
            )}
          </>
        )}
      </p>
    </>
  );
}

type Known = AudioInput['latency'] | null;
type MeasuredProps = { state: CalibrationState; known: Known; isBusy: boolean };

function secondsOf(state: CalibrationState, known: Known): number | null {
  if (state.phase === 'found') return state.seconds;
  if (state.phase === 'clicking') return state.latency?.seconds ?? null;
  return known?.seconds ?? null;
}

/** The latency as far as it is known, and how the measurement goes. */
function Measured({ state, known, isBusy }: MeasuredProps) {
  const seconds = secondsOf(state, known);
  const delays = 'delays' in state ? state.delays : [];
  return (
    <>
      <div className="flex items-end gap-4">
        <b className="text-[64px] leading-[64px] font-[640]" data-testid="latency">
          {seconds === null ? '–' : ms(seconds)}
        </b>
        <p role="status" className="pb-1 leading-6 text-soft">
          {words(state, known)}
        </p>
      </div>
      {delays.length > 0 && <Dots delays={delays} middle={seconds} />}
      {state.phase === 'clicking' && <Steps count={delays.length} of={Math.max(16, delays.length + 1)} />}
      {state.phase === 'clapping' && <Steps count={state.count} of={state.of} />}
      <p className="mt-2 leading-6 text-soft">{instruction(isBusy, state, delays)}</p>
    </>
  );
}

function words(state: CalibrationState, known: { seconds: number; measured: boolean } | null) {
  switch (state.phase) {
    case 'clicking':
      return state.latency ? (
        <>
          ms so far; the clicks agree within <b className="text-ink">{ms(state.latency.withinSeconds)} ms</b>
        </>
      ) : (
        'ms; listening for the first click'
      );
    case 'clapping':
      return 'ms; listening to your hands';
    case 'found':
      return state.by === 'clicks' ? (
        <>
          ms, kept for this device; {AGREEING} clicks agree within{' '}
          <b className="text-ink">{ms(state.withinSeconds)} ms</b>
        </>
      ) : (
        <>
          ms by your claps, which lie within <b className="text-ink">{ms(state.withinSeconds)} ms</b>; your
          own lean is in it
        </>
      );
    case 'failed':
      return <span className="text-ink">{calibrationWords(state.reason)}</span>;
    case 'idle':
      if (known === null) return 'Open the input to see what is counted.';
      if (known.measured) return 'ms, measured for this device';
      return 'ms, as the browser says; not measured';
  }
}

const WIDTH = 384;

/** Every click's delay on one axis; the line is their median. */
function Dots({ delays, middle }: { delays: readonly (number | null)[]; middle: number | null }) {
  const found = delays.filter((delay): delay is number => delay !== null).map((delay) => delay * 1000);
  if (found.length === 0) return null;
  const centre = (middle ?? 0) * 1000;
  const half = Math.max(2, ...found.map((delay) => Math.abs(delay - centre))) * 1.15;
  const x = (value: number) =>
    Math.round((((value - centre) / half) * (WIDTH / 2 - 12) + WIDTH / 2) * 10) / 10;
  let step: 2 | 20 | 5 | 1;
  if (half > 40) step = 20;
  else if (half > 12) step = 5;
  else if (half > 5) step = 2;
  else step = 1;
  const ticks = Array.from({ length: 41 }, (_, n) => (Math.round(centre / step) + n - 20) * step).filter(
    (tick) => Math.abs(tick - centre) < half,
  );
  const height = new Map<number, number>();
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 76`}
      className="mt-3 w-full"
      role="img"
      aria-label={`${found.length} clicks heard, at ${Math.min(...found).toFixed(1)} to ${Math.max(...found).toFixed(1)} ms`}
    >
      <line x1={0} y1={46} x2={WIDTH} y2={46} stroke="var(--line)" />
      {ticks.map((tick) => (
        <g key={tick}>
          <line x1={x(tick)} y1={46} x2={x(tick)} y2={52} stroke="var(--dim)" />
          <text x={x(tick)} y={70} fontSize={14} textAnchor="middle" style={{ fill: 'var(--dim)' }}>
            {tick}
          </text>
        </g>
      ))}
      <line x1={WIDTH / 2} y1={4} x2={WIDTH / 2} y2={46} stroke="var(--ink)" strokeWidth={2} />
      {found.map((delay, index) => {
        const place = Math.round(x(delay) / 9);
        const level = height.get(place) ?? 0;
        height.set(place, level + 1);
        return (
          <circle
            key={index}
            cx={x(delay)}
            cy={40 - Math.min(3, level) * 10}
            r={4}
            fill={index === found.length - 1 ? 'var(--h0)' : 'var(--h2)'}
          />
        );
      })}
    </svg>
  );
}

function Steps({ count, of }: { count: number; of: number }) {
  return (
    <div className="mt-2 flex gap-1" aria-hidden="true">
      {Array.from({ length: of }, (_, step) => (
        <i key={step} className={`h-2 flex-1 ${stepClass(step, count)}`} />
      ))}
    </div>
  );
}

function instruction(busy: boolean, state: CalibrationState, delays: readonly (number | null)[]) {
  if (busy && state.phase === 'clicking')
    return (
      <>
        <b className="text-ink">Click {delays.length + 1}.</b> Hold the headphones against the pickup, or the
        microphone; keep the strings still.
      </>
    );
  if (state.phase === 'clapping') {
    if (state.count <= 4)
      return (
        <>
          <b className="text-ink">Listen to four,</b> then clap, or strike muted strings, right with each
          click.
        </>
      );
    return <b className="text-ink">Clap with every click.</b>;
  }
  return 'A cable from output to input, or the loudspeaker into the microphone. With headphones nothing hears: clap along.';
}

function stepClass(step: number, count: number) {
  if (step < count) return 'bg-soft';
  if (step === count) return 'bg-now';
  return 'bg-line';
}
