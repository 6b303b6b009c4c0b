import { expect, test } from '@jest/globals';
import { midiToHz, type Midi, type Seconds } from '../shared';
import { SignalStore } from '../sound';
import { framesOf, FRAME_SECONDS, RATE } from './frames';
import { RingingReader } from './ringing';

// strings written out as sums of decaying partials: where each is stopped is known to the sample
type Plucked = { readonly midi: Midi; readonly at: Seconds; readonly until: Seconds };

/** Partials that fall by 1/n and die at 1.5 in a second; a stopped string dies within 12 ms. */
function reader(...strings: readonly Plucked[]): RingingReader {
  const store = new SignalStore();
  store.push(
    Float32Array.from({ length: 2.5 * RATE }, (_, n) =>
      strings.reduce((sum, { midi, at, until }) => {
        const time = n / RATE - at;
        if (time < 0) return sum;
        const stopped = Math.max(0, Math.min(1, 1 - (n / RATE - until) / 0.012));
        let value = 0;
        for (let harmonic = 1; harmonic <= 8; harmonic++)
          value += Math.sin(2 * Math.PI * midiToHz(midi) * harmonic * time) / harmonic;
        return sum + 0.1 * value * Math.exp(-1.5 * time) * stopped;
      }, 0),
    ),
  );
  return new RingingReader(store);
}

const at = (seconds: Seconds) => framesOf(seconds);
const rings = (first: Plucked, second: Plucked): boolean =>
  reader(first, second).ringsPast(
    { frame: at(first.at), midi: first.midi },
    at(second.at),
    at(second.at + 0.4),
    [second.midi],
  );

test.each([
  ['a fifth', 52, 59],
  ['a third', 60, 64],
  ['a tone', 64, 62],
  ['a minor third', 67, 70],
])('%s: a string that rings on under the next is told from one that is stopped by it', (_name, low, high) => {
  const [first, next] = [
    { midi: low, at: 0.3, until: 2 },
    { midi: high, at: 0.8, until: 2 },
  ];
  expect([rings(first, next), rings({ ...first, until: 0.8 }, next)]).toEqual([true, false]);
});

test('the same pitch struck again has stopped the string it was on', () => {
  const first = { midi: 60, at: 0.3, until: 2 };
  expect(rings(first, { ...first, at: 0.8 })).toBe(false);
});

test('all of whose partials lie on those of the next says nothing, and counts as stopped', () => {
  expect(rings({ midi: 64, at: 0.3, until: 2 }, { midi: 52, at: 0.8, until: 2 })).toBe(false);
});

test('a string that is stopped while nothing else begins ends there, within a step', () => {
  const stopped = reader({ midi: 57, at: 0.3, until: 1.1 });
  const end = stopped.endWithin({ frame: at(0.3), midi: 57 }, at(0.36), at(2.2), []) * FRAME_SECONDS;
  expect(Math.abs(end - 1.1)).toBeLessThan(0.1);
});

test('a string that dies away ends 20 dB under its peak; one that does not lasts to the next', () => {
  // 1.5 nepers a second are 13 dB: 20 dB take 1.54 s
  const dying = reader({ midi: 57, at: 0.1, until: 9 });
  const note = { frame: at(0.1), midi: 57 };
  expect(Math.abs(dying.endWithin(note, at(0.16), at(2.3), []) * FRAME_SECONDS - 1.7)).toBeLessThan(0.12);
  expect(dying.endWithin(note, at(0.16), at(1.2), [])).toBe(at(1.2));
});

test('part of a take gives the same in its own frames', () => {
  const whole = reader({ midi: 57, at: 0.3, until: 1.1 });
  const part = whole.from(30);
  const end = whole.endWithin({ frame: at(0.3), midi: 57 }, at(0.36), at(2.2), []);
  expect(part.endWithin({ frame: at(0.3) - 30, midi: 57 }, at(0.36) - 30, at(2.2) - 30, [])).toBe(end - 30);
});
