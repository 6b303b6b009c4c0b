import { BAND_PARTS, type BandEvent, type BandPart } from './events';
import type { Lineup } from './feel';
import type { Instruments } from './instruments';
import { elementAt, type Beats, type Hz, type Samples, type Seconds } from '../shared';

export type Mix = Readonly<Partial<Record<BandPart, number>>>;

export type RenderRequest = {
  readonly events: readonly BandEvent[];
  readonly lineup: Lineup;
  readonly rate: Hz;
  /** When a beat sounds, in seconds from beat 0. */
  readonly secondsAt: (beat: Beats) => Seconds;
  /** Seconds of audio before beat 0. */
  readonly leadSeconds: Seconds;
};

/** A stretch of the rendered sound in samples from its beginning, half-open. */
export type Window = { readonly from: Samples; readonly to: Samples };

/**
 * What brings each instrument to its place beside the others: bass about 4 dB over chords and drums, by RMS
 * over a chorus.
 */
const LEVEL: Record<Lineup['bass'] | Lineup['chords'] | Lineup['drums'] | 'click', number> = {
  upright: 1.3,
  electric: 1.5,
  piano: 2.4,
  'electric-piano': 1.7,
  'nylon-guitar': 2.4,
  'electric-guitar': 2,
  sticks: 2.6,
  brushes: 2.6,
  click: 2.4,
};

const levelOf = (lineup: Lineup, part: BandPart): number => LEVEL[part === 'click' ? 'click' : lineup[part]];
/** No stroke of the bank rings longer. */
const LONGEST: Seconds = 3.2;

/** One part of the band over a window; windows laid end to end are the whole part. */
export function renderPart(
  instruments: Instruments,
  request: RenderRequest,
  part: BandPart,
  { from, to }: Window,
): Float32Array {
  const out = new Float32Array(to - from);
  for (const event of request.events) {
    if (event.part !== part) continue;
    const seconds = request.secondsAt(event.beat);
    const at = Math.round((request.leadSeconds + seconds) * request.rate) - from;
    const longest =
      (LONGEST + ('beats' in event ? request.secondsAt(event.beat + event.beats) - seconds : 0)) *
      request.rate;
    if (at >= out.length || at + longest < 0) continue;
    add(out, soundOf(instruments, request, event, seconds), at, levelOf(request.lineup, part));
  }
  return out;
}

function soundOf(
  instruments: Instruments,
  { lineup, secondsAt }: RenderRequest,
  event: BandEvent,
  seconds: Seconds,
): Float32Array {
  if ('drum' in event)
    return instruments.stroke({ kit: lineup.drums, drum: event.drum, loudness: event.loudness });
  return instruments.note({
    instrument: event.part === 'bass' ? lineup.bass : lineup.chords,
    midi: event.midi,
    held: secondsAt(event.beat + event.beats) - seconds,
    loudness: event.loudness,
  });
}

/** The band as one mono signal, its parts at their levels: 1 as arranged, 0 silent. */
export function renderBand(
  instruments: Instruments,
  request: RenderRequest,
  seconds: Seconds,
  mix: Mix = {},
): Float32Array {
  const out = new Float32Array(Math.ceil((request.leadSeconds + seconds) * request.rate));
  for (const part of BAND_PARTS)
    if ((mix[part] ?? 1) > 0)
      add(out, renderPart(instruments, request, part, { from: 0, to: out.length }), 0, mix[part] ?? 1);
  return softened(out);
}

function add(out: Float32Array, sound: Float32Array, at: Samples, level: number): void {
  const start = Math.max(0, -at);
  const end = Math.min(sound.length, out.length - at);
  for (let n = start; n < end; n++) out[at + n]! += elementAt(sound, n) * level;
}

/** Straight up to here, then bent under full scale: peaks of the whole band together. */
const STRAIGHT_TO = 0.7;

/** Keeps peaks under full scale without hard corners; in place. */
export function softened(samples: Float32Array): Float32Array {
  const room = 1 - STRAIGHT_TO;
  for (let n = 0; n < samples.length; n++) {
    const size = Math.abs(elementAt(samples, n));
    if (size > STRAIGHT_TO)
      samples[n] =
        Math.sign(elementAt(samples, n)) * (STRAIGHT_TO + room * Math.tanh((size - STRAIGHT_TO) / room));
  }
  return samples;
}
