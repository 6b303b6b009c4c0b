import { arrange, improvise, perform, renderBand } from '@/core/band';
import { beatsPerBar, readChart, timelineOf } from '@/core/chart';
import { readScale } from '@/core/music';
import { beatsToSeconds, certain } from '@/core/vocabulary';
import type { StudioRequest } from './studioProtocol';

/** Seconds that are kept after the last bar, for what rings. */
export const TAIL_SECONDS = 0.8;

/** The studio worker without its thread. The band starts with its count-in; a solo with its lead of silence. */
export function playStudio(request: StudioRequest): Float32Array {
  const { tempo, choruses, rate, seed } = request;
  const chart = certain(readChart(request.chartText));
  if (request.type === 'band') {
    const { countInBars, mix } = request;
    const events = arrange({ chart, tempo, choruses, seed, countInBars });
    return renderBand({
      events, tempo, rate, leadSeconds: beatsToSeconds(countInBars * beatsPerBar(chart.meter), tempo),
      seconds: beatsToSeconds(timelineOf(chart, tempo).formBeats * choruses, tempo) + TAIL_SECONDS, ...(mix ? { mix } : {}),
    });
  }
  const home = request.home === undefined ? undefined : certain(readScale(request.home));
  const notes = improvise({ chart, tempo, choruses, seed, plan: { id: request.planId, home }, ...(request.profile ? { profile: request.profile } : {}) });
  return perform({ notes, tempo, rate, seed, leadSeconds: request.leadSeconds, tailSeconds: TAIL_SECONDS });
}
