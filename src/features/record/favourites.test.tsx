/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { DEFAULTS, prefer, preferences } from '../shell/preferences';
import {
  changesSince,
  hiddenSettings,
  readFavourites,
  rememberLast,
  removeFavourite,
  slowWithoutChords,
  type WholeSetup,
} from './favourites';
import { defaultSettings, type Settings } from './settings';
import { SetupHabits } from './SetupHabits';

const CHARTS = [
  { id: 'a', title: 'Lamp', text: 'title: Lamp\nkey: C\ntempo: 100\n| C7 | F7 |' },
  { id: 'b', title: 'Kiln', text: 'title: Kiln\nkey: G\ntempo: 140\n| G7 |' },
];
const { bandLevel, levels, chords } = DEFAULTS;
const setup = (change: Partial<Settings> = {}): WholeSetup => ({
  settings: { ...defaultSettings(CHARTS, 'a', null), ...change },
  band: { bandLevel, levels, chords },
});

beforeEach(() => {
  cleanup();
  prefer(DEFAULTS);
  for (const name of ['evening', 'morning']) removeFavourite(name);
});

test('what differs from the last take, in a few words each', () => {
  expect(changesSince(setup(), setup(), CHARTS)).toEqual([]);
  expect(
    changesSince(setup(), setup({ chartId: 'b', tempo: 80, choruses: 4, bars: [3, 4] }), CHARTS),
  ).toEqual(['Kiln instead of Lamp', 'bars 3–4', 'tempo 80 instead of 100', '4 choruses instead of 2']);
  expect(changesSince(setup(), slowWithoutChords(setup(), CHARTS), CHARTS)).toEqual([
    'tempo 70 instead of 100',
    'without the chords',
  ]);
  expect(changesSince(setup(), setup({ plan: { id: 'outline', home: 'A minor' } }), CHARTS)).toEqual([
    'outline instead of scale per chord',
    'home scale A minor',
  ]);
});

test('what is set under More and not as it begins', () => {
  expect(hiddenSettings(setup())).toEqual([]);
  expect(hiddenSettings(setup({ bars: [5, 8], tempoStep: -4, keyStep: 5, aloneChoruses: '2' }))).toEqual([
    'bars 5–8',
    '4 slower each chorus',
    'key round in fourths',
    'alone in choruses 2',
  ]);
  // of one chorus nothing moves
  expect(hiddenSettings(setup({ choruses: 1, tempoStep: 4 }))).toEqual([]);
});

test('what cannot be read is left out, the rest stays', () => {
  const good = { ...setup(), name: 'evening' };
  const bad = [
    { ...good, settings: { ...good.settings, tempo: 'fast' } },
    { ...good, band: { ...good.band, levels: {} } },
    { ...good, settings: { ...good.settings, plan: { id: 'none such' } } },
    { ...good, settings: { ...good.settings, bars: [0, 2] } },
    { ...setup(), name: 7 },
    null,
    'text',
  ];
  expect(readFavourites(JSON.stringify({ last: bad[0], favourites: [...bad, good] }))).toEqual({
    last: null,
    favourites: [good],
  });
  for (const text of [null, '', 'nonsense', '[]', '{"favourites":3}'])
    expect(readFavourites(text)).toEqual({ last: null, favourites: [] });
});

function Habits() {
  const [settings, setSettings] = useState<Settings>(() => setup({ tempo: 120 }).settings);
  return (
    <>
      <SetupHabits settings={settings} charts={CHARTS} onChange={setSettings} />
      <output>{settings.tempo}</output>
    </>
  );
}
const tempo = () => screen.getByRole('status').textContent;

test('as last time, slow without chords, and a favourite by name', () => {
  rememberLast(setup({ tempo: 90 }));
  render(<Habits />);
  expect(screen.getByText('tempo 120 instead of 90')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'slow, no chords' }));
  expect([tempo(), preferences().levels.chords]).toEqual(['70', 0]);
  // once more changes nothing
  fireEvent.click(screen.getByRole('button', { name: 'slow, no chords' }));
  expect(tempo()).toBe('70');
  fireEvent.click(screen.getByRole('button', { name: 'keep as a favourite' }));
  const field = screen.getByLabelText('Name of the favourite');
  fireEvent.change(field, { target: { value: 'evening' } });
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(screen.getByRole('button', { name: 'evening' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'as last time' }));
  expect([tempo(), preferences().levels.chords]).toEqual(['90', 1]);
});
