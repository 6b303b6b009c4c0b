/** @jest-environment jsdom */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import fc from 'fast-check';
import { MIDI_PEDAL } from '../pedal';
import {
  bind,
  conflictsOf,
  DEFAULT_BINDINGS,
  keysOf,
  readBindings,
  resetKeys,
  type Bindings,
} from './bindings';
import { COMMAND_IDS, COMMANDS, PEDAL, scopeOf, SCOPES, scopesMeet, type CommandId } from './catalogue';
import { captureKey, listenToKeyboard } from './keyboard';
import { keyOfEvent, shownKey } from './keys';
import { addSource, commandNow, commandsNow, type Handlers, type SourceOptions } from './registry';

const calls: string[] = [];
const says = (word: string) => () => void calls.push(word);
let bindings: Bindings = DEFAULT_BINDINGS;
const stops: (() => void)[] = [];
const screen = (handlers: Handlers, options?: SourceOptions) => {
  const stop = addSource(() => handlers, options);
  stops.push(stop);
  return stop;
};
const key = (type: 'keydown' | 'keyup', name: string, target: EventTarget = document.body, init = {}) =>
  target.dispatchEvent(new KeyboardEvent(type, { key: name, bubbles: true, cancelable: true, ...init }));
const tap = (name: string, target?: EventTarget, init?: KeyboardEventInit) => {
  key('keydown', name, target, init);
  key('keyup', name, target, init);
};
const element = <K extends keyof HTMLElementTagNameMap>(tag: K) =>
  document.body.appendChild(document.createElement(tag));

beforeEach(() => {
  jest.useFakeTimers();
  calls.length = 0;
  bindings = DEFAULT_BINDINGS;
  document.body.replaceChildren();
  stops.push(listenToKeyboard(() => bindings));
});
afterEach(() => {
  for (const stop of stops.splice(0)) stop();
  jest.useRealTimers();
});

test('every command has a scope and a label of its own there; no two that meet begin with the same key', () => {
  for (const id of COMMAND_IDS) expect([id, scopeOf(id) in SCOPES]).toEqual([id, true]);
  const labels = COMMAND_IDS.map((id) => `${scopeOf(id)} ${COMMANDS[id].label}`);
  expect(labels.filter((label, index) => labels.indexOf(label) !== index)).toEqual([]);
  const conflicts = COMMAND_IDS.filter((id) => id !== PEDAL && id !== 'app.bringBack').flatMap((id) =>
    COMMANDS[id].keys.flatMap((one) =>
      conflictsOf(DEFAULT_BINDINGS, id, one)
        .filter((other) => other !== 'app.bringBack' && !COMMANDS[id].pedal && other !== PEDAL)
        .map((other) => `${one}: ${id}, ${other}`),
    ),
  );
  expect(conflicts).toEqual([]);
});

