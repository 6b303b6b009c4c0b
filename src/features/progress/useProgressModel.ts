'use client';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { elementAt } from '@/core/shared';
import { ask } from '@/audio/persistence/serverTakes';
import type { TuneProgress } from '@/server/practice';
import {
  approachRows,
  changeRows,
  SIGHTS,
  toneRows,
  type CourseRow,
  type ProgressHeadline,
} from './progressView';

export type DrillLine = {
  readonly id: string;
  readonly name: string;
  readonly title: string;
  readonly fastest: number | null;
  readonly now: number;
  readonly tries: number;
};
export type Props = {
  tune: TuneProgress;
  titles: readonly string[];
  chosen: string | null;
  thisWeek: number;
  chartId: string | null;
  /** Its drills: tempo reached, attempts. */ drills: readonly DrillLine[];
};

function rowsOf(sight: ProgressHeadline, progress: TuneProgress['progress']): CourseRow[] {
  if (sight === 'changes') return changeRows(progress);
  return sight === 'tones' ? toneRows(progress) : approachRows(progress);
}

export function useProgressModel({ tune: { progress }, chartId }: Props) {
  const router = useRouter();
  const [sight, setSight] = useState<ProgressHeadline>('changes');
  const [at, setAt] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const rows = useMemo(() => rowsOf(sight, progress), [sight, progress]);
  const chosen = Math.min(at, rows.length - 1);
  const row = rows[chosen];
  const show = (next: ProgressHeadline) => {
    setSight(next);
    setAt(0);
  };
  return {
    sight,
    rows,
    row,
    chosen,
    trouble,
    choose: setAt,
    show,
    nextSight: () =>
      show(elementAt(SIGHTS, (SIGHTS.findIndex(([one]) => one === sight) + 1) % SIGHTS.length)[0]),
    step: (by: 1 | -1) => setAt(Math.max(0, Math.min(rows.length - 1, chosen + by))),
    /** Takes up a drill of the chosen kind of change; elsewhere, shows all drills of the tune. */
    drill: () => {
      if (!chartId || sight !== 'changes' || !row?.from)
        return router.push(`/drills${chartId ? `?chart=${chartId}` : ''}`);
      void ask<{ id: string }>('/api/drills', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ chartId, kind: 'one-target', change: row.id }),
      })
        .then(({ id }) => router.push(`/drills/${id}`))
        .catch((error: Error) => setTrouble(error.message));
    },
  };
}
export type ProgressModel = ReturnType<typeof useProgressModel>;
