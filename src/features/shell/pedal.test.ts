/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { ACTION_NAMES, actionOf, bind, DEFAULT_BINDINGS, keyName, readBindings } from './bindings';
import { listenToKeys, MIDI_PEDAL, midiPedal, type Keys } from './pedal';
import { DEFAULTS, readPreferences } from './preferences';

const calls: string[] = [];
let stop = () => {};
let keys: Keys = {};
const says = (word: string) => () => void calls.push(word);
const key = (type: 'keydown' | 'keyup', name: string, target: EventTarget = document.body, init = {}) =>
  target.dispatchEvent(new KeyboardEvent(type, { key: name, bubbles: true, cancelable: true, ...init }));
const tap = (name: string) => {
  key('keydown', name);
  key('keyup', name);
};
beforeEach(() => {
  jest.useFakeTimers();
  calls.length = 0;
  keys = { press: says('press'), hold: says('hold') };
  stop = listenToKeys(DEFAULT_BINDINGS, () => keys);
});
afterEach(() => {
  stop();
  jest.useRealTimers();
});

test.each([' ', 'PageUp', 'PageDown', 'ArrowRight'])(
  '%s pressed and let go is a press; kept down, a hold and no press',
  (name) => {
    tap(name);
    key('keydown', name);
    jest.advanceTimersByTime(800);
    key('keyup', name);
    expect(calls).toEqual(['press', 'hold']);
  },
);

test('a double press is none of its two presses; without a second one the first counts a little later', () => {
  keys = { ...keys, double: says('double') };
  tap(' ');
  expect(calls).toEqual([]);
  jest.advanceTimersByTime(200);
  tap(' ');
  jest.advanceTimersByTime(1000);
  expect(calls).toEqual(['double']);
  tap(' ');
  jest.advanceTimersByTime(400);
  expect(calls).toEqual(['double', 'press']);
});

test('what the keys do is asked at each stroke; an action that does nothing now leaves its key alone', () => {
  tap('h');
  keys = { help: says('help'), drums: says('drums') };
  tap('H');
  tap('1');
  expect(calls).toEqual(['help', 'drums']);
  expect(key('keydown', 'l')).toBe(true);
});

test('other keys, and keys in fields and on buttons, are not the pedal; nor are shortcuts', () => {
  const input = document.body.appendChild(document.createElement('input'));
  for (const [name, target, init] of [
    ['a', document.body, {}],
    [' ', input, {}],
    [' ', document.body.appendChild(document.createElement('button')), {}],
    [' ', document.body, { ctrlKey: true }],
  ] as const) {
    key('keydown', name, target, init);
    key('keyup', name, target, init);
  }
  expect(calls).toEqual([]);
});

test('a MIDI pedal is a pedal', () => {
  const send = (detail: boolean) => window.dispatchEvent(new CustomEvent(MIDI_PEDAL, { detail }));
  send(true);
  send(false);
  send(true);
  jest.advanceTimersByTime(800);
  send(false);
  expect(calls).toEqual(['press', 'hold']);
  // controllers by the MIDI 1.0 specification: 64 hold pedal to 69, switches from 64 on
  expect(
    [
      [0xb0, 64, 127],
      [0xb3, 67, 0],
      [0x90, 60, 90],
      [0x90, 60, 0],
      [0x80, 60, 10],
      [0xc0, 5],
      [0xb0, 1, 90],
      [0xf8],
    ].map(midiPedal),
  ).toEqual([true, false, true, false, false, 'tap', null, null]);
});

test('a key-up that another window had is no hold; nor is a key that a foot rests on', () => {
  key('keydown', ' ');
  window.dispatchEvent(new Event('blur'));
  jest.advanceTimersByTime(1_000);
  key('keyup', ' ');
  key('keydown', 'ArrowRight');
  jest.advanceTimersByTime(60_000);
  expect(calls).toEqual([]);
  key('keyup', 'ArrowRight');
  expect(calls).toEqual([]);
  tap('ArrowRight');
  expect(calls).toEqual(['press']);
});

test('a pedal closed at rest throws nothing away, is recognised, and then read the other way round; other keys are as they were', () => {
  const told: string[] = [];
  stop();
  stop = listenToKeys(
    DEFAULT_BINDINGS,
    () => keys,
    () => void told.push('reversed'),
  );
  const step = (ms = 300) => {
    key('keyup', 'PageDown');
    jest.advanceTimersByTime(ms);
    key('keydown', 'PageDown');
  };
  key('keydown', 'PageDown');
  for (const rest of [8_000, 20_000]) {
    jest.advanceTimersByTime(rest);
    step();
  }
  expect([calls, told]).toEqual([['press'], ['reversed']]);
  jest.advanceTimersByTime(30_000);
  step(900);
  jest.advanceTimersByTime(5_000);
  tap(' ');
  expect(calls).toEqual(['press', 'hold', 'press']);
});

test('after listening has stopped nothing comes', () => {
  stop();
  tap(' ');
  expect(calls).toEqual([]);
});

test('every action has a key of its own; a key given away is taken from whoever had it', () => {
  const all = ACTION_NAMES.flatMap((action) => DEFAULT_BINDINGS[action]);
  expect(new Set(all).size).toBe(all.length);
  const bound = bind(DEFAULT_BINDINGS, 'help', 'l');
  expect([actionOf(bound, 'l'), actionOf(bound, 'h'), bound.loop]).toEqual(['help', null, []]);
  expect(actionOf(bind(DEFAULT_BINDINGS, 'press', 'b'), 'b')).toBe('press');
  expect(actionOf(bind(DEFAULT_BINDINGS, 'press', 'b'), ' ')).toBe('press');
  expect([keyName(' '), keyName('l'), keyName('ArrowLeft')]).toEqual(['Space', 'L', '←']);
});

test('what the browser kept is believed only where it can be read', () => {
  for (const text of [
    null,
    '',
    'x',
    '[]',
    '7',
    '{"bandLevel":9,"device":{"kind":"bagpipe"},"help":"x","bindings":{"press":[1]}}',
  ])
    expect(readPreferences(text)).toEqual(DEFAULTS);
  const kept = {
    ...DEFAULTS,
    bandLevel: 0.5,
    device: { kind: 'stand-in', character: 'outside', delayMs: 80 },
    help: 2,
    bindings: bind(DEFAULT_BINDINGS, 'help', 'x'),
  };
  expect(readPreferences(JSON.stringify(kept))).toEqual(kept);
  expect(readBindings(undefined)).toEqual(DEFAULT_BINDINGS);
});
