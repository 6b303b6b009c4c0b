import { playStudio } from './studio';
import type { StudioRequest } from './studioProtocol';

self.onmessage = ({ data }: MessageEvent<StudioRequest>) => {
  const samples = playStudio(data);
  self.postMessage({ samples }, { transfer: [samples.buffer] });
};
