'use client';
import { useEffect, useState } from 'react';
import { byWorth, differentExamples, LINES_OFFERED, type Drill, type RankedExample } from '@/core/drills';
import type { Level } from '@/core/lines';

/** Lines asked for, the best of those found so far first, and whether more are still looked for. */
export type LinesOffered = { readonly lines: readonly RankedExample[]; readonly isLooking: boolean };
type Found = LinesOffered & { readonly drill: Drill; readonly level: Level };

/** Different lines for a drill, found one after the other so that the page answers meanwhile; none while unasked. */
export function useLines(drill: Drill, level: Level, isAsked: boolean): LinesOffered {
  const [found, setFound] = useState<Found | null>(null);
  useEffect(() => {
    if (!isAsked) return;
    const search = differentExamples(drill, { level });
    let lines: readonly RankedExample[] = [];
    let timer: ReturnType<typeof setTimeout>;
    const look = () => {
      const { value, done } = search.next();
      if (value) lines = byWorth([...lines, value]);
      const isLooking = !done && lines.length < LINES_OFFERED;
      setFound({ lines, isLooking, drill, level });
      if (isLooking) timer = setTimeout(look);
    };
    timer = setTimeout(look);
    return () => clearTimeout(timer);
  }, [drill, level, isAsked]);
  return found && isAsked && found.drill === drill && found.level === level
    ? found
    : { lines: [], isLooking: isAsked };
}
