import { expect, test } from '@jest/globals';
import { bind, DEFAULT_BINDINGS } from './commands/bindings';
import { midiPedal } from './pedal';
import { DEFAULTS, readPreferences } from './preferences';

test('a MIDI pedal: controllers, notes and program changes', () => {
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
    mix: { take: 0.8, band: 0.4, click: 0 },
    device: { kind: 'stand-in', character: 'outside', delayMs: 80 },
    help: 2,
    bindings: bind(DEFAULT_BINDINGS, 'play.help', 'x').bindings,
  };
  expect(readPreferences(JSON.stringify(kept))).toEqual(kept);
});
