import { BAND_PARTS, type BandPart } from '@/core/band';
import type { BandReply, BandRequest, Parts, Score } from '@/workers/bandProtocol';
import { elementAt } from '@/core/shared';

/** A backing in windows of samples: the band, or a player's own file. */
export interface BackingSource {
  /** Samples before bar 1 and in all. */
  readonly lead: number;
  readonly length: number;
  window(from: number, to: number): Promise<Parts>;
}

/**
 * The band's worker: kept for the whole visit, so that its instruments stay warm and the next take starts
 * at once. Requests are answered in
 * the order they were asked.
 */
export class BandWorker {
  private readonly worker = new Worker(new URL('../../workers/band.worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly waiting: { resolve: (reply: BandReply) => void; reject: (error: Error) => void }[] = [];

  constructor(rate: number) {
    this.worker.onmessage = ({ data }: MessageEvent<BandReply>) => {
      const next = this.waiting.shift();
      if (data.type === 'refused') next?.reject(new Error(data.message));
      else next?.resolve(data);
    };
    this.worker.onerror = (event) => this.fail(new Error(event.message || 'The band could not be made.'));
    this.rate = rate;
    this.tell({ type: 'open', rate });
  }
  readonly rate: number;

  private tell(request: BandRequest): void {
    this.worker.postMessage(request);
  }
  private ask(request: BandRequest): Promise<BandReply> {
    return new Promise((resolve, reject) => {
      this.waiting.push({ resolve, reject });
      this.tell(request);
    });
  }
  private fail(error: Error): void {
    for (const { reject } of this.waiting.splice(0)) reject(error);
  }

  private scores = 0;

  /** Arranges a score. Others may be arranged while its windows are still being asked for. */
  async source(score: Score): Promise<BackingSource> {
    const id = ++this.scores;
    const arranged = await this.ask({ type: 'score', id, score });
    if (arranged.type !== 'arranged') throw new Error('the band answered out of turn');
    return {
      lead: arranged.lead,
      length: arranged.length,
      window: async (from, to) => {
        const reply = await this.ask({ type: 'window', id, from, to });
        if (reply.type !== 'window') throw new Error('the band answered out of turn');
        return reply.parts;
      },
    };
  }

  close(): void {
    this.fail(new DOMException('closed', 'AbortError'));
    this.worker.terminate();
  }
}

/**
 * A player's own backing in the band's place: its samples as the chords, the count-in and clicks of the
 * band with it.
 * @param barOne where its bar 1 begins, in samples; what comes before is not played under the count-in
 */
export function fileSource(band: BackingSource, samples: Float32Array, barOne: number): BackingSource {
  return {
    lead: band.lead,
    length: band.length,
    window: async (from, to) => {
      const { click } = await band.window(from, to);
      const chords = new Float32Array(to - from);
      for (let n = Math.max(0, band.lead - from); n < chords.length; n++)
        chords[n] = samples[from + n - band.lead + barOne] ?? 0;
      return { drums: new Float32Array(to - from), bass: new Float32Array(to - from), chords, click };
    },
  };
}

/** All parts as one mono signal at their levels: what the listener is told, to take it out of the recording. */
export function mixed(parts: Parts, levels: Readonly<Partial<Record<BandPart, number>>>): Float32Array {
  const out = new Float32Array(parts.drums.length);
  for (const part of BAND_PARTS) {
    const level = levels[part] ?? 1;
    if (level > 0) for (let n = 0; n < out.length; n++) out[n]! += elementAt(parts[part], n) * level;
  }
  return out;
}
