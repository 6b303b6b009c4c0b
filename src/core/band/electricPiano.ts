import { midiToHz, type Hz, type Midi, type Seconds } from '../vocabulary';

/** A struck tine: frequency modulation with a decaying index (Chowning, JAES 1973), a bell partial in the attack. */
export function tine(midi: Midi, held: Seconds, loudness: number, rate: Hz): Float32Array {
  const frequency = midiToHz(midi);
  const release = 0.12;
  const out = new Float32Array(Math.ceil((held + release) * rate));
  const step = (2 * Math.PI * frequency) / rate;
  const bell = Math.min(14, 9000 / frequency);
  for (let n = 0; n < out.length; n++) {
    const time = n / rate;
    const index = 1.5 * loudness * Math.exp(-time * 3.2) + 0.12;
    const body = Math.sin(step * n + index * Math.sin(step * n));
    const strike = 0.1 * loudness * Math.exp(-time * 26) * Math.sin(step * bell * n);
    const envelope = Math.min(1, time / 0.003) * Math.exp(-time * 1.1) * (time > held ? Math.exp(-(time - held) * 30) : 1);
    out[n] = (body + strike) * envelope * 0.16 * loudness;
  }
  return out;
}
