import { instrumentsAt } from './bank';
import { playStudio } from './studio';
import type { StudioReply, StudioRequest } from './studioProtocol';

self.onmessage = async ({ data }: MessageEvent<StudioRequest>) => {
  try {
    const samples = await playStudio(data, instrumentsAt);
    self.postMessage({ samples } satisfies StudioReply, { transfer: [samples.buffer] });
  } catch (error) {
    self.postMessage({ refused: (error as Error).message } satisfies StudioReply);
  }
};
