/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { listenToPedal } from './pedal';

const calls: string[] = [];
let stop = () => {};
const key = (type: 'keydown' | 'keyup', name: string, target: EventTarget = document.body) => target.dispatchEvent(new KeyboardEvent(type, { key: name, bubbles: true, cancelable: true }));
beforeEach(() => {
  jest.useFakeTimers();
  calls.length = 0;
  stop = listenToPedal({ press: () => calls.push('press'), hold: () => calls.push('hold') });
});
afterEach(() => { stop(); jest.useRealTimers(); });

test.each([' ', 'PageUp', 'PageDown', 'ArrowRight'])('%s pressed and let go is a press; kept down, a hold and no press', (name) => {
  key('keydown', name);
  key('keyup', name);
  key('keydown', name);
  jest.advanceTimersByTime(800);
  key('keyup', name);
  expect(calls).toEqual(['press', 'hold']);
});

test('other keys, and keys in fields and on buttons, are not the pedal', () => {
  const input = document.body.appendChild(document.createElement('input'));
  for (const [name, target] of [['a', document.body], [' ', input], [' ', document.body.appendChild(document.createElement('button'))]] as const) {
    key('keydown', name, target);
    key('keyup', name, target);
  }
  expect(calls).toEqual([]);
});

test('after listening has stopped nothing comes', () => {
  stop();
  key('keydown', ' ');
  key('keyup', ' ');
  expect(calls).toEqual([]);
});
