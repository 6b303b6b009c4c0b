'use client';
import { useMemo } from 'react';
import { typeset } from '@/core/music';
import { followedBars, type FollowedBar, type Judgement } from '@/core/review';
import { followedSummary, followedWords } from '@/presentation';
import { Board } from './BoardFrame';

type Props = { judgement: Judgement; overlay: string; tempo: number };

const NAMES: Readonly<Record<FollowedBar['follows'], string>> = {
  written: 'the written chord',
  laid: 'the chord laid over',
  both: 'fits both',
  neither: 'fits neither',
  rest: 'rest',
};

/** Bar by bar, which of the two the line followed: the written chord, or the one laid over it. */
export function SuperimposedBoard({ judgement: { chart, plan, report }, overlay, tempo }: Props) {
  const bars = useMemo(
    () => followedBars({ chart, overlay, tempo, plan, report }),
    [chart, overlay, tempo, plan, report],
  );
  if (bars.length === 0) return null;
  return (
    <Board
      name="Chords laid over"
      facts={followedSummary(bars)}
      table={{
        caption: 'Which chord each bar followed',
        head: ['Bar', 'Written', 'Laid over', 'Followed'],
        rows: bars.map(({ bar, written, laid, follows }) => [
          bar,
          written.map(typeset).join(' '),
          laid.map(typeset).join(' '),
          NAMES[follows],
        ]),
      }}
    >
      <ol className="mt-2 grid grid-cols-4 gap-x-3 gap-y-2 text-[15px]">
        {bars.map((one) => (
          <Bar key={one.bar} one={one} />
        ))}
      </ol>
    </Board>
  );
}

const Bar = ({ one }: { one: FollowedBar }) => (
  <li
    className="grid grid-cols-[28px_minmax(0,1fr)] border-t border-line pt-1"
    aria-label={followedWords(one)}
  >
    <span className="text-dim">{one.bar}</span>
    <span>
      <Chords symbols={one.laid} isFollowed={one.follows === 'laid' || one.follows === 'both'} />
      <Chords symbols={one.written} isFollowed={one.follows === 'written' || one.follows === 'both'} />
    </span>
  </li>
);

const Chords = ({ symbols, isFollowed }: { symbols: readonly string[]; isFollowed: boolean }) => (
  <span className={`block truncate ${isFollowed ? 'font-[640] text-ink' : 'text-dim line-through'}`}>
    {symbols.map(typeset).join(' ')}
  </span>
);
