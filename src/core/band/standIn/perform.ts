import { gaussian, seededRandom, type Hz, type Random, type Seconds, elementAt } from '../../shared';
import { secondsAt, steady, type Pace } from '../../chart';
import type { PlayedNote } from '../../analyse';
import { pluckString } from '../pluckedString';
import { alongCurve, curveOf, heldThrough } from './pitchCurve';

export type PerformRequest = {
  readonly notes: readonly PlayedNote[];
  readonly tempo: number;
  /** Where the tempo moves. */ readonly pace?: Pace;
  readonly rate: Hz;
  readonly seed: number;
  readonly leadSeconds?: Seconds;
  readonly tailSeconds?: Seconds;
};

/**
 * The stand-in player's guitar: each note plucked with its own force and place, ringing a little into the
 * next, over a resonant body
 * with pick noise, hiss and hum, so that it is as hard to hear as a guitar in a room.
 */
export function perform({
  notes,
  tempo,
  pace = steady(tempo),
  rate,
  seed,
  leadSeconds = 0,
  tailSeconds = 1,
}: PerformRequest): Float32Array {
  const random = seededRandom(seed * 7919 + 1);
  const last = Math.max(0, ...notes.map((note) => note.onsetBeat + note.durationBeats));
  const out = new Float32Array(Math.ceil((leadSeconds + secondsAt(pace, last) + tailSeconds) * rate));
  for (const note of notes) {
    const at = Math.round((leadSeconds + secondsAt(pace, note.onsetBeat)) * rate);
    const force = Math.max(0.25, Math.min(1, 0.62 + gaussian(random) * 0.14));
    const pitch = note.midi + (note.cents ?? 0) / 100 + gaussian(random) * 0.03;
    const held = secondsAt(pace, note.onsetBeat + note.durationBeats) - secondsAt(pace, note.onsetBeat);
    const curve = curveOf(note);
    const pluck = {
      midi: pitch,
      rate,
      held: curve ? heldThrough(curve, held) : held,
      release: 0.03 + random() * 0.03,
      force,
      at: 0.12 + random() * 0.1,
      decay: 4.5 - (pitch - 40) * 0.06,
    };
    const plucked = pluckString(pluck, random);
    const string = curve ? alongCurve(plucked, curve, rate) : plucked;
    mixIn(out, string, at, 0.9);
    mixIn(out, pickClick(rate, force, random), at, 1);
  }
  return room(body(out, rate), rate, random);
}

function mixIn(out: Float32Array, sound: Float32Array, at: number, level: number): void {
  for (let n = Math.max(0, -at); n < sound.length && at + n < out.length; n++)
    out[at + n]! += elementAt(sound, n) * level;
}

/** The pick on the string: a few milliseconds of bright noise. */
function pickClick(rate: Hz, force: number, random: Random): Float32Array {
  const length = Math.round(rate * 0.006);
  return Float32Array.from({ length }, (_, n) => (random() * 2 - 1) * 0.05 * force * (1 - n / length) ** 2);
}

/**
 * Air and top resonances of a guitar body near 105, 200 and 400 Hz, as two-pole resonators beside the direct
 * sound.
 */
function body(samples: Float32Array, rate: Hz): Float32Array {
  const modes = [
    [105, 0.9965, 0.006],
    [204, 0.996, 0.006],
    [398, 0.994, 0.005],
  ] as const;
  const out = samples.slice();
  for (const [hz, radius, gain] of modes) {
    const pole = radius ** (44_100 / rate);
    const a1 = 2 * pole * Math.cos((2 * Math.PI * hz) / rate);
    const a2 = -pole * pole;
    let [y1, y2] = [0, 0];
    for (let n = 0; n < samples.length; n++) {
      const y = elementAt(samples, n) * gain + a1 * y1 + a2 * y2;
      y2 = y1;
      y1 = y;
      out[n]! += y;
    }
  }
  return out;
}

/** Hum at 50 Hz and its third harmonic near −66 dBFS, hiss near −64. */
function room(samples: Float32Array, rate: Hz, random: Random): Float32Array {
  return samples.map((value, n) => {
    const hum =
      0.0005 * Math.sin((2 * Math.PI * 50 * n) / rate) + 0.0002 * Math.sin((2 * Math.PI * 150 * n) / rate);
    return Math.tanh(value + hum + (random() * 2 - 1) * 0.0006);
  });
}
