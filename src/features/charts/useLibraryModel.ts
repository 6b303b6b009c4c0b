'use client';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { LIBRARY, readChart, type Chart, type LibraryForm } from '@/core/chart';
import { elementAt, unwrap } from '@/core/shared';
import { ServerRefusal } from '@/audio/persistence/serverTakes';
import { useHearing } from '../shell/useHearing';
import { bandOver } from './useChartModel';
import { makeChart } from './newChart';

export function useLibraryModel() {
  const router = useRouter();
  const [chosen, choose] = useState<LibraryForm>(elementAt(LIBRARY, 0));
  const [trouble, setTrouble] = useState<string | null>(null);
  const { state: hearing, hear } = useHearing();
  const chart: Chart = useMemo(() => unwrap(readChart(chosen.text)), [chosen]);
  const create = async (text: string) => {
    try {
      const { id } = await makeChart(text);
      router.push(`/charts/${id}`);
      router.refresh();
    } catch (error) {
      const refused = error instanceof ServerRefusal;
      setTrouble(refused ? error.message : 'The server does not answer; nothing was made.');
    }
  };
  return {
    chosen,
    choose,
    chart,
    hearing,
    trouble: trouble ?? hearing.trouble,
    create,
    /** Makes a chart of a file: chart text, MusicXML or MIDI markers. */
    bring: async (file: File | undefined) => {
      if (!file) return;
      const read = await (await import('./moveChart')).chartFromFile(file);
      if (read.ok) return create(read.value);
      const [{ bar, message, suggestion }] = read.problems;
      setTrouble([bar === undefined ? '' : `Measure ${bar}:`, message, suggestion].filter(Boolean).join(' '));
    },
    listen: () => void hear(`form ${chosen.id}`, (rate) => bandOver({ ...chart, text: chosen.text }, rate)),
    step: (by: 1 | -1) =>
      choose((form) => elementAt(LIBRARY, (LIBRARY.indexOf(form) + by + LIBRARY.length) % LIBRARY.length)),
  };
}
export type LibraryModel = ReturnType<typeof useLibraryModel>;
