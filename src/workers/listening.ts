import { readWav, toMono } from '@/core/formats';
import { Transcriber } from '@/core/transcribe';
import type { ListenReply, ListenRequest } from './listenProtocol';

type Reply = (reply: ListenReply) => void;
const BLOCK_SECONDS = 1;

/** The listening worker without its thread: requests in, replies out. */
export class Listening {
  private transcriber: Transcriber | null = null;
  constructor(private readonly reply: Reply) {}

  async handle(request: ListenRequest): Promise<void> {
    switch (request.type) {
      case 'begin':
        this.transcriber = new Transcriber(request.rate, {
          live: true,
          ...(request.backing ? { backing: request.backing } : {}),
        });
        return;
      case 'backing':
        return this.transcriber?.pushBacking(request.samples);
      case 'block': {
        const notes = this.transcriber?.push(request.samples) ?? [];
        if (notes.length > 0) this.reply({ type: 'live', notes });
        return;
      }
      case 'finish':
        if (this.transcriber) this.reply({ type: 'notes', transcription: this.transcriber.finish() });
        this.transcriber = null;
        return;
      case 'file':
        await this.file(new Uint8Array(request.bytes));
    }
  }

  private async file(bytes: Uint8Array): Promise<void> {
    const read = readWav(bytes);
    if (!read.ok) return this.reply({ type: 'refused', problem: read.problems[0] });
    const samples = toMono(read.value);
    const { rate } = read.value;
    const transcriber = new Transcriber(rate);
    const size = Math.round(rate * BLOCK_SECONDS);
    for (let at = 0; at < samples.length; at += size) {
      transcriber.push(samples.subarray(at, at + size));
      this.reply({ type: 'progress', share: Math.min(1, (at + size) / samples.length) });
      await new Promise((resume) => setTimeout(resume)); // lets a cancel in
    }
    this.reply({ type: 'file-notes', transcription: transcriber.finish(), rate, samples });
  }
}
