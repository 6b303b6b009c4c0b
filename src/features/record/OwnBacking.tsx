'use client';
import { Dialog } from 'radix-ui';
import { useCallback, useEffect, useRef, useState } from 'react';
import { clickSound, tappedPulse } from '@/core/align';
import { TEMPO_LIMITS } from '@/core/chart';
import { decoded, keepBacking, listBackings, removeBacking, type BackingName } from '@/audio/band/backings';
import { newTakeId } from '@/audio/persistence/serverTakes';
import { pulseIn } from '@/audio/workers';
import { ChoiceSetting } from '@/ui/Field';
import { present, elementAt } from '@/core/shared';

type Props = { chartId: string; chosen: string | null; onChoose: (backing: BackingName | null) => void };

/** The band, or a backing of the player's own in its place. */
export function OwnBacking({ chartId, chosen, onChoose }: Props) {
  const [own, setOwn] = useState<readonly BackingName[]>([]);
  const [file, setFile] = useState<File | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const look = useCallback(
    () =>
      void listBackings()
        .then((all) => setOwn(all.filter((one) => one.chartId === chartId)))
        .catch(() => setOwn([])),
    [chartId],
  );
  useEffect(look, [look]);
  return (
    <>
      <ChoiceSetting
        name="Played by"
        value={chosen ?? 'band'}
        choices={[
          ['band', 'the band'],
          ...own.map(({ id, name }) => [id, name] as const),
          ['bring', 'a backing of your own …'],
        ]}
        onChange={(one) =>
          one === 'bring' ? input.current?.click() : onChoose(own.find(({ id }) => id === one) ?? null)
        }
      />
      {chosen !== null && (
        <button
          type="button"
          className="ml-[130px] text-sm text-soft underline hover:text-ink"
          onClick={() =>
            void removeBacking(chosen).then(() => {
              onChoose(null);
              look();
            })
          }
        >
          Remove this backing
        </button>
      )}
      <input
        ref={input}
        type="file"
        accept="audio/*,.wav,.mp3,.flac,.ogg,.m4a"
        className="sr-only"
        aria-label="Backing of your own"
        tabIndex={-1}
        onChange={(event) => {
          setFile(event.target.files?.[0] ?? null);
          event.target.value = '';
        }}
      />
      {file && (
        <LineUpBacking
          file={file}
          onClose={() => setFile(null)}
          onUse={(found) => {
            const one = { id: newTakeId(), chartId, name: file.name.slice(0, 80), ...found };
            void keepBacking(one).then(() => {
              setFile(null);
              look();
              onChoose(one);
            });
          }}
        />
      )}
    </>
  );
}

type Found = { readonly tempo: number; readonly barOneSec: number; readonly bytes: ArrayBuffer };
const NUDGE = 0.01;
const round = (value: number, to: number) => Math.round(value / to) * to;

/**
 * Tempo and bar 1 of a backing: found by the machine, heard with clicks, tapped, nudged, and only then used.
 */
