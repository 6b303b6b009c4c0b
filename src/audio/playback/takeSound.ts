import type { Pace } from '@/core/chart';
import type { Beats, Hz, Seconds } from '@/core/shared';
import { renderOffline } from '../workers';
import type { PlayerSource } from './takePlayer';

/** Loaded with the first sound: a review that is only read does not need it. */
async function levelled(samples: Float32Array, rate: Hz): Promise<Float32Array> {
  return (await import('@/core/sound')).levelled(samples, rate);
}

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
 * is first asked for. Both are made equally loud, however the take was recorded.
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
      const { sampleRate } = context;
      if (soundGone)
        return levelled(
          await renderOffline({
            ...asked,
            type: 'line',
            notes,
            pace,
            leadSeconds: offsetSec,
            rate: sampleRate,
          }),
          sampleRate,
        );
      const answer = await fetch(`/api/takes/${id}/audio`);
      if (!answer.ok) throw new Error('no sound');
      const sound = await context.decodeAudioData(await answer.arrayBuffer());
      return levelled(sound.getChannelData(0), sampleRate);
    },
    band: async (rate) => {
      const band = await levelled(
        await renderOffline({ ...asked, type: 'band', countInBars: 0, pace, rate }),
        rate,
      );
      // the band's bar 1 was heard at the take's beat 0
      const lead = Math.round(offsetSec * rate);
      const placed = new Float32Array(Math.max(0, band.length + lead));
      placed.set(lead >= 0 ? band : band.subarray(-lead), Math.max(0, lead));
      return placed;
    },
  };
}
