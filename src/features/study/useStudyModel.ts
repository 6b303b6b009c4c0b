'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useReducer, useState } from 'react';
import { readChart, writeOverride, type Chart } from '@/core/chart';
import type { Instrument } from '@/core/neck';
import { overlayOf, planFromWords, presetsFor, type Preset, type PlanWords } from '@/core/plan';
import { elementAt, unwrap } from '@/core/shared';
import { ask } from '@/audio/persistence/serverTakes';
import { instrumentOf, useGuitar, type Guitar } from '@/ui/instrument';
import { useHearing, type HearingState } from '../shell/useHearing';
import { handsAt, threadAt } from './PlaceView';
import { soundOf, type Heard } from './studySound';
import { openingPlace, studyReducer, type StudyAction, type StudyPlace, type StudyState } from './studyState';
import { nextChange, studyOf, type Study, type StudyCell } from './studyView';

/** All that the views of Study and its commands work with. */
export type StudyModel = {
  readonly chartId: string;
  readonly chart: Chart;
  readonly plan: PlanWords;
  readonly presets: readonly Preset[];
  readonly study: Study;
  readonly state: StudyState;
  readonly dispatch: (action: StudyAction) => void;
  /** The chosen chord, and the next one that differs. */
  readonly index: number;
  readonly cell: StudyCell;
  readonly next: StudyCell;
  readonly guitar: Guitar;
  readonly instrument: Instrument;
  /** The lowest fret of the hand over each chord. */
  readonly hands: readonly number[];
  readonly stops: ReturnType<typeof threadAt>;
  readonly hearing: HearingState;
  readonly trouble: string | null;
  readonly choosePlan: (plan: PlanWords) => void;
  readonly hear: (what: Heard) => void;
  /** Sets the player's own reading of the chosen chord; null takes it away. */
  readonly read: (reading: { degree: string | null; scale: string | null } | null) => void;
  readonly record: () => void;
  readonly edit: () => void;
};

export function useStudyModel(
  stored: { readonly id: string; readonly text: string },
  first: PlanWords,
  place: StudyPlace,
): StudyModel {
  const router = useRouter();
  const { text, chart, trouble, keep } = useChartText(stored);
  const { plan, before, study, presets, choosePlan } = usePlan(chart, first);
  const guitar = useGuitar();
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const limits = { cells: study.cells.length, highest: Math.max(1, instrument.frets - 4) };
  const [state, dispatch] = useReducer(studyReducer, place, openingPlace);
  const { position, view } = state;
  const hands = useMemo(() => handsAt(study, position, instrument), [study, position, instrument]);
  const index = Math.min(state.selected, study.cells.length - 1);
  const cell = elementAt(study.cells, index);
  const { state: hearing, hear } = useHearing();
  useAddress({ at: index, position, view, plan });
  return {
    chartId: stored.id,
    chart,
    plan,
    presets,
    study,
    state,
    dispatch: (action) => dispatch({ ...action, limits }),
    index,
    cell,
    next: nextChange(study, index),
    guitar,
    instrument,
    hands,
    stops: useMemo(
      () => (view === 'place' ? threadAt(study, hands, instrument) : []),
      [view, study, hands, instrument],
    ),
    hearing,
    trouble,
    choosePlan,
    hear: (what) => {
      const { id, request } = soundOf({ what, text, chart, index, bar: cell.bar, plan, before });
      void hear(id, request);
    },
    read: (reading) => {
      const nth = nthOf(study, index);
      const own = text.split('\n').filter((line) => !isReadingOf(line, cell.bar, nth));
      const line = reading && writeOverride({ bar: cell.bar, nth, ...reading });
      void keep(`${own.join('\n').trimEnd()}\n${line === null ? '' : `${line}\n`}`);
    },
    record: () => router.push(`/record?chart=${stored.id}&plan=${encodeURIComponent(JSON.stringify(plan))}`),
    edit: () => router.push(`/charts/${stored.id}`),
  };
}

/** The chart with the player's own readings in it, saved with each of them. */
function useChartText(stored: { readonly id: string; readonly text: string }) {
  const [text, setText] = useState(stored.text);
  const [trouble, setTrouble] = useState<string | null>(null);
  const chart = useMemo(() => unwrap(readChart(text)), [text]);
  const keep = useCallback(
    async (changed: string) => {
      const read = readChart(changed);
      if (!read.ok) return setTrouble(read.problems[0].message);
      setText(changed);
      setTrouble(null);
      try {
        await ask(`/api/charts/${stored.id}`, {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ text: changed }),
        });
      } catch {
        setTrouble('This reading is not saved yet: the server does not answer.');
      }
    },
    [stored.id],
  );
  return { text, chart, trouble, keep };
}

/** The plan in its words, what Study derives from it, and the plan before it. */
function usePlan(chart: Chart, first: PlanWords) {
  const [plan, setPlan] = useState<PlanWords>(first);
  const [before, setBefore] = useState<PlanWords | null>(null);
  const study = useMemo(() => {
    const choice = planFromWords(plan);
    const overlay = plan.overlay ? overlayOf(chart, plan.overlay) : null;
    return studyOf(chart, choice.ok ? choice.value : { id: plan.id }, overlay?.ok ? overlay.value : null);
  }, [chart, plan]);
  const presets = useMemo(() => presetsFor(study.harmony), [study.harmony]);
  const choosePlan = (next: PlanWords) => {
    setBefore(plan);
    setPlan(next);
  };
  return { plan, before, study, presets, choosePlan };
}

/** Which chord of its bar a cell is, from 1. */
const nthOf = (study: Study, index: number): number =>
  index - study.cells.findIndex((cell) => cell.bar === elementAt(study.cells, index).bar) + 1;

function isReadingOf(line: string, bar: number, nth: number): boolean {
  const found = /^\s*reading\s*:\s*(\d+)(?:\.(\d+))?\s*=/.exec(line);
  return found !== null && Number(found[1]) === bar && Number(found[2] ?? 1) === nth;
}

/** Every place in Study has its own address. */
function useAddress({ at, position, view, plan }: Required<StudyPlace> & { plan: PlanWords }): void {
  useEffect(() => {
    const query = new URLSearchParams({
      at: String(at),
      position: String(position),
      view,
      plan: JSON.stringify(plan),
    });
    window.history.replaceState(window.history.state, '', `${window.location.pathname}?${query.toString()}`);
  }, [at, position, view, plan]);
}