function LineUpBacking({
  file,
  onClose,
  onUse,
}: {
  file: File;
  onClose: () => void;
  onUse: (found: Found) => void;
}) {
  const [state, setState] = useState<'reading' | 'ready' | 'refused'>('reading');
  const [tempo, setTempo] = useState(100);
  const [barOne, setBarOne] = useState(0);
  const [found, setFound] = useState<string>('');
  const [taps, setTaps] = useState<readonly number[]>([]);
  const sound = useRef<{ context: AudioContext; samples: Float32Array; bytes: ArrayBuffer } | null>(null);
  const playing = useRef<{ stop: () => void; began: number; from: number } | null>(null);
  const [heard, setHeard] = useState(false);
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
          setTempo(round(pulse.tempo, 0.01));
          setBarOne(round(pulse.firstSec, 0.001));
        }
        setFound(
          pulse
            ? `Heard: ${pulse.tempo.toFixed(1)} beats a minute${pulse.certainty < 0.35 ? ', not surely' : ''}. Hear it with clicks; tap along where they do not fit.`
            : 'No pulse was heard. Tap along from bar 1.',
        );
        setState('ready');
      } catch {
        if (!control.signal.aborted) setState('refused');
      }
    })();
    return () => {
      control.abort();
      playing.current?.stop();
      void context.close();
    };
  }, [file]);

  const stop = () => {
    playing.current?.stop();
    playing.current = null;
    setHeard(false);
  };
  const hear = (from: number, clicks: boolean) => {
    stop();
    const { context, samples } = present(sound.current);
    void context.resume();
    const buffer = context.createBuffer(1, samples.length, context.sampleRate);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    if (clicks) {
      const click = clickSound(context.sampleRate);
      const out = buffer.getChannelData(0);
      for (let beat = 0; barOne + (beat * 60) / tempo < buffer.duration; beat++) {
        const at = Math.round((barOne + (beat * 60) / tempo) * context.sampleRate);
        for (let n = 0; n < click.length && at + n < out.length; n++)
          if (at + n >= 0) out[at + n]! += elementAt(click, n) * (beat % 4 === 0 ? 0.5 : 0.25);
      }
    }
    const source = new AudioBufferSourceNode(context, { buffer });
    const gain = new GainNode(context, { gain: 0.5 });
    source.connect(gain).connect(context.destination);
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
        setTempo(round(Math.max(TEMPO_LIMITS[0], Math.min(TEMPO_LIMITS[1], pulse.tempo)), 0.01));
        setBarOne(round(Math.max(0, pulse.firstSec), 0.001));
      }
      return all;
    });
  }, []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() === 't' && !event.repeat && !(event.target instanceof HTMLInputElement))
        tap();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [tap]);
  const times = (by: number) =>
    setTempo((now) => round(Math.max(TEMPO_LIMITS[0], Math.min(TEMPO_LIMITS[1], now * by)), 0.01));
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/80" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-30 w-[640px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 border-t-[3px] border-now bg-panel p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-[25px] leading-8 font-[640]">{file.name}</Dialog.Title>
          <p role="status" className="mt-1 text-soft">
            {backingWords(state, found)}
          </p>
          {state === 'ready' && (
            <>
              <div className="mt-4 flex flex-wrap gap-x-8 gap-y-3">
                <label className="flex items-center gap-2 text-soft">
                  Tempo{' '}
                  <input
                    className="field w-24"
                    inputMode="decimal"
                    value={tempo}
                    onChange={(event) => setTempo(Number(event.target.value) || tempo)}
                  />
                </label>
                <span className="flex gap-2">
                  {(
                    [
                      ['half', 0.5],
                      ['double', 2],
                      ['two thirds', 2 / 3],
                      ['three halves', 1.5],
                    ] as const
                  ).map(([words, by]) => (
                    <button key={words} type="button" className="quiet !px-2.5" onClick={() => times(by)}>
                      {words}
                    </button>
                  ))}
                </span>
                <label className="flex items-center gap-2 text-soft">
                  Bar 1 at{' '}
                  <input
                    className="field w-24"
                    inputMode="decimal"
                    value={barOne}
                    onChange={(event) => setBarOne(Number(event.target.value) || 0)}
                  />{' '}
                  s
                </label>
                <span className="flex gap-2">
                  <button
                    type="button"
                    className="quiet"
                    onClick={() => setBarOne((at) => round(Math.max(0, at - NUDGE), 0.001))}
                  >
                    10 ms earlier
                  </button>
                  <button
                    type="button"
                    className="quiet"
                    onClick={() => setBarOne((at) => round(at + NUDGE, 0.001))}
                  >
                    later
                  </button>
                  <button
                    type="button"
                    className="quiet"
                    onClick={() => setBarOne((at) => round(at + 60 / tempo, 0.001))}
                  >
                    a beat later
                  </button>
                </span>
              </div>
              <div className="mt-4 flex flex-wrap gap-3">
                {heard ? (
                  <button type="button" className="quiet text-ink" onClick={stop}>
                    Stop
                  </button>
                ) : (
                  <button
                    type="button"
                    className="quiet text-ink"
                    onClick={() => hear(Math.max(0, barOne - 1), true)}
                  >
                    Hear it with clicks
                  </button>
                )}
                <button
                  type="button"
                  className="quiet text-ink"
                  onClick={() => {
                    setTaps([]);
                    hear(0, false);
                  }}
                >
                  Tap along <kbd className="key ml-1">T</kbd>
                </button>
                {heard && (
                  <button type="button" className="quiet text-ink" onPointerDown={tap}>
                    Tap{taps.length > 0 ? `, ${taps.length}` : ''}
                  </button>
                )}
              </div>
              <p className="mt-2 text-sm text-dim">
                The first tap is bar 1; four are enough, more are surer.
              </p>
              <div className="mt-5 flex gap-3">
                <button
                  type="button"
                  className="go"
                  onClick={() => onUse({ tempo, barOneSec: barOne, bytes: present(sound.current).bytes })}
                >
                  Play over it
                </button>
                <Dialog.Close className="quiet">Leave it</Dialog.Close>
              </div>
            </>
          )}
          {state === 'refused' && <Dialog.Close className="quiet mt-4">Choose another</Dialog.Close>}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function backingWords(state: 'refused' | 'reading' | 'ready', found: string) {
  if (state === 'reading') return 'Listening for its tempo and bar 1 …';
  if (state === 'refused') return 'This browser cannot read this file. WAV, MP3, FLAC and OGG usually work.';
  return found;
}