test('every command is given something to do by some screen, and only here keys are listened to', () => {
  const files = readdirSync('src', { recursive: true, encoding: 'utf8' }).filter((file) =>
    /(?<!\.test)\.tsx?$/.test(file),
  );
  const read = (file: string) => readFileSync(path.join('src', file), 'utf8');
  const uses = files
    .filter((file) => !file.endsWith('catalogue.ts'))
    .map(read)
    .join('\n');
  expect(COMMAND_IDS.filter((id) => id !== PEDAL && !uses.includes(`'${id}'`))).toEqual([]);
  expect(files.filter((file) => /addEventListener\('key(?:down|up|press)'/.test(read(file)))).toEqual([
    path.join('features', 'shell', 'commands', 'keyboard.ts'),
  ]);
});

test('a key does what the foremost screen makes of it; what does nothing now leaves its key alone', () => {
  screen({ 'play.help': says('help'), 'play.drums': { when: false, run: says('drums') } });
  tap('H');
  tap('1');
  expect([calls, key('keydown', 'l')]).toEqual([['help'], true]);
  const away = screen({ 'play.help': says('nearer') });
  tap('h');
  away();
  tap('h');
  expect(calls).toEqual(['help', 'nearer', 'help']);
  const first = screen({ 'review.form.zoom': says('zoom') });
  screen({ 'app.bringBack': says('back') }, { priority: 1 });
  tap('z');
  first();
  expect(calls.at(-1)).toBe('back');
});

test('fields keep what is typed, what is focused keeps its keys, and shortcuts of the browser stay its own', () => {
  screen({
    'study.hearChord': says('chord'),
    'study.hearScale': says('scale'),
    'study.positionUp': says('up'),
  });
  screen({ 'app.palette': says('palette') });
  for (const [name, target, init] of [
    ['s', element('input'), {}],
    ['s', element('textarea'), {}],
    [' ', element('button'), {}],
    ['s', document.body, { altKey: true }],
    ['s', document.body, { ctrlKey: true }],
  ] as const)
    tap(name, target, init);
  const slider = element('div');
  slider.setAttribute('role', 'slider');
  tap('ArrowUp', slider);
  expect(calls).toEqual([]);
  tap('s', element('button'));
  tap('s', slider);
  tap('k', element('input'), { ctrlKey: true });
  expect(calls).toEqual(['scale', 'scale', 'palette']);
});

test('under a dialog nothing is done but what the dialog itself offers', () => {
  screen({ 'play.drums': says('drums') });
  element('div').setAttribute('role', 'dialog');
  tap('1');
  screen({ 'backing.tap': says('tap') }, { inDialog: true });
  tap('t');
  expect(calls).toEqual(['tap']);
});

test('a key that is kept down goes on only where the command says so', () => {
  screen({ 'study.next': says('next'), 'study.hearScale': says('scale') });
  for (const name of ['ArrowRight', 's']) {
    key('keydown', name);
    key('keydown', name, document.body, { repeat: true });
  }
  expect(calls).toEqual(['next', 'next', 'scale']);
});

test.each([' ', 'PageUp', 'PageDown', 'ArrowRight'])(
  'the pedal by %s: pressed and let go a press; kept down a hold and no press; a command of that key comes first',
  (name) => {
    screen({ 'play.next': says('press'), 'play.away': says('hold') });
    tap(name);
    key('keydown', name);
    jest.advanceTimersByTime(800);
    key('keyup', name);
    expect(calls).toEqual(['press', 'hold']);
    screen({
      'study.next': says('next'),
      'study.previous': says('previous'),
      'study.hearChord': says('chord'),
    });
    tap(name);
    expect(calls).toHaveLength(3);
    expect(['next', 'previous', 'chord']).toContain(calls[2]);
  },
);

test('a double press is none of its two presses; without a second one the first counts a little later', () => {
  screen({ 'play.next': says('press'), 'play.loop': says('double') });
  tap(' ');
  expect(calls).toEqual([]);
  jest.advanceTimersByTime(200);
  tap(' ');
  jest.advanceTimersByTime(1000);
  tap(' ');
  jest.advanceTimersByTime(400);
  expect(calls).toEqual(['double', 'press']);
});

test('on a long page keys that scroll it are not the pedal; a MIDI pedal always is', () => {
  screen({ 'drills.start': says('press') }, { scrolls: true });
  expect(key('keydown', 'PageDown')).toBe(true);
  key('keyup', 'PageDown');
  tap(' ');
  for (const detail of [true, false]) window.dispatchEvent(new CustomEvent(MIDI_PEDAL, { detail }));
  expect(calls).toEqual(['press', 'press']);
});

test('a key-up that another window had is no hold; nor is a key that a foot rests on', () => {
  screen({ 'play.next': says('press'), 'play.away': says('hold') });
  key('keydown', ' ');
  window.dispatchEvent(new Event('blur'));
  jest.advanceTimersByTime(1_000);
  key('keyup', ' ');
  key('keydown', 'ArrowRight');
  jest.advanceTimersByTime(60_000);
  key('keyup', 'ArrowRight');
  expect(calls).toEqual([]);
  tap('ArrowRight');
  expect(calls).toEqual(['press']);
});

test('a pedal closed at rest throws nothing away, is recognised, and then read the other way round; other keys are as they were', () => {
  for (const stop of stops.splice(0)) stop();
  const told: string[] = [];
  stops.push(
    listenToKeyboard(
      () => bindings,
      () => void told.push('reversed'),
    ),
  );
  screen({ 'play.next': says('press'), 'play.away': says('hold') });
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

test('while a key is being chosen it does nothing else', () => {
  screen({ 'study.hearScale': says('scale') });
  const taken: string[] = [];
  const letGo = captureKey((name) => taken.push(name));
  tap('s', element('button'));
  tap(' ', element('button'));
  letGo();
  tap('s');
  expect([taken, calls]).toEqual([['s', 'Space'], ['scale']]);
});

test('what works now is listed with its present words, the catalogue’s order kept', () => {
  screen({
    'play.away': says('away'),
    'play.next': { label: 'Count me in', run: says('go') },
    'play.loop': null,
  });
  expect(commandsNow().map(({ id, label }) => [id, label])).toEqual([
    ['play.next', 'Count me in'],
    ['play.away', COMMANDS['play.away'].label],
  ]);
  commandNow('play.next')?.run();
  expect([calls, commandNow('play.loop')]).toEqual([['go'], null]);
});

test('a key that is given to a command is taken from those it would clash with, and from no others', () => {
  const { bindings: bound, lost } = bind(DEFAULT_BINDINGS, 'review.drill', 'x');
  expect([keysOf(bound, 'review.drill'), lost, keysOf(bound, 'review.form.fix')]).toEqual([
    ['x'],
    ['review.form.fix'],
    [],
  ]);
  expect(keysOf(resetKeys(bound, 'review.form.fix'), 'review.form.fix')).toEqual([]);
  expect(resetKeys(resetKeys(bound, 'review.drill'), 'review.form.fix')).toEqual({});
  // t is the last take on Today, the guide-tone line in Study and the take in a review
  expect(bind(DEFAULT_BINDINGS, 'today.goal', 't').lost).toEqual(['today.lastTake']);
  // the pedal gets one more, and takes it from the screens it works on
  const pedal = bind(DEFAULT_BINDINGS, PEDAL, 'h');
  expect([keysOf(pedal.bindings, PEDAL)[0], pedal.lost]).toEqual(['h', ['play.help']]);
});

test('whatever keys are given, no two commands that can meet have the same one', () => {
  const own = COMMAND_IDS.filter((id) => id !== PEDAL && id !== 'app.bringBack');
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom(...own), fc.constantFrom('a', 'b', 'F2', 'Ctrl+m', '7')), {
        maxLength: 12,
      }),
      (choices) => {
        const bound = choices.reduce((now, [id, one]) => bind(now, id, one).bindings, DEFAULT_BINDINGS);
        const given = new Set(choices.map(([id]) => id));
        for (const id of given)
          for (const one of bound[id] ?? [])
            for (const other of given)
              if (other !== id && scopesMeet(scopeOf(id), scopeOf(other)))
                expect(keysOf(bound, other)).not.toContain(one);
      },
    ),
  );
});

