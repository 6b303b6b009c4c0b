import { pulseOf } from '@/core/align';
import { instrumentsAt } from './bank';
import { renderRequest } from './offlineRenderer';
import type { PulseRequest, RenderReply, OfflineRequest } from './offlineRendererProtocol';

const answer = (reply: RenderReply, transfer: Transferable[] = []) => self.postMessage(reply, { transfer });

self.onmessage = async ({ data }: MessageEvent<OfflineRequest | PulseRequest>) => {
  try {
    if (data.type === 'pulse') return answer({ pulse: pulseOf(data.samples, data.rate) });
    const samples = await renderRequest(data, instrumentsAt);
    answer({ samples }, [samples.buffer]);
  } catch (error) {
    answer({ refused: (error as Error).message });
  }
};
