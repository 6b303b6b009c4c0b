'use client';
import { useEffect, useRef, useState } from 'react';
import { steadyPitch } from '@/core/sound';
import { scalePow } from 'd3-scale';
import { stringName, type Tuning } from '@/core/neck';
import { hzToMidi, median, midiToHz, elementAt, present } from '@/core/shared';
import type { AudioInput } from '@/audio/input/audioInput';

export type TunerReading = {
  readonly string: number;
  readonly midi: number;
  readonly hz: number;
  readonly cents: number;
};

/** A string counts as in tune within this. */
const IN_TUNE = 2;
const WINDOW_SECONDS = 0.19;
const READ_EVERY_MS = 60;
/** Readings that are taken together: one wild one moves nothing. */
const TOGETHER = 3;
const LASTS_MS = 1_200;

/**
 * The string a frequency is nearest to, and how far off it is. @param tuning open strings from the highest
 * down, as MIDI numbers
 */
export function nearestString(hz: number, tuning: Tuning, a4: number): TunerReading {
  const midi = hzToMidi(hz, a4);
  const nearest = tuning.reduce(
    (best, open, index) => (Math.abs(open - midi) < Math.abs(elementAt(tuning, best) - midi) ? index : best),
    0,
  );
  return {
    string: nearest + 1,
    midi: elementAt(tuning, nearest),
    hz,
    cents: (midi - elementAt(tuning, nearest)) * 100,
  };
}

/** Listens to the rig's input as a tuner does. Null while nothing steady sounds. */
export function useTuner(rig: AudioInput, tuning: Tuning, a4: number, on: boolean): TunerReading | null {
  const [reading, setReading] = useState<TunerReading | null>(null);
  const past = useRef<number[]>([]);
  useEffect(() => {
    if (!on) return;
    let held = new Float32Array(0);
    let heardAt = 0;
    let readAt = 0;
    const stop = rig.hear(({ samples }) => {
      const rate = rig.context?.sampleRate ?? 44_100;
      const size = Math.round(WINDOW_SECONDS * rate);
      const joined = new Float32Array(held.length + samples.length);
      joined.set(held);
      joined.set(samples, held.length);
      held = joined.subarray(Math.max(0, joined.length - size));
      const now = performance.now();
      if (held.length < size || now - readAt < READ_EVERY_MS) return;
      readAt = now;
      const found = steadyPitch(held, rate);
      if (found && found.clarity > 0.85) {
        heardAt = now;
        past.current = [...past.current, found.hz].slice(-TOGETHER);
        const hz = present(median(past.current));
        setReading(nearestString(hz, tuning, a4));
      } else if (now - heardAt > LASTS_MS) {
        past.current = [];
        setReading(null);
      }
    });
    return () => {
      stop();
      past.current = [];
      setReading(null);
    };
  }, [rig, tuning, a4, on]);
  return reading;
}

const WIDTH = 384;
const SPAN = 50;

/**
 * Which string, how far off, and a needle over half a semitone either way: finer near the middle, where it
 * matters.
 */
export function TunerView({ reading, tuning, a4 }: TunerProps) {
  const [seen, setSeen] = useState<Readonly<Record<number, number>>>({});
  const key = reading ? `${reading.string} ${Math.round(reading.cents)}` : '';
  const [lastKey, setLastKey] = useState('');
  if (reading && key !== lastKey) {
    setLastKey(key);
    setSeen({ ...seen, [reading.string]: Math.round(reading.cents) });
  }
  const strings = tuning.map((midi, index) => ({ midi, string: index + 1 })).reverse();
  return (
    <div>
      <TunerWords reading={reading} a4={a4} />
      <TunerScale reading={reading} />
      <ol className="mt-1 flex justify-between pr-1" aria-label="Strings, low to high">
        {strings.map(({ midi, string }) => (
          <li key={string} className="w-12 leading-6">
            <span className={`text-[20px] font-[620] ${stringClass(reading, string, seen)}`}>
              {stringName(midi)}
            </span>
            <br />
            <span className="text-[15px] text-dim">{centsWords(seen, string)}</span>
          </li>
        ))}
      </ol>
    </div>
  );
}

type TunerProps = { reading: TunerReading | null; tuning: Tuning; a4: number };
const isInTune = (reading: TunerReading): boolean => Math.abs(reading.cents) <= IN_TUNE;

function offWords(reading: TunerReading): string {
  if (isInTune(reading)) return 'in tune';
  const off = Math.abs(reading.cents);
  return `${off < 10 ? off.toFixed(1) : Math.round(off)} cents ${reading.cents < 0 ? 'flat' : 'sharp'}`;
}

function TunerWords({ reading, a4 }: Omit<TunerProps, 'tuning'>) {
  return (
    <div className="flex min-h-[72px] items-end gap-4" role="status">
      <span className={`text-[64px] leading-[64px] font-[640] ${reading ? 'text-ink' : 'text-line'}`}>
        {reading ? stringName(reading.midi) : '–'}
      </span>
      <p className="pb-1 leading-6 text-soft">
        {reading ? (
          <>
            string {reading.string}, <b className="text-ink">{offWords(reading)}</b>
            <br />
            {reading.hz.toFixed(1)} Hz, wants {midiToHz(reading.midi, a4).toFixed(1)}
          </>
        ) : (
          <>
            Play one open string
            <br />
            and let it ring.
          </>
        )}
      </p>
    </div>
  );
}

const MARKED_CENTS = [-50, -20, -5, 5, 20, 50];
/** Cents across the scale, wide in the middle where tuning is done. */
const x = scalePow([-SPAN, SPAN], [6, WIDTH - 6])
  .exponent(0.5)
  .clamp(true);

function TunerScale({ reading }: Pick<TunerProps, 'reading'>) {
  const tuned = reading !== null && isInTune(reading);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 76`}
      className="mt-2 w-full"
      role="img"
      aria-label={reading ? `${stringName(reading.midi)}, ${reading.cents.toFixed(0)} cents` : 'no pitch'}
    >
      <line x1={0} y1={28} x2={WIDTH} y2={28} stroke="var(--line)" />
      {MARKED_CENTS.map((cents) => (
        <g key={cents}>
          <line x1={x(cents)} y1={20} x2={x(cents)} y2={36} stroke="var(--dim)" />
          <text x={x(cents)} y={64} fontSize={13} textAnchor={anchorOf(cents)} style={{ fill: 'var(--dim)' }}>
            {cents > 0 ? `+${cents}` : `−${-cents}`}
          </text>
        </g>
      ))}
      <line
        x1={WIDTH / 2}
        y1={8}
        x2={WIDTH / 2}
        y2={48}
        stroke={tuned ? 'var(--h0)' : 'var(--soft)'}
        strokeWidth={tuned ? 5 : 2}
      />
      {reading && (
        <line
          x1={x(reading.cents)}
          y1={2}
          x2={x(reading.cents)}
          y2={54}
          stroke="var(--now)"
          strokeWidth={6}
        />
      )}
    </svg>
  );
}

function anchorOf(cents: number) {
  if (cents === -50) return 'start';
  if (cents === 50) return 'end';
  return 'middle';
}

function stringClass(reading: TunerReading | null, string: number, seen: Readonly<Record<number, number>>) {
  if (reading?.string === string) return 'text-now';
  if (seen[string] !== undefined) return 'text-ink';
  return 'text-dim';
}

function centsWords(seen: Readonly<Record<number, number>>, string: number) {
  if (seen[string] === undefined) return '–';
  if (seen[string] > 0) return `+${seen[string]}`;
  return String(seen[string]).replace('-', '−');
}
