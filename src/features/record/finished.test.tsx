/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { analyse } from '@/core/analyse';
import { improvise } from '@/core/band';
import { harmonyOf, readChart, timelineOf } from '@/core/chart';
import { planOf } from '@/core/plan';
import { findingsOver, firstPageOf, marksOf } from '@/core/findings';
import { unwrap } from '@/core/shared';
import { Finished, resultOf } from './Finished';
import { DEFAULT_BINDINGS } from '../shell/commands/bindings';
import { listenToKeyboard } from '../shell/commands/keyboard';
import { NoInput } from '../shell/NoInput';
import { OneLandingPicture } from './OneLandingPicture';

afterEach(cleanup);
const chart = unwrap(readChart('key: Bb\n| Bb7 | Eb7 | Cm7 F7 | Bb7 |'));
const plan = { id: 'outline' as const };
const report = analyse({
  chart,
  tempo: 120,
  notes: improvise({ chart, tempo: 120, choruses: 4, plan, seed: 3, profile: { meet: 0.3 } }),
  choruses: 4,
  plan,
});
const marks = marksOf(
  report,
  planOf(plan, harmonyOf(chart, timelineOf(chart, 120)), timelineOf(chart, 120)),
  chart,
  120,
);
const request = { chart, tempo: 120, plan, report };
const result = resultOf(14, report, marks, firstPageOf(request, findingsOver([request])));
const way = (words: string, act = () => undefined) => ({ words, act });
const TAKE = { id: 'a', title: 'Walk', passes: 4, tempo: 120, kept: true, cut: false, judging: false };
const ways = {
  again: way('again from the top'),
  stay: way('stay and look'),
  discard: way('throw this take away'),
  review: () => undefined,
  setup: () => undefined,
};

test('the landing’s groups are all of its changes, and the two bars to loop lead into it', () => {
  const { landing } = result;
  const of = report.changes.filter(
    ({ from, to }, index) => from === landing!.from && to === landing!.to && marks[index] !== 'rest',
  );
  expect(landing!.groups.reduce((sum, { count }) => sum + count, 0)).toBe(of.length);
  expect(result.loop![1] - result.loop![0]).toBe(1);
  expect(result.loop!.includes(landing!.bar)).toBe(true);
  render(<OneLandingPicture landing={landing!} />);
  expect(screen.getByRole('img').getAttribute('aria-label')).toContain(String(landing!.groups[0]!.count));
});

test('while the next take comes, press stays; when it stays, press plays again and twice loops', () => {
  const stay = jest.fn<() => undefined>();
  const flow = { countdown: () => ({ left: 2.4, of: 4 }), isCounting: () => true };
  render(
    <Finished
      take={TAKE}
      result={result}
      next={flow}
      {...ways}
      stay={way('stay and look', stay)}
      loop={way('loop bars 2 and 3')}
    />,
  );
  expect(screen.getByRole('timer').textContent).toContain('Again from the top in 3 seconds');
  fireEvent.click(screen.getByRole('button', { name: /stay and look/ }));
  expect(stay).toHaveBeenCalledTimes(1);
  expect(screen.queryByRole('button', { name: /loop bars/ })).toBeNull();
  cleanup();
  render(<Finished take={TAKE} result={result} next={null} {...ways} loop={way('loop bars 2 and 3')} />);
  expect(screen.getByRole('button', { name: /again from the top/ })).not.toBeNull();
  expect(screen.getByRole('button', { name: /loop bars 2 and 3/ })).not.toBeNull();
});

test('without the server the take is safe and says so', () => {
  render(<Finished take={{ ...TAKE, kept: false }} result={null} next={null} {...ways} loop={null} />);
  expect(screen.getByRole('heading').textContent).toContain('The take is safe.');
  expect(screen.queryByText(/open the review/)).toBeNull();
});

test('a closed microphone leaves every other way open, under its number', () => {
  const standIn = jest.fn<() => void>();
  render(
    <NoInput
      trouble="refused"
      title="Walk"
      onAgain={() => undefined}
      onDevice={() => undefined}
      onFile={() => undefined}
      onStandIn={standIn}
      onBack={() => undefined}
    />,
  );
  expect(screen.getByRole('alert').textContent).toContain('The microphone stays closed.');
  const stop = listenToKeyboard(() => DEFAULT_BINDINGS);
  fireEvent.keyDown(document.body, { key: '3' });
  stop();
  expect(standIn).toHaveBeenCalledTimes(1);
});
