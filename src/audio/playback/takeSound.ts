import type { Pace } from '@/core/chart';
import type { Beats, Seconds } from '@/core/shared';
import { renderOffline } from '../workers';
import type { PlayerSource } from './takePlayer';

export type TakeToHear = {
  readonly id: string;
  readonly chartText: string;
  readonly tempo: number;
  readonly pace: Pace;
  readonly choruses: number;
  readonly offsetSec: Seconds;
  readonly soundGone: boolean;
  readonly endBeat: Beats;
};

/**
 * A take's sound from the server, or its notes plucked; the band as it accompanies such a form, made when it
 * is first asked for.
 */
export function sourceOf({
  id,
  chartText,
  tempo,
  pace,
  choruses,
  offsetSec,
  soundGone,
  endBeat,
}: TakeToHear): PlayerSource {
  const asked = { chartText, tempo, choruses, seed: 1 };
  return {
    pace,
    offsetSec,
    endBeat,
    plucked: soundGone,
    take: async (context, notes) => {
      if (soundGone)
        return renderOffline({
          ...asked,
          type: 'line',
          notes,
          pace,
          leadSeconds: offsetSec,
          rate: context.sampleRate,
        });
      const answer = await fetch(`/api/takes/${id}/audio`);
      if (!answer.ok) throw new Error('no sound');
      return (await context.decodeAudioData(await answer.arrayBuffer())).getChannelData(0);
    },
    band: async (rate) => {
      const band = await renderOffline({ ...asked, type: 'band', countInBars: 0, pace, rate });
      // the band's bar 1 was heard at the take's beat 0
      const lead = Math.round(offsetSec * rate);
      const placed = new Float32Array(Math.max(0, band.length + lead));
      placed.set(lead >= 0 ? band : band.subarray(-lead), Math.max(0, lead));
      return placed;
    },
  };
}
