import { BLOCK_FRAMES } from './captureMessage';

// what an AudioWorklet finds around it; its types are in no library of the compiler
declare const currentFrame: number;
declare function registerProcessor(name: string, processor: unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Hands on what the input hears, untouched: blocks of mono samples stamped with the frame they begin at. */
class Capture extends AudioWorkletProcessor {
  private block = new Float32Array(BLOCK_FRAMES);
  private filled = 0;
  private from = 0;

  process(inputs: Float32Array[][]): boolean {
    const channels = inputs[0] ?? [];
    const first = channels[0];
    if (!first) return true;
    if (this.filled === 0) this.from = currentFrame;
    const second = channels[1];
    for (let n = 0; n < first.length; n++) this.block[this.filled + n] = second ? (first[n]! + second[n]!) / 2 : first[n]!;
    this.filled += first.length;
    if (this.filled >= BLOCK_FRAMES) this.send();
    return true;
  }

  private send(): void {
    this.port.postMessage({ frame: this.from, samples: this.block }, [this.block.buffer]);
    this.block = new Float32Array(BLOCK_FRAMES);
    this.filled = 0;
  }
}

registerProcessor('capture', Capture);
