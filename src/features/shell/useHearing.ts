'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { renderOffline } from '@/audio/workers';
import type { OfflineRequest } from '@/workers/offlineRendererProtocol';
import { present } from '@/core/shared';

export type HearingState = {
  readonly id: string | null;
  readonly phase: 'silent' | 'preparing' | 'sounding';
  /** Beats since what is heard began. */ readonly beat: number;
  readonly trouble: string | null;
};

const SILENT: HearingState = { id: null, phase: 'silent', beat: 0, trouble: null };
const MOST_KEPT = 12;

/**
 * Lets something be heard on a key: made in a worker, kept for the next time, stopped by asking for it again.
 * `request` gives the sample rate's request; the same id is the same sound.
 */
export function useHearing() {
  const [state, setState] = useState<HearingState>(SILENT);
  const context = useRef<AudioContext | null>(null);
  const source = useRef<AudioBufferSourceNode | null>(null);
  const kept = useRef(new Map<string, AudioBuffer>());
  const asked = useRef<AbortController | null>(null);
  const timer = useRef<ReturnType<typeof setInterval> | null>(null);
  const current = useRef<string | null>(null);

  const stop = useCallback(() => {
    asked.current?.abort();
    source.current?.stop();
    source.current = null;
    if (timer.current) clearInterval(timer.current);
    current.current = null;
    setState(SILENT);
  }, []);

  const hear = useCallback(
    async (id: string, request: (rate: number) => OfflineRequest, countIn = 0) => {
      const again = current.current === id;
      stop();
      if (again) return;
      current.current = id;
      const control = new AbortController();
      asked.current = control;
      try {
        const audio = (context.current ??= new AudioContext());
        await audio.resume();
        let buffer = kept.current.get(id);
        if (!buffer) {
          setState({ id, phase: 'preparing', beat: 0, trouble: null });
          const made = await renderOffline(request(audio.sampleRate), control.signal);
          // loaded with the first sound
          const { levelled } = await import('@/core/sound');
          const samples = levelled(made, audio.sampleRate);
          buffer = audio.createBuffer(1, Math.max(1, samples.length), audio.sampleRate);
          buffer.getChannelData(0).set(samples);
          if (kept.current.size >= MOST_KEPT) kept.current.delete(present(kept.current.keys().next().value));
          kept.current.set(id, buffer);
        }
        if (control.signal.aborted) return;
        const { tempo } = request(audio.sampleRate);
        const node = new AudioBufferSourceNode(audio, { buffer });
        node.connect(audio.destination);
        const start = audio.currentTime + 0.05;
        node.start(start);
        source.current = node;
        const beatNow = () =>
          Math.max(0, ((audio.currentTime - start - (audio.outputLatency || 0)) * tempo) / 60 - countIn);
        node.onended = () => {
          if (source.current === node) stop();
        };
        setState({ id, phase: 'sounding', beat: 0, trouble: null });
        timer.current = setInterval(
          () => setState((before) => (before.id === id ? { ...before, beat: beatNow() } : before)),
          60,
        );
      } catch (error) {
        if (error instanceof DOMException && error.name === 'AbortError') return;
        current.current = null;
        setState({ ...SILENT, trouble: 'This could not be played. Try again.' });
      }
    },
    [stop],
  );

  useEffect(
    () => () => {
      stop();
      void context.current?.close();
    },
    [stop],
  );
  return { state, hear, stop };
}
