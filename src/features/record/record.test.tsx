/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { chooseOption } from '../../../tests/support/controls';
import { FormPreview } from './FormPreview';
import { AudioInput } from '@/audio/input/audioInput';
import { defaultSettings, type RecordChart, type Settings } from './settings';
import { Setup } from './Setup';
import { Stage } from './Stage';

afterEach(cleanup);
const TEXT = 'title: Lamp\nkey: Bb\ntempo: 96\n| Bb7 | Eb7 | Cm7 F7 | Bb7 |';
const chart = unwrap(readChart(TEXT));
const CHARTS: RecordChart[] = [
  { id: 'a', title: 'Lamp', text: TEXT },
  { id: 'b', title: 'Waltz', text: 'title: Waltz\ntempo: 140\nmeter: 3/4\n| C |' },
];

test('the stage says the chord now and the next for the ear, and where in the form it is', () => {
  render(<Stage chart={chart} tempo={96} choruses={2} plan={{ id: 'scale-per-chord' }} beat={9.2} />);
  expect(screen.getByTestId('chord-now').textContent).toBe('Cm7');
  expect(screen.getByTestId('chord-next').textContent).toBe('F7');
  expect(screen.getByTestId('chorus').textContent).toBe('Chorus 1 of 2');
  expect(screen.getByTestId('bar').textContent).toBe('bar 3 of 4');
});

test('in the count-in the first chord is named as the one to come', () => {
  const { container } = render(
    <Stage chart={chart} tempo={96} choruses={1} plan={{ id: 'outline' }} beat={-2.5} />,
  );
  expect(screen.getByTestId('chord-next').textContent).toBe('B♭7');
  expect([...container.querySelectorAll('text')].map((text) => text.textContent)).toEqual(
    expect.arrayContaining(['count-in', 'first', '3']),
  );
});

test('a long symbol is set smaller, so that it stays in its column', () => {
  const long = unwrap(readChart('| Bbm7b5 | Eb7 |'));
  const { container } = render(
    <Stage chart={long} tempo={96} choruses={1} plan={{ id: 'outline' }} beat={0} />,
  );
  const sizes = [...container.querySelectorAll('svg text')].map((text) =>
    Number(text.getAttribute('font-size')),
  );
  expect(Math.max(...sizes)).toBeLessThanOrEqual(256);
  const { container: short } = render(
    <Stage chart={chart} tempo={96} choruses={1} plan={{ id: 'outline' }} beat={0} />,
  );
  expect(
    Math.max(
      ...[...short.querySelectorAll('svg text')].map((text) => Number(text.getAttribute('font-size'))),
    ),
  ).toBeGreaterThan(Math.min(...sizes));
});

test('the form preview writes the plan’s targets under each change', () => {
  const { container } = render(<FormPreview chart={chart} tempo={96} plan={{ id: 'outline' }} />);
  const words = [...container.querySelectorAll('text')].map((text) => text.textContent);
  expect(words).toEqual(expect.arrayContaining(['D A♭', 'G D♭', 'E♭ B♭', 'A E♭']));
});

const RIG = new AudioInput();
function Held({
  onStart = () => undefined,
  onFile = () => undefined,
  trouble = null,
}: {
  onStart?: () => void;
  onFile?: (file: File, barOneAt: number) => void;
  trouble?: string | null;
}) {
  const [settings, setSettings] = useState<Settings>(() => defaultSettings(CHARTS, 'a', null));
  return (
    <>
      <Setup
        charts={CHARTS}
        settings={settings}
        onChange={setSettings}
        onStart={onStart}
        onFile={onFile}
        onStandIn={() => undefined}
        rig={RIG}
        trouble={trouble}
      />
      <output>{JSON.stringify(settings)}</output>
    </>
  );
}
const settings = (): Settings => JSON.parse(screen.getByRole('status').textContent!) as Settings;

test('another chart brings its own tempo', async () => {
  render(<Held />);
  expect(settings().tempo).toBe(96);
  await chooseOption('Chart', 'Waltz');
  expect(settings()).toMatchObject({ chartId: 'b', tempo: 140 });
});

test.each([
  ['500', 320],
  ['3', 40],
  ['77.6', 78],
  ['abc', 96],
  ['', 96],
])('a tempo typed as “%s” becomes %i', (typed, tempo) => {
  render(<Held />);
  const field = screen.getByLabelText('Tempo');
  fireEvent.change(field, { target: { value: typed } });
  fireEvent.blur(field);
  expect(settings().tempo).toBe(tempo);
});

test('a recording chosen or dropped comes with where its bar 1 begins', () => {
  const onFile = jest.fn<(file: File, barOneAt: number) => void>();
  render(<Held onFile={onFile} />);
  fireEvent.change(screen.getByLabelText(/Bar 1 begins at/), { target: { value: '1.25' } });
  const file = new File(['x'], 'take.wav', { type: 'audio/wav' });
  fireEvent.change(screen.getByLabelText('Recording'), { target: { files: [file] } });
  fireEvent.drop(screen.getByRole('button', { name: 'Bring a recording' }).parentElement!, {
    dataTransfer: { files: [file] },
  });
  expect(onFile.mock.calls).toEqual([
    [file, 1.25],
    [file, 1.25],
  ]);
});

test('trouble is an alert, and counting in is one press', () => {
  const onStart = jest.fn<() => void>();
  render(<Held onStart={onStart} trouble="The microphone stays closed." />);
  expect(screen.getByRole('alert').textContent).toBe('The microphone stays closed.');
  fireEvent.click(screen.getByRole('button', { name: /Count me in/ }));
  expect(onStart).toHaveBeenCalledTimes(1);
});
