import { ChordSvg } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';
import type { NowPlaying } from '@/ui/stage/nowPlaying';
import { aimOver, type DrillStage } from './drillView';

const symbolOf = (chord: NowPlaying['now']): string => chord?.symbol ?? 'N.C.';
const fitted = (symbol: string, size: number, width: number): number =>
  Math.min(size, width / chordWidth(symbol));

/**
 * One sentence on one baseline: chord, beats until, next chord; under them the notes to play, or nothing where
 * the rule names none.
 */
export function LiveSentence({ now, stage }: { now: NowPlaying; stage: DrillStage }) {
  const counting = now.countIn !== null;
  const aims = [aimOver(stage, now.now), aimOver(stage, now.next)] as const;
  const label = (x: number, y: number, text: string) => (
    <text x={x} y={y} fontSize={18} style={{ fill: 'var(--dim)' }}>
      {text}
    </text>
  );
  const aim = (x: number, words: string, names: readonly string[]) => (
    <text x={x} y={296} fontSize={24} style={{ fill: 'var(--soft)' }}>
      {words}{' '}
      <tspan dx={6} fontSize={54} fontWeight={640} style={{ fill: 'var(--ink)' }}>
        {names.join(' ')}
      </tspan>
    </text>
  );
  return (
    <svg
      viewBox="0 0 830 310"
      className="w-full max-w-[830px]"
      role="img"
      aria-label={
        counting
          ? `count-in ${now.countIn}, first ${symbolOf(now.next)}`
          : `${symbolOf(now.now)}, ${now.beatsUntil} beats until ${symbolOf(now.next)}`
      }
    >
      {label(0, 20, counting ? 'count-in' : 'now')}
      {counting ? (
        <text x={-4} y={220} fontSize={236} fontWeight={640} style={{ fill: 'var(--now)' }}>
          {now.countIn}
        </text>
      ) : (
        <ChordSvg x={-4} y={220} symbol={symbolOf(now.now)} size={fitted(symbolOf(now.now), 236, 310)} />
      )}
      {!counting && label(336, 84, 'beats until')}
      {!counting && (
        <text
          x={334}
          y={220}
          fontSize={now.beatsUntil > 9 ? 96 : 156}
          fontWeight={640}
          style={{ fill: 'var(--now)' }}
        >
          {now.beatsUntil}
        </text>
      )}
      {label(500, 84, counting ? 'first' : 'next')}
      <ChordSvg
        x={496}
        y={220}
        symbol={symbolOf(now.next)}
        size={fitted(symbolOf(now.next), 156, 320)}
        fill="var(--soft)"
      />
      {aims[0] && !counting && aim(0, aims[0].words, aims[0].names)}
      {aims[1] && aim(500, counting ? 'begin on' : 'then', aims[1].names)}
    </svg>
  );
}

/** The same on a stand: the chord as wide as the phone, the count and the next chord under it. */
export function PhoneSentence({ now, stage }: { now: NowPlaying; stage: DrillStage }) {
  const counting = now.countIn !== null;
  const aims = [aimOver(stage, now.now), aimOver(stage, now.next)] as const;
  const label = (x: number, y: number, text: string) => (
    <text x={x} y={y} fontSize={17} style={{ fill: 'var(--dim)' }}>
      {text}
    </text>
  );
  const names = (x: number, y: number, said: readonly string[] | undefined) => (
    <text x={x} y={y} fontSize={46} fontWeight={640}>
      {said?.join(' ')}
    </text>
  );
  return (
    <svg
      viewBox="0 0 358 430"
      className="w-full"
      role="img"
      aria-label={
        counting
          ? `count-in ${now.countIn}, first ${symbolOf(now.next)}`
          : `${symbolOf(now.now)}, ${now.beatsUntil} beats until ${symbolOf(now.next)}`
      }
    >
      {label(0, 16, counting ? 'count-in' : 'now')}
      {counting ? (
        <text x={-4} y={148} fontSize={168} fontWeight={640} style={{ fill: 'var(--now)' }}>
          {now.countIn}
        </text>
      ) : (
        <ChordSvg x={-4} y={148} symbol={symbolOf(now.now)} size={fitted(symbolOf(now.now), 168, 350)} />
      )}
      {aims[0] && !counting && (
        <>
          {label(0, 200, aims[0].words)}
          {names(aims[0].words.length * 8.2 + 8, 206, aims[0].names)}
        </>
      )}
      {!counting && label(0, 252, 'beats')}
      {!counting && (
        <text
          x={-2}
          y={348}
          fontSize={now.beatsUntil > 9 ? 76 : 108}
          fontWeight={640}
          style={{ fill: 'var(--now)' }}
        >
          {now.beatsUntil}
        </text>
      )}
      {label(110, 252, counting ? 'first' : 'next')}
      <ChordSvg
        x={108}
        y={348}
        symbol={symbolOf(now.next)}
        size={fitted(symbolOf(now.next), 108, 240)}
        fill="var(--soft)"
      />
      {aims[1] && (
        <>
          {label(110, 398, counting ? 'begin on' : 'then')}
          {names(counting ? 192 : 156, 404, aims[1].names)}
        </>
      )}
    </svg>
  );
}
