import type { APIRequestContext } from '@playwright/test';
import { readChart } from '@/core/chart';
import { improvise, perform } from '@/core/band';
import { transcribe, type Transcription } from '@/core/transcribe';
import { unwrap } from '@/core/shared';
import { checksumOf } from '@/server/checksum';
import { toPcm16 } from '@/audio/pcm';
import { expect, makeChart, SHORT_CHART } from './browser';

export const RATE = 22_050;

/** A finished take, made over the API as the browser makes one. @param heard changes what was heard in it */
export async function makeTake(
  request: APIRequestContext,
  baseURL: string,
  heard: (transcription: Transcription) => Transcription = (one) => one,
  seed = 4,
  chartText = SHORT_CHART,
): Promise<string> {
  const chartId = await makeChart(request, baseURL, chartText);
  const headers = { origin: baseURL };
  const notes = improvise({
    chart: unwrap(readChart(chartText)),
    tempo: 180,
    choruses: 3,
    plan: { id: 'scale-per-chord' },
    seed,
  });
  const samples = perform({ notes, tempo: 180, rate: RATE, seed });
  const begun = await request.post('/api/takes', {
    headers,
    data: {
      chartId,
      tempo: 180,
      choruses: 3,
      plan: { id: 'scale-per-chord' },
      rate: RATE,
      source: 'stand-in',
    },
  });
  const { id } = (await begun.json()) as { id: string };
  const pcm = toPcm16(samples);
  for (let at = 0, sequence = 0; at < pcm.length; at += 2 * RATE, sequence++) {
    const chunk = Buffer.from(pcm.subarray(at, at + 2 * RATE));
    expect(
      (
        await request.put(`/api/takes/${id}/chunks/${sequence}`, {
          headers: {
            ...headers,
            'x-checksum': checksumOf(chunk),
            'content-type': 'application/octet-stream',
          },
          data: chunk,
        })
      ).status(),
    ).toBe(200);
  }
  const finished = await request.post(`/api/takes/${id}/finish`, {
    headers,
    data: { frames: samples.length, offsetSec: 0, transcription: heard(transcribe(samples, RATE)) },
  });
  expect(finished.status()).toBe(200);
  return id;
}
