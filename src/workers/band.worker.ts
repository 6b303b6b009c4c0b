import { instrumentsAt } from './bank';
import { BandRenderer } from './bandRenderer';
import type { BandRequest } from './bandProtocol';

const stand = new BandRenderer(instrumentsAt, (reply) =>
  self.postMessage(reply, {
    transfer: reply.type === 'window' ? Object.values(reply.parts).map(({ buffer }) => buffer) : [],
  }),
);
let queue = Promise.resolve();
self.onmessage = ({ data }: MessageEvent<BandRequest>) => {
  queue = queue.then(() => stand.handle(data));
};
