'use client';
import { elementAt } from '@/core/shared';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { KeyOf } from '../shell/commands/KeyOf';
import { Handover, type NeckLayer } from './Handover';
import { HomeGrid } from './HomeGrid';
import { PlanChooser } from './PlanChooser';
import { ReadingCard } from './ReadingCard';
import { ShapesView } from './ShapesView';
import { StudyForm } from './StudyForm';
import type { StudyModel } from './useStudyModel';
import { factsOf } from './studyFacts';
import { movesOf } from './studyFacts';

const LAYERS: Record<NeckLayer, string> = {
  shape: 'chord tones',
  scale: 'and its scale',
  plan: 'and the plan',
};

/** The form or the shapes of one chord, with the plan and the reading of the chosen chord beside. */
export function ChordView({ model, barsARow }: { model: StudyModel; barsARow: number }) {
  const { study, state, index, cell, chart, plan, presets, choosePlan, read } = model;
  return (
    <div className="grid gap-x-6 gap-y-6 pt-3 pb-4 lg:grid-cols-[minmax(0,880px)_minmax(0,1fr)]">
      <div className="min-w-0">
        {state.view === 'thread' && <ThreadView model={model} barsARow={barsARow} />}
        {state.view === 'shapes' && <ShapesOfChord model={model} />}
        {state.view === 'grid' && <GridView model={model} />}
      </div>
      <aside className="min-w-0">
        <PlanChooser
          plan={plan}
          presets={presets}
          place={{
            chord: cell.chord?.symbol ?? null,
            degree: cell.reading?.degree ?? null,
            section: elementAt(study.timeline.bars, cell.bar - 1).section,
            bar: cell.bar,
          }}
          homeWithout={elementAt(study.homesWithout, index)}
          clashes={study.clashes}
          chart={chart}
          onChange={choosePlan}
          onHear={(home) => model.hear({ home })}
          harmony={study.harmony}
          index={index}
          onHearOver={(overlay) => model.hear({ overlay })}
        />
        <ReadingCard
          key={`${index} ${chart.text.length}`}
          cell={cell}
          facts={factsOf(study, index)}
          onRead={(degree, scale) => read(degree === null && scale === null ? null : { degree, scale })}
        />
      </aside>
    </div>
  );
}

/** The home scale against the chords; a pressed note is heard, and its chord is the chosen one. */
function GridView({ model }: { model: StudyModel }) {
  const { study, state, cell, index, instrument, guitar, dispatch, hear } = model;
  return (
    <>
      <HomeGrid
        grid={study.grid}
        home={elementAt(study.plan.homeScales, index).name}
        bar={cell.bar}
        onPress={({ chord }, pc) => {
          const stretch =
            cell.chord?.symbol === chord
              ? index
              : study.cells.findIndex((one) => one.chord?.symbol === chord);
          dispatch({ type: 'select', index: stretch });
          hear({ pc, stretch });
        }}
      />
      <div className="mt-6">
        <Handover
          study={study}
          index={index}
          position={state.position}
          instrument={instrument}
          leftHanded={guitar.leftHanded}
          layer="plan"
        />
      </div>
    </>
  );
}

const symbolOf = (symbol: string | undefined) => (symbol ? <ChordSymbol symbol={symbol} /> : 'N.C.');

function ShapesOfChord({ model: { study, state, index, cell, instrument, guitar } }: { model: StudyModel }) {
  return (
    <>
      <p className="mb-3 flex items-baseline gap-3 text-[28px] font-[640]">
        {symbolOf(cell.chord?.symbol)}
        <span className="text-lg font-normal text-soft">
          {cell.degree}, bar {cell.bar}
        </span>
      </p>
      <ShapesView
        study={study}
        index={index}
        position={state.position}
        instrument={instrument}
        leftHanded={guitar.leftHanded}
      />
    </>
  );
}

/** The form, what changes at the chosen chord, and its notes on the neck. */
function ThreadView({ model, barsARow }: { model: StudyModel; barsARow: number }) {
  const { study, state, dispatch, index, hearing, instrument, guitar } = model;
  const isSounding = hearing.phase === 'sounding' && hearing.id?.startsWith('thread');
  const sounding = isSounding ? study.cells.findLast((one) => one.start <= hearing.beat + 1e-6) : undefined;
  return (
    <>
      <StudyForm
        study={study}
        selected={index}
        sounding={sounding?.index ?? null}
        barsARow={barsARow}
        onSelect={(chosen) => dispatch({ type: 'select', index: chosen })}
      />
      <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-[240px_minmax(0,1fr)]">
        <WhatChanges model={model} />
        <Handover
          study={study}
          index={index}
          position={state.position}
          instrument={instrument}
          leftHanded={guitar.leftHanded}
          layer={state.layer}
        />
      </div>
    </>
  );
}

function WhatChanges({ model: { study, state, dispatch, index, cell, next } }: { model: StudyModel }) {
  return (
    <section aria-label="What changes" className="text-[15px] leading-[21px] text-soft">
      <h2 className="text-[28px] leading-9 font-[640] text-ink">
        {symbolOf(cell.chord?.symbol)}
        {next.chord && next.index !== index && (
          <>
            <span className="px-3 font-normal text-now">to</span>
            <ChordSymbol symbol={next.chord.symbol} />
          </>
        )}
      </h2>
      {movesOf(study, index).map((move) => (
        <p key={move} className="first-of-type:mt-1 first-of-type:text-ink">
          {move}
        </p>
      ))}
      <p className="mt-2 hidden sm:block">
        <KeyOf command="study.previous" /> <KeyOf command="study.next" /> chord{' '}
        <KeyOf command="study.positionUp" /> <KeyOf command="study.positionDown" /> position
      </p>
      <button
        type="button"
        className="mt-1 text-left hover:text-ink"
        onClick={() => dispatch({ type: 'nextLayer' })}
      >
        <KeyOf command="study.layer" /> {LAYERS[state.layer]}
      </button>
    </section>
  );
}
