import { Listening } from './listening';
import type { ListenRequest } from './listenProtocol';

const listening = new Listening((reply) => self.postMessage(reply));
let queue = Promise.resolve();
self.onmessage = ({ data }: MessageEvent<ListenRequest>) => {
  queue = queue.then(() => listening.handle(data));
};
