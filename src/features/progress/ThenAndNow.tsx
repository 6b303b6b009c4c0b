'use client';
import { playTroubleWords } from '@/presentation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { changesOf, readChart, steady, timelineOf } from '@/core/chart';
import { TakePlayer } from '@/audio/playback/takePlayer';
import { sourceOf } from '@/audio/playback/takeSound';
import type { TakeEnd } from '@/server/practice';
import { elementAt, type Beats } from '@/core/shared';

type Props = {
  ends: readonly [TakeEnd, TakeEnd];
  /** A kind of change of the form, `from→to`: its bars are heard; the first two where none is meant. */ change:
    string | null;
};

/** The bars before and after a change, first time they come. Bars count from 1. */
function barsOf(
  { chartText }: TakeEnd,
  change: string | null,
): { readonly bars: readonly [number, number]; readonly span: readonly [Beats, Beats] } | null {
  const read = readChart(chartText);
  if (!read.ok) return null;
  const timeline = timelineOf(read.value, 100);
  const found =
    change === null
      ? undefined
      : changesOf(timeline, 1).find(({ from, to }) => `${from.symbol}→${to.symbol}` === change);
  const last = Math.min(timeline.bars.length, Math.max(2, (found?.bar ?? 1) + 1));
  const first = Math.max(1, last - 1);
  return {
    bars: [first, last],
    span: [elementAt(timeline.bars, first - 1).start, elementAt(timeline.bars, last - 1).end],
  };
}

/** The same bars of the first take and the latest, one after the other. */
export function ThenAndNow({ ends, change }: Props) {
  const part = useMemo(() => barsOf(ends[0], change), [ends, change]);
  if (!part) return null;
  return <Part key={part.bars.join()} ends={ends} bars={part.bars} span={part.span} />;
}

const TAIL_BEATS = 0.5;

type PartProps = {
  ends: Props['ends'];
  bars: readonly [number, number];
  span: readonly [Beats, Beats];
};

function Part({ ends, bars, span }: PartProps) {
  const { sounding, trouble, hear } = usePlayers(ends, span);
  const where = bars[0] === bars[1] ? `bar ${bars[0]}` : `bars ${bars[0]} and ${bars[1]}`;
  return (
    <section aria-label="Then and now">
      <h2 className="heading border-b border-line">Then and now: {where}</h2>
      <ul>
        {ends.map((end, index) => (
          <li
            key={end.id}
            className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-b border-line py-1.5"
          >
            <span>
              <b className="font-[580]">{index === 0 ? 'Then' : 'Now'}</b>{' '}
              <span className="text-soft">
                take {end.number}, {end.when}, at {Math.round(end.tempo)}
              </span>
            </span>
            <button
              type="button"
              aria-pressed={sounding === index}
              className="quiet !py-1"
              onClick={() => hear([index])}
            >
              {sounding === index ? 'stop' : 'hear it'}
            </button>
          </li>
        ))}
      </ul>
      <p className="flex flex-wrap gap-x-5 pt-2 text-[15px]">
        <button type="button" className="text-soft underline hover:text-ink" onClick={() => hear([0, 1])}>
          one after the other
        </button>
        {trouble && <span role="alert">{trouble}</span>}
      </p>
    </section>
  );
}

/** One player for each take; asked for both, the second begins where the first has ended. */
function usePlayers(ends: Props['ends'], [from, to]: readonly [Beats, Beats]) {
  const [players] = useState(() =>
    ends.map((end) => {
      const pace = end.pace ?? steady(end.tempo);
      return new TakePlayer(sourceOf({ ...end, pace, soundGone: false, endBeat: to + TAIL_BEATS }));
    }),
  );
  const [sounding, setSounding] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const queue = useRef<number[]>([]);
  useEffect(() => {
    const follow = (player: TakePlayer, index: number) => {
      const { phase, trouble: what } = player.getState();
      if (what) {
        queue.current = [];
        setTrouble(playTroubleWords(what));
      }
      if (phase !== 'idle') return setSounding(index);
      setSounding((now) => (now === index ? null : now));
      if (queue.current[0] !== index) return;
      queue.current.shift();
      const next = queue.current[0];
      if (next !== undefined) void elementAt(players, next).play(from, null);
    };
    const stops = players.map((player, index) => player.subscribe(() => follow(player, index)));
    return () => {
      for (const stop of stops) stop();
      for (const player of players) void player.close();
    };
  }, [players, from]);
  const hear = (order: number[]) => {
    setTrouble(null);
    queue.current = [];
    for (const player of players) player.pause();
    const isStop = order.length === 1 && order[0] === sounding;
    if (isStop) return;
    queue.current = order;
    void elementAt(players, elementAt(order, 0)).play(from, null);
  };
  return { sounding, trouble, hear };
}
