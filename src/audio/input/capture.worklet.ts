import { BLOCK_FRAMES, type CaptureOrder, type Channel } from './captureMessage';

// what an AudioWorklet finds around it; its types are in no library of the compiler
declare const currentFrame: number;
declare function registerProcessor(name: string, processor: unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/**
 * Hands on what the input hears, untouched: blocks of mono samples stamped with the frame they begin at, and
 * the peak of every channel.
 */
class Capture extends AudioWorkletProcessor {
  private block = new Float32Array(BLOCK_FRAMES);
  private peaks: number[] = [];
  private filled = 0;
  private from = 0;
  private channel: Channel = 'mix';

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<CaptureOrder>) => (this.channel = data.channel);
  }

  process(inputs: Float32Array[][]): boolean {
    const channels = inputs[0] ?? [];
    const first = channels[0];
    if (!first) return true;
    if (this.filled === 0) this.from = currentFrame;
    channels.forEach((samples, index) => {
      let peak = this.peaks[index] ?? 0;
      for (let n = 0; n < samples.length; n++) peak = Math.max(peak, Math.abs(samples[n]!));
      this.peaks[index] = peak;
    });
    const chosen = this.channel === 'mix' ? undefined : (channels[this.channel] ?? first);
    for (let n = 0; n < first.length; n++) {
      if (chosen) this.block[this.filled + n] = chosen[n]!;
      else {
        let sum = 0;
        for (const samples of channels) sum += samples[n]!;
        this.block[this.filled + n] = sum / channels.length;
      }
    }
    this.filled += first.length;
    if (this.filled >= BLOCK_FRAMES) this.send();
    return true;
  }

  private send(): void {
    this.port.postMessage({ frame: this.from, samples: this.block, peaks: this.peaks }, [this.block.buffer]);
    this.block = new Float32Array(BLOCK_FRAMES);
    this.peaks = [];
    this.filled = 0;
  }
}

registerProcessor('capture', Capture);
