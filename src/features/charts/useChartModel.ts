'use client';
import { useCallback, useMemo, useState } from 'react';
import { readChart, timelineOf, type Chart } from '@/core/chart';
import { ask } from '@/audio/persistence/serverTakes';
import { useHearing } from '../shell/useHearing';
import { useAutosave } from './useAutosave';

export type StoredText = { id: string; text: string };

/** The text as it stands, what could last be read of it, and its sound. */
export function useChartModel(chart: StoredText) {
  const [text, setText] = useState(chart.text);
  const read = useMemo(() => readChart(text), [text]);
  const [good, setGood] = useState<Chart | null>(() => (read.ok ? read.value : null));
  if (read.ok && good?.text !== read.value.text) setGood(read.value);
  const [trouble, setTrouble] = useState<string | null>(null);
  const save = useCallback(
    (next: string) =>
      ask<void>(`/api/charts/${chart.id}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ text: next }),
        keepalive: true,
      }),
    [chart.id],
  );
  const { state: saving, changed } = useAutosave(save);
  const { state: hearing, hear } = useHearing();
  return {
    text: chart.text,
    readable: read.ok,
    problems: useMemo(() => (read.ok ? [] : read.problems), [read]),
    good,
    saving,
    hearing,
    trouble: trouble ?? hearing.trouble,
    setTrouble,
    edit: (next: string) => {
      setText(next);
      changed(next);
    },
    hearGood: () => {
      if (good) void hear(`band ${good.text}`, (rate) => bandOver(good, rate));
    },
    /** The written bar that sounds, from 1; null where none does or repeats make it unclear. */
    soundingBar:
      hearing.phase === 'sounding' && good && good.written.length === good.bars.length
        ? 1 + timelineOf(good, 120).bars.findLastIndex((bar) => bar.start <= hearing.beat + 1e-6)
        : null,
  };
}
export type ChartModel = ReturnType<typeof useChartModel>;

/** One chorus of the band over a chart. */
export const bandOver = ({ text, tempo }: Pick<Chart, 'text' | 'tempo'>, rate: number) => ({
  type: 'band' as const,
  chartText: text,
  tempo: tempo ?? 110,
  choruses: 1,
  countInBars: 0,
  rate,
  seed: 3,
});
