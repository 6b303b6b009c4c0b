'use client';
import { useMemo, type ReactNode } from 'react';
import { elementAt, present } from '@/core/shared';
import { ChordWords } from '@/ui/ChordWords';
import { Select } from '@/ui/controls';
import { KeyOf } from '../shell/commands/KeyOf';
import { Findings } from './Findings';
import { FormPicture } from './FormPicture';
import { LandingsBoard } from './LandingsBoard';
import { Legend } from './Legend';
import { LineUp } from './LineUp';
import { fixLabel, rowOf } from './places';
import { hearingOf } from './reviewCommands';
import { openingWords } from './reviewWords';
import { SelectionCard } from './SelectionCard';
import { placeText } from './Transport';
import { phraseBorders } from './phraseBorders';
import type { ReviewModel } from './useReviewModel';
import { HomeScalePicker } from '@/ui/HomeScalePicker';
import { withHome } from '@/core/plan';
import { homeNameOf } from '@/core/chart';
import { PLAN_CHOICES } from './planChoices';

/** The form with all choruses, what to say about it, and what is selected. */
export function FormView({ model }: { model: ReviewModel }) {
  const { judgement, firstPage, state, dispatch, select, drill, current } = model;
  const { report, marks, timeline } = judgement;
  const opening = useMemo(() => openingWords(report, firstPage), [report, firstPage]);
  const aside = (
    <>
      {current ? (
        <Selected model={model} />
      ) : (
        <Findings
          page={firstPage}
          bars={timeline.bars.length}
          onHear={hearingOf(model).bar}
          onDrill={drill}
        />
      )}
      <LandingsBoard
        report={report}
        marks={marks}
        kind={state.kind}
        onKind={(kind) => dispatch({ type: 'set', change: { kind } })}
        onChange={(index) => select({ kind: 'change', index })}
      />
    </>
  );
  return (
    <>
      {state.trouble && (
        <p role="alert" className="mb-3 border-l-[3px] border-now pl-4 text-lg">
          {state.trouble}
        </p>
      )}
      <h1 className="mb-4 text-[22px] leading-[30px] font-[480] tracking-tight text-soft sm:text-[25px] sm:leading-8">
        <ChordWords text={opening.soft} />
        <br />
        <b className="font-[620] text-ink">
          <ChordWords text={opening.bold} />
        </b>
      </h1>
      {opening.latency && (
        <p role="status" className="mb-3 border-l-[3px] border-now pl-4">
          {opening.latency}
        </p>
      )}
      <Beside main={<Picture model={model} />} aside={aside} />
      <Legend hasChanges={report.changes.length > 0} />
      <TakeControls model={model} />
    </>
  );
}

const Beside = ({ main, aside }: { main: ReactNode; aside: ReactNode }) => (
  <div className="grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-6 lg:grid-cols-[minmax(0,872fr)_minmax(280px,320fr)]">
    <div className="min-w-0">{main}</div>
    <aside className="min-w-0">{aside}</aside>
  </div>
);

/**
 * The form picture with the selection in it.
 * @param whole draws what is not in sight too: for pictures that are saved and printed
 */
export function Picture({ model, whole = false }: { model: ReviewModel; whole?: boolean }) {
  const { judgement, drawn, player, playing, state, current, span, chosen, fix, select, dispatch } = model;
  const { report, timeline } = judgement;
  const { kind } = state;
  const lit = useMemo(() => {
    if (kind === null) return drawn;
    const isLit = (index: number) => {
      const { from, to } = elementAt(report.changes, index);
      return `${from}→${to}` === kind;
    };
    return {
      ...drawn,
      changes: drawn.changes.map((change) => (isLit(change.index) ? change : { ...change, word: '' })),
    };
  }, [drawn, kind, report]);
  return (
    <FormPicture
      timeline={timeline}
      choruses={report.summary.choruses}
      take={lit}
      player={player}
      drawBy={state.drawBy}
      open={state.chorus}
      selected={current && current.kind !== 'chorus' ? chosen : null}
      marked={current && current.kind !== 'note' ? span : playing.loop}
      fix={fix && { noteIndex: fix.noteIndex, toMidi: fix.toMidi, label: fixLabel(current, report) }}
      zoomed={state.zoomed && !whole ? rowOf(span?.[0] ?? 0, timeline) : null}
      whole={whole}
      onNote={(index) => select({ kind: 'note', index })}
      onBeat={(beat) => void player.play(beat, null)}
      onChorus={(chorus) => dispatch({ type: 'set', change: { chorus } })}
    />
  );
}

/** What is selected, told. */
export function Selected({ model }: { model: ReviewModel }) {
  const { judgement, current, span, select, practisePhrase, dispatch } = model;
  const selection = present(current);
  const hear = hearingOf(model);
  return (
    <SelectionCard
      report={judgement.report}
      selection={selection}
      place={placeText(judgement.timeline, present(span)[0], selection.kind === 'note')}
      onClose={() => select(null)}
      onHear={hear.selected}
      onFix={hear.fix}
      onPhrase={practisePhrase}
      onKeep={model.keepPhrase}
      borders={phraseBorders(model)}
      canCorrect={
        <button
          type="button"
          className="text-soft hover:text-ink"
          onClick={() => dispatch({ type: 'view', view: 'correct' })}
        >
          Wrong note? Correct it
        </button>
      }
    />
  );
}

/** By which plan it is judged, where beat 1 lies, and how wide it is drawn. */
function TakeControls({
  model: { data, state, dispatch, changeTake, considerPlan, makeReady },
}: {
  model: ReviewModel;
}) {
  const { take } = data;
  const homeName = useMemo(() => homeNameOf(take.chartText), [take.chartText]);
  return (
    <div className="no-print mt-5 flex flex-wrap items-center gap-x-6 gap-y-2 border-t border-line pt-3 text-[15px] text-soft">
      <label className="flex items-center gap-2">
        Judged by
        <Select
          label="Judged by"
          value={take.plan.id}
          options={PLAN_CHOICES}
          onChange={(id) => void changeTake({ plan: { ...take.plan, id } })}
        />
      </label>
      <span className="flex items-center gap-2">
        home scale
        <HomeScalePicker
          value={take.plan.home}
          fallback={homeName}
          onOpen={makeReady}
          onConsider={(home) => considerPlan(withHome(take.plan, home))}
          onChange={(home) => void changeTake({ plan: withHome(take.plan, home) })}
        />
      </span>
      <LineUp
        key={take.offsetSec}
        offsetSec={take.offsetSec}
        onChange={(offsetSec) => void changeTake({ offsetSec })}
      />
      <button
        type="button"
        aria-pressed={state.zoomed}
        onClick={() => dispatch({ type: 'toggleZoom' })}
        className="hover:text-ink"
      >
        <KeyOf command="review.form.zoom" className="mr-1.5" />
        {state.zoomed ? 'the whole form' : 'four bars, wide'}
      </button>
    </div>
  );
}
