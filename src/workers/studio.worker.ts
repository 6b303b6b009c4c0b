import { pulseOf } from '@/core/align';
import { instrumentsAt } from './bank';
import { playStudio } from './studio';
import type { PulseRequest, StudioReply, StudioRequest } from './studioProtocol';

const answer = (reply: StudioReply, transfer: Transferable[] = []) => self.postMessage(reply, { transfer });

self.onmessage = async ({ data }: MessageEvent<StudioRequest | PulseRequest>) => {
  try {
    if (data.type === 'pulse') return answer({ pulse: pulseOf(data.samples, data.rate) });
    const samples = await playStudio(data, instrumentsAt);
    answer({ samples }, [samples.buffer]);
  } catch (error) {
    answer({ refused: (error as Error).message });
  }
};
