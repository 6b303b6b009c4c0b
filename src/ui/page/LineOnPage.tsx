'use client';
import { useCallback, useEffect, useMemo, useRef, type ComponentProps } from 'react';
import type { Beats } from '@/core/shared';
import type { LineOnForm } from '../form/LineOnForm';
import { instrumentOf, useGuitar } from '../instrument';
import { degreesOf, pageOf } from './reportPage';
import { ScoreList } from './ScoreList';
import { ScorePage } from './ScorePage';

const ROW = 4;

/** A line on staff and tablature, or on tablature alone: as much of it as the form would show. */
export function LineOnPage({
  report,
  drawn,
  timeline,
  passes = 1,
  cursor = null,
  rows = 3,
  withStaff,
  whole = false,
}: ComponentProps<typeof LineOnForm> & { withStaff: boolean; whole?: boolean }) {
  const guitar = useGuitar();
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const bars = useMemo(() => {
    const inSight = ({ chorus, index }: { chorus: number; index: number }) =>
      chorus < passes && index < rows * ROW;
    return pageOf(report, timeline, instrument).filter(inSight);
  }, [report, timeline, instrument, passes, rows]);
  const degrees = useMemo(() => degreesOf(drawn), [drawn]);
  return (
    <>
      <ScorePage
        bars={bars}
        strings={instrument.tuning.length}
        withStaff={withStaff}
        whole={whole}
        degreeOf={useCallback((index: number) => degrees.get(index) ?? null, [degrees])}
        follow={useFollow(cursor)}
      />
      <ScoreList bars={bars} degreeOf={(index) => degrees.get(index)?.label ?? ''} />
    </>
  );
}

/** Passes on where it sounds without drawing the page again. */
function useFollow(cursor: Beats | null): (move: (beat: Beats | null) => void) => () => void {
  const moves = useRef(new Set<(beat: Beats | null) => void>());
  useEffect(() => {
    for (const move of moves.current) move(cursor);
  }, [cursor]);
  return useCallback((move) => {
    const { current } = moves;
    current.add(move);
    return () => void current.delete(move);
  }, []);
}
