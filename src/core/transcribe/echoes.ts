import type { Samples } from '../shared';
import { concat, SignalStore } from '../sound';
import { EchoDetector, FURTHEST, inverseOf, WINDOW, type EchoTap } from './echoDetector';

const CHUNK: Samples = 4_096;
/** So much is gathered before a delay is looked for: about twelve seconds. */
const GATHERED = 64;
/** What was gathered is given on at twice the speed it comes in, so that nothing waits for it. */
const CATCHING_UP = 2;
const LOOKED_FOR_EVERY = 32;

/**
 * Takes the repeats of a delay effect out of a recording on its way to the frames: blocks at RATE in, the same
 * samples out some seconds late, unchanged where nothing is delayed. How the take is cut into blocks changes nothing.
 */
export class EchoRemoval {
  private readonly signal = new SignalStore();
  private readonly detector = new EchoDetector(this.signal);
  private waiting: Float32Array[] = [];
  private open: Float32Array = new Float32Array(0);
  private received = 0;
  private given = 0;
  /** The filter in use, and the one found last. */
  private taps: readonly EchoTap[] = [];
  private found: readonly EchoTap[] = [];
  /** The last samples as they came, for the taps to reach back to. */
  private past = new Float32Array(FURTHEST);

  push(block: Float32Array): Float32Array {
    const all = concat([this.open, block]);
    const out: Float32Array[] = [];
    let at = 0;
    for (; at + CHUNK <= all.length; at += CHUNK) {
      this.take(all.slice(at, at + CHUNK));
      if (this.received < GATHERED) continue;
      for (let count = 0; count < CATCHING_UP && this.waiting.length > 0; count++) out.push(this.give());
    }
    this.open = all.slice(at);
    return concat(out);
  }

  finish(): Float32Array {
    const out: Float32Array[] = [];
    if (this.received < GATHERED) this.look();
    while (this.waiting.length > 0) out.push(this.give());
    return concat([...out, this.undelayed(this.open, this.taps)]);
  }

  private take(chunk: Float32Array): void {
    this.signal.push(chunk);
    this.waiting.push(chunk);
    this.received++;
    if (this.received === GATHERED || (this.received > GATHERED && this.received % LOOKED_FOR_EVERY === 0))
      this.look();
  }

  private look(): void {
    this.found = inverseOf(this.detector.read(this.received * CHUNK));
    this.signal.forget(this.received * CHUNK - 2 * WINDOW);
  }

  private give(): Float32Array {
    const chunk = this.waiting.shift()!;
    const [old, fresh] = [this.taps, this.found];
    this.taps = fresh;
    this.given++;
    if (old === fresh || this.given === 1) return this.undelayed(chunk, fresh);
    const from = this.undelayed(chunk, old, false);
    return this.undelayed(chunk, fresh).map((value, n) => from[n]! + ((value - from[n]!) * n) / CHUNK);
  }

  /** @param moves whether the chunk becomes part of the past */
  private undelayed(chunk: Float32Array, taps: readonly EchoTap[], moves = true): Float32Array {
    const out = chunk.slice();
    if (taps.length > 0) this.addTaps(out, concat([this.past, chunk]), taps);
    if (moves) {
      this.past.copyWithin(0, chunk.length);
      this.past.set(chunk, FURTHEST - chunk.length);
    }
    return out;
  }

  /** @param joined the past and the chunk, the same as `out` */
  private addTaps(out: Float32Array, joined: Float32Array, taps: readonly EchoTap[]): void {
    const at = (index: number) => ({ gain: taps[index]!.gain, from: FURTHEST - taps[index]!.lag });
    let index = 0;
    // four taps at a time: each sample is read and written once for all of them
    for (; index + 3 < taps.length; index += 4) {
      const [first, second, third, fourth] = [at(index), at(index + 1), at(index + 2), at(index + 3)];
      const [gain1, gain2, gain3, gain4] = [first.gain, second.gain, third.gain, fourth.gain];
      const [from1, from2, from3, from4] = [first.from, second.from, third.from, fourth.from];
      for (let n = 0; n < out.length; n++)
        out[n]! +=
          gain1 * joined[from1 + n]! +
          gain2 * joined[from2 + n]! +
          gain3 * joined[from3 + n]! +
          gain4 * joined[from4 + n]!;
    }
    for (const { lag, gain } of taps.slice(index))
      for (let n = 0; n < out.length; n++) out[n]! += gain * joined[FURTHEST + n - lag]!;
  }
}
