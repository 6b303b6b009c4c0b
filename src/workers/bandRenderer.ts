import {
  arrange,
  bandFeel,
  BAND_PARTS,
  ENDING_BEATS,
  lineupOf,
  renderPart,
  type Instruments,
  type RenderRequest,
} from '@/core/band';
import { beatsPerBar, readChart, secondsAt, timelineOf } from '@/core/chart';
import { unwrap, present } from '@/core/shared';
import type { BandReply, BandRequest, Parts, Score } from './bandProtocol';

/** Samples of a score: before bar 1, and to the end of its last chord. */
export function arranged(
  score: Score,
  rate: number,
): { readonly request: RenderRequest; readonly lead: number; readonly length: number } {
  const { chartText, choruses, pace, countInBars, seed, click, dropOut, chords } = score;
  const chart = unwrap(readChart(chartText));
  const [tempo] = pace.tempi as [number];
  const events = arrange({ chart, tempo, choruses, seed, countInBars, click, dropOut });
  const leadSeconds = -secondsAt(pace, -countInBars * beatsPerBar(chart.meter));
  const beats = timelineOf(chart, tempo).formBeats * choruses + ENDING_BEATS;
  const request = {
    events,
    lineup: lineupOf(bandFeel(chart), tempo, chords),
    rate,
    leadSeconds,
    secondsAt: (beat: number) => secondsAt(pace, beat),
  };
  return {
    request,
    lead: Math.round(leadSeconds * rate),
    length: Math.ceil((leadSeconds + secondsAt(pace, beats)) * rate),
  };
}

/** The take that plays, the one made ready, the one being chosen, and one to spare. */
const MOST_SCORES = 4;

/**
 * The band worker without its thread: a score is arranged once, then rendered window by window, each part for
 * itself.
 */
export class BandRenderer {
  private instruments: Promise<Instruments> | null = null;
  private rate = 0;
  private readonly scores = new Map<number, RenderRequest>();

  constructor(
    private readonly instrumentsAt: (rate: number) => Promise<Instruments>,
    private readonly reply: (reply: BandReply) => void,
  ) {}

  async handle(request: BandRequest): Promise<void> {
    try {
      switch (request.type) {
        case 'open':
          if (this.rate !== request.rate) this.instruments = this.instrumentsAt(request.rate);
          this.rate = request.rate;
          return void (await this.instruments);
        case 'score': {
          const { request: made, lead, length } = arranged(request.score, this.rate);
          this.scores.set(request.id, made);
          if (this.scores.size > MOST_SCORES) this.scores.delete(present(this.scores.keys().next().value));
          return this.reply({ type: 'arranged', lead, length });
        }
        case 'window': {
          const [instruments, current] = [await this.instruments, this.scores.get(request.id)];
          if (!instruments || !current) throw new Error('a window of no score');
          const parts = Object.fromEntries(
            BAND_PARTS.map((part) => [part, renderPart(instruments, current, part, request)]),
          ) as Parts;
          return this.reply({ type: 'window', from: request.from, parts });
        }
      }
    } catch (error) {
      this.instruments = null;
      this.rate = 0;
      this.reply({ type: 'refused', message: (error as Error).message });
    }
  }
}
