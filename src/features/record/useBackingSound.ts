'use client';
import { LIMITS } from '@/core/contracts';
import { useCallback, useEffect, useRef, useState } from 'react';
import { clickSound, tappedPulse } from '@/core/align';
import { elementAt, present } from '@/core/shared';
import { decoded } from '@/audio/band/backings';
import { pulseIn } from '@/audio/workers';

type Sound = { readonly context: AudioContext; readonly samples: Float32Array; readonly bytes: ArrayBuffer };
type Pulse = NonNullable<Awaited<ReturnType<typeof pulseIn>>>;

const TEMPO_STEP = 0.01;
const TIME_STEP = 0.001;
const CLICK_GAIN = 0.25;
const DOWNBEAT_GAIN = 0.5;
const SURE = 0.35;

const rounded = (value: number, to: number): number => Math.round(value / to) * to;
const inLimits = (tempo: number): number =>
  rounded(Math.max(LIMITS.tempo[0], Math.min(LIMITS.tempo[1], tempo)), TEMPO_STEP);

function foundWords(pulse: Pulse | null): string {
  if (!pulse) return 'No pulse was heard. Tap along from bar 1.';
  const doubt = pulse.certainty < SURE ? ', not surely' : '';
  const heard = `Heard: ${pulse.tempo.toFixed(1)} beats a minute${doubt}.`;
  return `${heard} Hear it with clicks; tap along where they do not fit.`;
}

/** Adds a click to every beat from bar 1 on, the first of four louder. */
function addClicks(out: Float32Array, rate: number, tempo: number, barOneSec: number): void {
  const click = clickSound(rate);
  const secondsABeat = 60 / tempo;
  for (let beat = 0; barOneSec + beat * secondsABeat < out.length / rate; beat++) {
    const at = Math.round((barOneSec + beat * secondsABeat) * rate);
    const gain = beat % 4 === 0 ? DOWNBEAT_GAIN : CLICK_GAIN;
    for (let n = Math.max(0, -at); n < click.length && at + n < out.length; n++)
      out[at + n] = elementAt(out, at + n) + elementAt(click, n) * gain;
  }
}

/** A backing of the player's own: its tempo and bar 1 as the machine found them, heard, tapped and corrected. */
export function useBackingSound(file: File) {
  const [taps, setTaps] = useState<readonly number[]>([]);
  const [heard, setHeard] = useState(false);
  const playing = useRef<{ stop: () => void; began: number; from: number } | null>(null);
  const { state, tempo, barOne, found, sound, setTempo, setBarOne } = useOpened(file);
  useEffect(() => () => playing.current?.stop(), [file]);
  const stop = () => {
    playing.current?.stop();
    playing.current = null;
    setHeard(false);
  };
  const play = (from: number, withClicks: boolean) => {
    stop();
    const { context, samples } = present(sound.current);
    void context.resume();
    const buffer = context.createBuffer(1, samples.length, context.sampleRate);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    if (withClicks) addClicks(buffer.getChannelData(0), context.sampleRate, tempo, barOne);
    const source = new AudioBufferSourceNode(context, { buffer });
    source.connect(new GainNode(context, { gain: 0.5 })).connect(context.destination);
    const began = context.currentTime + 0.05;
    source.start(began, from);
    playing.current = { stop: () => source.stop(), began, from };
    setHeard(true);
  };
  const tap = useCallback(() => {
    const now = playing.current;
    const context = sound.current?.context;
    if (!now || !context) return;
    const at = now.from + context.currentTime - now.began - (context.outputLatency || 0);
    setTaps((before) => {
      const all = [...before, at];
      const pulse = tappedPulse(all);
      if (pulse) {
        setTempo(inLimits(pulse.tempo));
        setBarOne(rounded(Math.max(0, pulse.firstSec), TIME_STEP));
      }
      return all;
    });
  }, [sound, setTempo, setBarOne]);
  return {
    state,
    tempo,
    barOne,
    found,
    taps,
    heard,
    setTempo,
    setBarOne,
    stop,
    tap,
    /** Plays from a second before bar 1, with clicks on the beats. */
    playWithClicks: () => play(Math.max(0, barOne - 1), true),
    /** Plays from the beginning, to be tapped along with. */
    playForTaps: () => {
      setTaps([]);
      play(0, false);
    },
    timesTempo: (by: number) => setTempo((now) => inLimits(now * by)),
    moveBarOne: (seconds: number) => setBarOne((at) => rounded(Math.max(0, at + seconds), TIME_STEP)),
    bytes: () => present(sound.current).bytes,
  };
}
export type BackingSound = ReturnType<typeof useBackingSound>;

/** The file decoded, with the tempo and bar 1 that the machine heard in it. */
function useOpened(file: File) {
  const [state, setState] = useState<'reading' | 'ready' | 'refused'>('reading');
  const [tempo, setTempo] = useState(100);
  const [barOne, setBarOne] = useState(0);
  const [found, setFound] = useState('');
  const sound = useRef<Sound | null>(null);
  useEffect(() => {
    const control = new AbortController();
    const context = new AudioContext();
    void (async () => {
      try {
        const bytes = await file.arrayBuffer();
        const samples = await decoded(bytes, context);
        sound.current = { context, samples, bytes };
        const pulse = await pulseIn(samples, context.sampleRate, control.signal);
        if (control.signal.aborted) return;
        if (pulse) {
          setTempo(rounded(pulse.tempo, TEMPO_STEP));
          setBarOne(rounded(pulse.firstSec, TIME_STEP));
        }
        setFound(foundWords(pulse));
        setState('ready');
      } catch {
        if (!control.signal.aborted) setState('refused');
      }
    })();
    return () => {
      control.abort();
      void context.close();
    };
  }, [file]);
  return { state, tempo, barOne, found, sound, setTempo, setBarOne };
}
