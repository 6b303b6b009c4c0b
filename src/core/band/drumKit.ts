import { seededRandom, type Hz } from '../vocabulary';
import type { Drum } from './events';

/** One stroke of each drum, made once for a rate; every stroke of a take is a scaled copy. */
export function drumKit(rate: Hz): Record<Drum, Float32Array> {
  return {
    ride: cymbal(rate, 0.9, 7.5, 0.13, 11), hat: cymbal(rate, 0.09, 46, 0.3, 12), kick: kick(rate), snare: snare(rate),
    click: wood(rate, 1250), 'click-accent': wood(rate, 1760),
  };
}

const stroke = (rate: Hz, seconds: number, at: (time: number, n: number) => number): Float32Array =>
  Float32Array.from({ length: Math.ceil(seconds * rate) }, (_, n) => at(n / rate, n));

/** Inharmonic square partials and high-passed noise, as analogue cymbals are made (common practice, no source). */
function cymbal(rate: Hz, seconds: number, fall: number, level: number, seed: number): Float32Array {
  const random = seededRandom(seed);
  const partials = [2153, 3301, 4127, 5483, 6709, 8117];
  let previous = 0;
  return stroke(rate, seconds, (time) => {
    const noise = random() * 2 - 1;
    const bright = noise - previous;
    previous = noise;
    const metal = partials.reduce((sum, hz) => sum + Math.sign(Math.sin(2 * Math.PI * hz * time)), 0) / partials.length;
    const ping = Math.exp(-time * fall * 6);
    return (0.45 * bright + 0.16 * metal) * level * (Math.exp(-time * fall) * 0.6 + ping * 0.4) * Math.min(1, time / 0.0008);
  });
}

function kick(rate: Hz): Float32Array {
  return stroke(rate, 0.28, (time) => {
    const phase = 2 * Math.PI * (52 * time + (68 / 38) * (1 - Math.exp(-38 * time)));
    return Math.sin(phase) * Math.exp(-time * 13) * 0.75 + (time < 0.003 ? 0.18 * (1 - time / 0.003) : 0);
  });
}

function snare(rate: Hz): Float32Array {
  const random = seededRandom(13);
  let low = 0;
  return stroke(rate, 0.2, (time) => {
    const noise = random() * 2 - 1;
    low += 0.45 * (noise - low);
    return (noise * 0.35 + low * 0.4) * Math.exp(-time * 24) * 0.55 + Math.sin(2 * Math.PI * 187 * time) * Math.exp(-time * 34) * 0.3;
  });
}

const wood = (rate: Hz, hz: number): Float32Array =>
  stroke(rate, 0.06, (time) => Math.sin(2 * Math.PI * hz * time) * Math.exp(-time * 85) * 0.5 * Math.min(1, time / 0.0006));