test('what was stored is read: earlier names too; what cannot be read is as it was', () => {
  expect(readBindings({ press: [' ', 'b'], help: ['X'], loop: [1], nonsense: ['q'], drums: ['1'] })).toEqual({
    'app.pedal': ['Space', 'b'],
    'play.help': ['x'],
  });
  expect([readBindings(null), readBindings('x'), readBindings({ 'play.help': [] })]).toEqual([
    {},
    {},
    { 'play.help': [] },
  ]);
  const stored = bind(DEFAULT_BINDINGS, 'study.record', 'Ctrl+m').bindings;
  expect(readBindings(JSON.parse(JSON.stringify(stored)))).toEqual(stored);
});

test('keys are named and shown alike on every keyboard', () => {
  const named = (name: string, init = {}) => keyOfEvent(new KeyboardEvent('keydown', { key: name, ...init }));
  expect([
    named(' '),
    named('C', { shiftKey: true }),
    named('C'),
    named('?', { shiftKey: true }),
    named('z', { ctrlKey: true, shiftKey: true }),
    named('k', { metaKey: true }),
    named('Tab', { shiftKey: true }),
  ]).toEqual(['Space', 'Shift+c', 'c', '?', 'Ctrl+Shift+z', 'Ctrl+k', 'Shift+Tab']);
  expect(['Space', 'Ctrl+Shift+z', '+', 'Ctrl++', 'ArrowUp', 'h'].map(shownKey)).toEqual([
    'Space',
    'Ctrl Shift Z',
    '+',
    'Ctrl +',
    '↑',
    'H',
  ]);
  const ids: CommandId[] = COMMAND_IDS.filter((id) => COMMANDS[id].keys.some((one) => one !== one.trim()));
  expect(ids).toEqual([]);
});
