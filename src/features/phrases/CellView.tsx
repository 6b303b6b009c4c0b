'use client';
import { useMemo, useState, type ReactNode } from 'react';
import { readChart, timelineOf } from '@/core/chart';
import { cellOver, movedCell, phraseUnder, type CellMove, type PhraseNote } from '@/core/phrases';
import { elementAt, unwrap } from '@/core/shared';
import { cellWords, stepWords } from '@/presentation';
import { Checkbox, Select } from '@/ui/controls';
import { LineShown } from '@/ui/page/LineShown';
import { LineOnNeck } from '@/ui/neck/LineOnNeck';
import { beatOf, HearAndKeep } from './Hear';
import { drawnLine } from './phraseView';
import type { Bench, WorkshopChart } from './bench';

const STEPS = [1, -1, 2, -2, 3, -3, 4, 5, -5] as const;
const TIMES = [1, 2, 3, 4, 5] as const;
const HOMES = ['root', 'third', 'fifth', 'seventh'] as const;
/** As much of the phrase as a hand moves in one piece. */
const CELL_NOTES = 4;

/** The first notes of the phrase as a cell that leaves by equal steps and comes home to a tone of the chord. */
export function CellView({ bench, chart }: { bench: Bench; chart: WorkshopChart }) {
  const { stored, hearing } = bench;
  const [move, setMove] = useState<CellMove>({ by: 1, times: 1, isThereAndBack: true, home: 'third' });
  const [bar, setBar] = useState(1);
  const form = useMemo(() => unwrap(readChart(chart.text)), [chart]);
  const timeline = useMemo(() => timelineOf(form, stored.phrase.tempo), [form, stored]);
  const first = timeline.bars[bar - 1] ?? elementAt(timeline.bars, 0);
  const made = useMemo(() => {
    const cell = cellOver(stored.phrase, CELL_NOTES, form, first.start);
    return cell && movedCell({ chart: form, tempo: stored.phrase.tempo }, cell, move, first.start);
  }, [form, stored, move, first]);
  return (
    <section aria-label="A moving cell" className="mt-3">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 text-soft">
        <Labelled name="first notes, from bar">
          <Select
            label="From bar"
            look="line"
            value={first.index + 1}
            options={timeline.bars.map(({ index }) => [index + 1, String(index + 1)] as const)}
            onChange={setBar}
          />
        </Labelled>
        <Labelled name="moved">
          <Select
            label="Moved by"
            look="line"
            value={move.by}
            options={STEPS.map((by) => [by, stepWords(by)] as const)}
            onChange={(by) => setMove({ ...move, by })}
          />
        </Labelled>
        <Labelled name="times">
          <Select
            label="Times"
            look="line"
            value={move.times}
            options={TIMES.map((times) => [times, String(times)] as const)}
            onChange={(times) => setMove({ ...move, times })}
          />
        </Labelled>
        <Labelled name="and back">
          <Checkbox
            label="and back"
            checked={move.isThereAndBack}
            onChange={(isThereAndBack) => setMove({ ...move, isThereAndBack })}
          />
        </Labelled>
        <Labelled name="home to the">
          <Select
            label="Home to"
            look="line"
            value={move.home}
            options={HOMES.map((home) => [home, home] as const)}
            onChange={(home) => setMove({ ...move, home })}
          />
        </Labelled>
      </div>
      {made?.ok ? (
        <CellLine bench={bench} chart={chart} notes={made.value} hearing={hearing} />
      ) : (
        <p role="status" className="mt-3 border-l-[3px] border-now pl-4">
          {made
            ? `${made.problems[0].message} ${made.problems[0].suggestion ?? ''}`
            : 'No chord sounds there.'}
        </p>
      )}
    </section>
  );
}

const Labelled = ({ name, children }: { name: string; children: ReactNode }) => (
  <span className="flex items-center gap-2">
    {name} {children}
  </span>
);

type LineProps = Pick<Bench, 'hearing'> & {
  bench: Bench;
  chart: WorkshopChart;
  notes: readonly PhraseNote[];
};

function CellLine({ bench: { stored, keep }, chart, notes, hearing }: LineProps) {
  const { tempo } = stored.phrase;
  const under = useMemo(
    () => phraseUnder(unwrap(readChart(chart.text)), tempo, notes),
    [chart, tempo, notes],
  );
  const form = useMemo(() => unwrap(readChart(under.chartText)), [under]);
  const line = useMemo(() => drawnLine(form, tempo, under.notes), [form, tempo, under]);
  const id = `cell ${JSON.stringify(under)}`;
  const beat = beatOf(hearing, id);
  return (
    <>
      <p className="my-2 flex flex-wrap items-baseline gap-x-4 text-[15px] text-dim">
        {cellWords(line.report)}
        <HearAndKeep
          hearing={hearing}
          line={{ id, ...under }}
          name="the moving cell"
          onKeep={() => keep(`${stored.name}, moving`.slice(0, 80), under)}
        />
      </p>
      <LineShown {...line} cursor={beat} name="the moving cell" />
      <LineOnNeck report={line.report} beat={beat} name="The moving cell" />
    </>
  );
}
