import { expect, test } from '@jest/globals';
import { midiToHz } from '../shared';
import { SignalStore } from '../sound';
import { AlignedSpectra, ALIGNED_VALUES } from './alignedSpectra';
import { FRAME_SECONDS, HOP, RATE } from './frames';

const MOMENT = 120;
const STRUCK = MOMENT * HOP;
const [WINDOWS, LONG, COLUMNS, SHORT] = [5, 137, 18, 12];
/** Where the value of a pitch itself stands among those of a window: 41 steps of 60 cents lie below it. */
const OWN = 41;

/** Three seconds of partials with amplitudes 1, 1/2, 1/3 … from a sample on. */
function stringFrom(from: number, midi: number, partials = 8): Float32Array {
  return Float32Array.from({ length: 3 * RATE }, (_, n) => {
    let sum = 0;
    for (let partial = 1; partial <= partials; partial++)
      sum += Math.sin((2 * Math.PI * partial * midiToHz(midi) * n) / RATE) / partial;
    return n < from ? 0 : 0.2 * sum;
  });
}

function read(sound: Float32Array, midi: number, frame = MOMENT) {
  const store = new SignalStore();
  store.push(sound);
  const values = new Float64Array(ALIGNED_VALUES);
  new AlignedSpectra(store).read(frame, midi, values, 0);
  return {
    windows: Array.from({ length: WINDOWS }, (_, n) => values.subarray(n * LONG, (n + 1) * LONG)),
    columns: Array.from({ length: COLUMNS }, (_, n) =>
      values.subarray(WINDOWS * LONG + n * SHORT, WINDOWS * LONG + (n + 1) * SHORT),
    ),
  };
}

test('every value has its place', () => expect(ALIGNED_VALUES).toBe(WINDOWS * LONG + COLUMNS * SHORT));

test('a string that begins: nothing in the windows before, its pitch and octave in those after', () => {
  const { windows } = read(stringFrom(STRUCK, 57), 57);
  const [earlier, before, ...after] = windows;
  for (const silent of [earlier!, before!]) expect(Math.max(...silent)).toBe(0);
  for (const sounding of after) {
    expect(sounding[OWN]).toBeGreaterThan(0.9);
    expect(sounding[OWN + 20]).toBeGreaterThan(0.8);
    // a fourth above there is nothing
    expect(sounding[OWN + 8]).toBeLessThan(0.3);
  }
});

test('the same string at another pitch looks the same', () => {
  const [low, high] = [read(stringFrom(STRUCK, 57), 57), read(stringFrom(STRUCK, 64), 64)];
  const at = (partial: number) => OWN + Math.round(20 * Math.log2(partial));
  for (const partial of [1, 2, 4])
    expect(Math.abs(low.windows[3]![at(partial)]! - high.windows[3]![at(partial)]!)).toBeLessThan(0.06);
});

test('asked at its octave, what is missing below is seen below', () => {
  const { windows } = read(stringFrom(STRUCK, 57), 69);
  // an octave is twenty steps of 60 cents
  expect(windows[3]![OWN - 20]).toBeGreaterThan(0.9);
});

test('short windows follow the partials: silent before the stroke, there from its column on', () => {
  const { columns } = read(stringFrom(STRUCK, 69), 69);
  const fundamental = columns.map((column) => column[0]!);
  // columns are 8.7 ms apart, the sixth is centred on the moment, each window 29 ms long
  const before = Math.floor(6 - 0.0145 / (1.5 * FRAME_SECONDS));
  expect(Math.max(...fundamental.slice(0, before))).toBe(0);
  expect(Math.min(...fundamental.slice(8))).toBeGreaterThan(0.9);
  // and by bands: a tone of 440 Hz lies in the second
  expect(columns[10]![9]!).toBeGreaterThan(columns[10]![8]!);
});

test('silence reads as zeros, and so does what lies outside of the take', () => {
  expect(Math.max(...read(new Float32Array(RATE), 60).windows.flatMap((window) => [...window]))).toBe(0);
  expect(Math.max(...read(stringFrom(0, 57), 57, 4000).windows.flatMap((window) => [...window]))).toBe(0);
});
