'use client';
import { useCallback, useRef, useState } from 'react';
import { meanTempo, type Route } from '@/core/chart';
import { decoded } from '@/audio/band/backings';
import { storeTake, ServerRefusal, type NewTake } from '@/audio/persistence/serverTakes';
import { hearFile, renderOffline, type HeardFile } from '@/audio/workers';
import { writeWav } from '@/core/formats';
import type { DeviceChoice } from '@/audio/input/device';
import type { StandInCharacter } from '@/core/band';
import { preferences } from '../shell/preferences';
import { tourNow } from '../shell/tour/tourState';
import type { RecordChart, Settings } from './settings';
import type { Work } from './Working';
import { elementAt } from '@/core/shared';

export type BringState =
  | { readonly phase: 'idle' }
  | ({ readonly phase: 'working' } & Work)
  | { readonly phase: 'failed'; readonly message: string };

const MOST_BYTES = 600 * 1024 * 1024;
const RATE = 44_100;
const STAND_IN_LEAD = 0.5;

/**
 * The other ways in: a recording, or the stand-in player. Both go through the same ears as a microphone take.
 */
export function useBring(
  settings: Settings,
  chart: RecordChart,
  route: Route | null,
  onDone: (takeId: string) => void,
) {
  const { plan } = settings;
  const [state, setState] = useState<BringState>({ phase: 'idle' });
  const abort = useRef<AbortController | null>(null);
  const run = useCallback(
    async (title: string, source: NewTake['source'], offsetSec: number, samplesOf: SamplesOf) => {
      const control = new AbortController();
      abort.current = control;
      const show: Show = (what, share) => setState({ phase: 'working', title, what, share });
      show('Reading', null);
      try {
        const { samples, rate, transcription } = await samplesOf(control.signal, show);
        if (transcription.notes.length === 0) throw new ServerRefusal(NOTHING_HEARD);
        show('Keeping it', null);
        if (!route) return;
        const take = { ...takeOver(chart, route), plan, rate, bits: 24 as const, source };
        const id = await storeTake(take, samples, offsetSec, transcription);
        if (!control.signal.aborted) onDone(id);
      } catch (error) {
        if (error instanceof DOMException && error.name === 'AbortError') setState({ phase: 'idle' });
        else setState({ phase: 'failed', message: sentenceOf(error) });
      }
    },
    [plan, chart, route, onDone],
  );
  const file = useCallback(
    (chosen: File, barOneAt: number) => {
      if (chosen.size > MOST_BYTES) return setState({ phase: 'failed', message: tooLarge(chosen.size) });
      void run(chosen.name, 'file', barOneAt, async (signal, show) => {
        const bytes = await wavOf(await chosen.arrayBuffer());
        return hearFile(bytes, (share) => show('Listening', share), signal);
      });
    },
    [run],
  );
  const standIn = useCallback(
    () => void run('The stand-in player', 'stand-in', STAND_IN_LEAD, standInTake(route, plan)),
    [run, plan, route],
  );
  const cancel = useCallback(() => {
    abort.current?.abort();
    setState({ phase: 'idle' });
  }, []);
  return { state, file, standIn, cancel };
}

type Show = (what: string, share: number | null) => void;
type SamplesOf = (signal: AbortSignal, show: Show) => Promise<HeardFile>;

const NOTHING_HEARD = {
  code: 'silent',
  message: 'No note was heard in this recording: it is silent, or holds no clear pitch.',
  suggestion: 'Choose another one.',
};

const megabytes = (bytes: number): number => Math.round(bytes / 1024 / 1024);
const tooLarge = (bytes: number): string =>
  `This file holds ${megabytes(bytes)} MB; a take may hold ${megabytes(MOST_BYTES)}. Cut it into takes.`;

/** What a take over this route is, whatever played it. */
const takeOver = (chart: RecordChart, { pace, choruses, text }: Route) => ({
  chartId: chart.id,
  chartText: text,
  title: chart.title,
  tempo: Math.round(meanTempo(pace) * 100) / 100,
  choruses,
  ...(pace.tempi.length > 1 && { pace }),
});

/** A solo of the beginner over the tour's blues that leaves something to practise, by any of the usual plans. */
export const TOUR_SEED = 3;

/** Who stands in: as chosen; on the tour a beginner, whose review has something to practise. */
function characterOf(device: DeviceChoice): StandInCharacter {
  if (tourNow()) return 'beginner';
  return device.kind === 'stand-in' ? device.character : 'steady';
}

/** The stand-in player's take over a route, made and then heard like any other. */
const standInTake =
  (route: Route | null, plan: Settings['plan']): SamplesOf =>
  async (signal, show) => {
    show('Playing over the form', null);
    if (!route) throw new DOMException('nothing to play', 'AbortError');
    const { text, choruses, pace } = route;
    const { device } = preferences();
    const samples = await renderOffline(
      {
        type: 'solo',
        chartText: text,
        tempo: elementAt(pace.tempi, 0),
        pace,
        choruses,
        rate: RATE,
        seed: tourNow() ? TOUR_SEED : Math.floor(Math.random() * 1e6),
        plan,
        character: characterOf(device),
        leadSeconds: STAND_IN_LEAD,
      },
      signal,
    );
    const wav = writeWav([samples], RATE).buffer as ArrayBuffer;
    return hearFile(wav, (share) => show('Listening', share), signal);
  };

/**
 * A file that is no WAV is read by the browser's own decoder; what that cannot read is told by the WAV reader.
 */
async function wavOf(bytes: ArrayBuffer): Promise<ArrayBuffer> {
  if (new TextDecoder('latin1').decode(bytes.slice(0, 4)) === 'RIFF') return bytes;
  try {
    return writeWav([await decoded(bytes, new OfflineAudioContext(1, 1, RATE))], RATE).buffer as ArrayBuffer;
  } catch {
    return bytes;
  }
}

function sentenceOf(error: unknown): string {
  if (error instanceof ServerRefusal)
    return [error.problem.message, error.problem.suggestion].filter(Boolean).join(' ');
  return error instanceof TypeError
    ? 'The server does not answer. Start it again, then try once more: nothing was kept.'
    : 'This could not be done; nothing was kept.';
}
