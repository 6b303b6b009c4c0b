'use client';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState, type ReactNode } from 'react';
import { bandRests } from '@/core/band';
import { barStart, type Timeline } from '@/core/chart';
import type { CorrectedNote, NoteId, TakeWords } from '@/core/correct';
import { shapeOf } from '@/core/drills';
import { PLANS, PLAN_IDS, planShort, type PlanId } from '@/core/plan';
import type { Finding } from '@/core/findings';
import type { Judgement } from '@/core/review';
import { amendTake } from '@/audio/persistence/serverTakes';
import { SPEEDS } from '@/audio/playback/takePlayer';
import { ChordWords } from '@/ui/ChordWords';
import { intervalLabel } from '@/ui/intervalLabel';
import { takeOnForm, type NoteGesture } from '@/ui/form/takeOnForm';
import { Shell } from '../shell/Shell';
import { trashTake } from '../shell/trash';
import type { SiblingTake } from './CompareView';
import { Findings } from './Findings';
import { FormPicture, type DrawBy } from './FormPicture';
import { LandingsBoard } from './LandingsBoard';
import { Legend } from './Legend';
import { LineUp } from './LineUp';
import { isPraise, openingWords, shownFindings } from './reviewWords';
import { keepWords, takeUpDrill, takeUpPhrase } from './reviewServer';
import {
  acrossChoruses,
  addressOf,
  noteOf,
  selectionFrom,
  spanOf,
  stepped,
  type Selection,
  type SelectionKind,
} from './selection';
import { SelectionCard, type FixAsked } from './SelectionCard';
import { formChangesOf, type FormChange } from './formChanges';
import { placeText, Transport } from './Transport';
import { intervalAt } from './noteNames';
import { useReview, useWarmedUp, type ReviewData } from './useReview';
import { useReviewKeys, type KeyMap } from './useReviewKeys';
import { useCursor, useTakePlayer } from './useTakePlayer';
import { useCorrecting } from './useCorrecting';
import { elementAt, present } from '@/core/shared';

// what a review opens with is the form; the other views come when they are asked for
const BoardsView = dynamic(() => import('./BoardsView').then((made) => made.BoardsView));
const CorrectView = dynamic(() => import('./CorrectView').then((made) => made.CorrectView));
const CompareView = dynamic(() => import('./CompareView').then((made) => made.CompareView));
const WordsView = dynamic(() => import('./WordsView').then((made) => made.WordsView));
const StandBack = dynamic(() => import('./StandBack').then((made) => made.StandBack));

const VIEWS = [
  ['form', 'The form'],
  ['boards', 'Boards'],
  ['correct', 'Correct'],
  ['compare', 'Compare'],
  ['words', 'Words, files'],
] as const;
export type View = (typeof VIEWS)[number][0] | 'far';

type Props = {
  data: ReviewData;
  cut: boolean;
  siblings: readonly SiblingTake[];
  view?: string | undefined;
  at?: string | undefined;
};

const DOUBTFUL = 0.5;
const viewFrom = (text: string | undefined): View =>
  text === 'far' ? 'far' : (VIEWS.find(([id]) => id === text)?.[0] ?? 'form');

/**
 * A take under review, from near and from two metres away: the form, its boards, its notes under the hand, and
 * other takes beside it.
 */
export function ReviewScreen({ data, cut, siblings: kin, view: firstView, at }: Props) {
  const { take } = data;
  const router = useRouter();
  const { judgement, findings, byId, corrections } = useReview(data);
  const { report, marks, timeline, places, doubts } = judgement;
  const { player, state } = useTakePlayer(take, judgement);
  const [view, setView] = useState<View>(() => viewFrom(firstView));
  const [selection, setSelection] = useState<Selection | null>(() => selectionFrom(at ?? null, data.report));
  const [held, setHeld] = useState<NoteId | null>(null);
  const [drawBy, setDrawBy] = useState<DrawBy>('height');
  const [open, setOpen] = useState(0);
  const [zoomed, setZoomed] = useState(false);
  const [kind, setKind] = useState<string | null>(null);
  const [formChange, setFormChange] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { words, setWords, keeping } = useWords(take.id, data.words);
  useAddress(view, selection);
  useWarmedUp(data, view === 'correct');

  const alone = useMemo(
    () => (take.dropOut ? bandRests(timeline, take.choruses, take.dropOut) : []),
    [take, timeline],
  );
  const drawn = useMemo(
    () =>
      takeOnForm(
        report,
        marks,
        gesturesOf(places, byId, new Set(doubts.map(({ id }) => id)), take.tempo),
        alone,
      ),
    [report, marks, places, byId, doubts, take.tempo, alone],
  );
  const lit = useMemo(
    () =>
      kind === null
        ? drawn
        : {
            ...drawn,
            gates: drawn.gates.map((gate) =>
              `${elementAt(report.changes, gate.index).from}→${elementAt(report.changes, gate.index).to}` ===
              kind
                ? gate
                : { ...gate, word: '' },
            ),
          },
    [drawn, kind, report],
  );
  const shown = useMemo(() => shownFindings(findings), [findings]);
  const formChanges = useMemo(
    () => (view === 'far' ? formChangesOf(report, timeline) : []),
    [report, timeline, view],
  );
  // the sentence over the form weighs every chord: nobody waits for it while notes are corrected
  const opening = view === 'form' ? openingWords(report, findings) : null;
  const current = selection && selection.index < countIn(selection, report) ? selection : null;
  const span = current ? spanOf(current, report, timeline) : null;
  const chosen = current ? noteOf(current, report) : null;
  const fix = useMemo(() => fixOf(current, report), [current, report]);

  const select = useCallback(
    (next: Selection | null) => {
      setSelection(next);
      if (!next) return;
      const [from] = spanOf(next, report, timeline);
      setOpen(Math.max(0, Math.floor(from / timeline.formBeats + 1e-6)));
      const note = noteOf(next, report);
      if (note !== null) setHeld(places[note] ?? null);
    },
    [report, timeline, places],
  );
  const selectNote = useCallback((index: number) => select({ kind: 'note', index }), [select]);
  const playFrom = useCallback((beat: number) => void player.play(beat, null), [player]);
  const step = (what: SelectionKind, by: 1 | -1) => () =>
    select(stepped(current, what, by, report, timeline));
  const hear = () => {
    if (span) void player.play(span[0], null);
    else player.toggle();
  };
  const loop = () => {
    if (state.loop) return player.setLoop(null);
    const round = span ? aroundBars(span, timeline) : null;
    if (round) void player.play(round[0], round);
  };
  const hearFix = useCallback(
    (one: FixAsked | null) => {
      if (!one) return;
      const note = byId.get(elementAt(places, one.noteIndex));
      const { onsetBeat } = elementAt(report.notes, one.noteIndex);
      if (note)
        void player.playPatched(Math.max(-4, onsetBeat - 4), onsetBeat + 4, {
          onsetSec: note.onsetSec,
          offsetSec: note.offsetSec,
          semitones: one.toMidi - Math.round(note.midi + (note.cents ?? 0) / 100),
        });
    },
    [byId, places, report, player],
  );
  const hearFinding = (index: number) => {
    const bars = shown[index]?.where.bars;
    if (!bars || bars[0] === undefined) return;
    const from = barStart(timeline, bars[0]);
    void player.play(from, [from, barStart(timeline, bars[0] + (bars[1] === bars[0] + 1 ? 2 : 1))]);
  };
  const drill = (finding: Finding) => {
    const { change: into, chord } = finding.where;
    takeUpDrill(take.id, {
      kind: finding.kind,
      ...(into ? { change: into } : {}),
      ...(chord ? { chord } : {}),
    })
      .then((id) => router.push(`/drills/${id}`))
      .catch((error: Error) => setTrouble(error.message));
  };
  const practisePhrase = (index: number) => {
    const phrase = shapeOf(report, elementAt(report.phrases, index));
    if (take.chartId === null)
      return setTrouble('The chart of this take has been removed: there is nothing to fit the phrase to.');
    takeUpPhrase(take.chartId, phrase, Math.round(take.tempo))
      .then((id) => router.push(`/drills/${id}`))
      .catch((error: Error) => setTrouble(error.message));
  };
  const change = useCallback(
    async (to: Parameters<typeof amendTake>[1]) => {
      await amendTake(take.id, to);
      router.refresh();
    },
    [take.id, router],
  );

  const act = useCorrecting({
    take,
    judgement,
    byId,
    corrections,
    player,
    held,
    onHold: (id) => {
      setHeld(id);
      const index = id === null ? -1 : places.indexOf(id);
      if (index >= 0) setSelection({ kind: 'note', index });
    },
  });
  const goFormChange = (index: number) => {
    const next = Math.max(0, Math.min(formChanges.length - 1, index));
    setFormChange(next);
    const one = formChanges[next];
    if (one) void player.play(Math.max(0, one.beat - 2), null);
  };
  const loopFormChange = () => {
    const one = formChanges[formChange];
    if (!one) return;
    const before = Math.max(1, one.beatInBar > 0 ? one.bar : one.bar - 1);
    const round = [barStart(timeline, before), barStart(timeline, one.bar + 1)] as const;
    void player.play(round[0], round);
  };

  const everywhere: KeyMap = {
    w: () => {
      const first = shown.find((finding) => !isPraise(finding));
      if (first) drill(first);
    },
    'Ctrl+z': corrections.undo,
    'Ctrl+y': corrections.redo,
    'Ctrl+Shift+z': corrections.redo,
    v: () =>
      setView((now) => elementAt(VIEWS, (VIEWS.findIndex(([id]) => id === now) + 1) % VIEWS.length)[0]),
    'Shift+V': () =>
      setView(
        (now) =>
          elementAt(VIEWS, (VIEWS.findIndex(([id]) => id === now) + VIEWS.length - 1) % VIEWS.length)[0],
      ),
    b: () => setView(view === 'far' ? 'form' : 'far'),
    '-': () =>
      player.setSpeed(
        elementAt(SPEEDS, Math.max(0, SPEEDS.findIndex((one) => one >= state.speed - 1e-6) - 1)),
      ),
    '=': () =>
      player.setSpeed(
        elementAt(
          SPEEDS,
          Math.min(SPEEDS.length - 1, SPEEDS.findIndex((one) => one >= state.speed - 1e-6) + 1),
        ),
      ),
    '+': () =>
      player.setSpeed(
        elementAt(
          SPEEDS,
          Math.min(SPEEDS.length - 1, SPEEDS.findIndex((one) => one >= state.speed - 1e-6) + 1),
        ),
      ),
    t: () => player.setLevels({ take: state.levels.take > 0 ? 0 : 1 }),
    u: () => player.setLevels({ band: state.levels.band > 0 ? 0 : 0.7 }),
    k: () => player.setLevels({ click: state.levels.click > 0 ? 0 : 0.6 }),
  };
  const near: KeyMap = {
    Space: () => player.toggle(),
    Enter: hear,
    Escape: () => {
      if (zoomed) setZoomed(false);
      else {
        select(null);
        setKind(null);
      }
    },
    ArrowRight: step('note', 1),
    ArrowLeft: step('note', -1),
    PageDown: step('change', 1),
    PageUp: step('change', -1),
    ArrowDown: () => select(acrossChoruses(current, 1, report, timeline)),
    ArrowUp: () => select(acrossChoruses(current, -1, report, timeline)),
    c: step('change', 1),
    'Shift+c': step('change', -1),
    f: step('figure', 1),
    'Shift+f': step('figure', -1),
    p: step('phrase', 1),
    'Shift+p': step('phrase', -1),
    r: step('chorus', 1),
    'Shift+r': step('chorus', -1),
    l: loop,
    x: () => hearFix(fix),
    d: () => setDrawBy((now) => (now === 'height' ? 'pitch' : 'height')),
    z: () => setZoomed((now) => !now),
    1: () => hearFinding(0),
    2: () => hearFinding(1),
    3: () => hearFinding(2),
  };
  const correcting: KeyMap = {
    Space: () => {
      const beat = Math.max(0, span?.[0] ?? player.beat);
      const round = aroundBars([beat, beat + 1], timeline);
      if (state.phase !== 'idle') player.pause();
      else {
        player.setSpeed(0.5);
        void player.play(round[0], round);
      }
    },
    Enter: act.doubt ? act.accept : hear,
    o: act.other,
    n: act.skip,
    PageDown: act.doubt ? act.accept : act.next,
    PageUp: act.doubt ? act.other : act.previous,
    ArrowRight: act.next,
    ArrowLeft: act.previous,
    ArrowUp: () => act.pitch(1),
    ArrowDown: () => act.pitch(-1),
    Delete: act.remove,
    Backspace: act.remove,
    '[': () => act.start(-1),
    ']': () => act.start(1),
    '{': () => act.end(-1),
    '}': () => act.end(1),
    '<': () => act.move(-1),
    '>': () => act.move(1),
    a: act.add,
    s: act.split,
    m: act.merge,
    g: act.ghost,
    Escape: () => setView('form'),
  };
  const far: KeyMap = {
    Space: () => goFormChange(formChange + 1),
    ArrowRight: () => goFormChange(formChange + 1),
    ArrowDown: () => goFormChange(formChange + 1),
    PageDown: () => goFormChange(formChange + 1),
    ArrowLeft: () => goFormChange(formChange - 1),
    ArrowUp: () => goFormChange(formChange - 1),
    PageUp: () => goFormChange(formChange - 1),
    l: loopFormChange,
    Escape: () => {
      player.pause();
      setView('form');
    },
    Backspace: () => {
      player.pause();
      setView('form');
    },
    Enter: loopFormChange,
  };
  useReviewKeys({ ...everywhere, ...keysOfView(view, far, correcting, near) });

  if (view === 'far')
    return (
      <FarView
        {...{ report, marks, timeline, formChanges, formChange, player, goFormChange, loopFormChange }}
        onBack={() => {
          player.pause();
          setView('form');
        }}
      />
    );
  const doubtful = doubts.length === 0 ? '' : `, ${doubts.length} of them in doubt`;
  const row =
    current && span
      ? Math.floor(
          timeline.bars.findLastIndex(
            (bar) =>
              bar.start <=
              span[0] -
                Math.max(0, Math.floor(span[0] / timeline.formBeats + 1e-6)) * timeline.formBeats +
                1e-6,
          ) / 4,
        )
      : 0;
  const picture = (whole = false) => (
    <FormPicture
      timeline={timeline}
      choruses={report.summary.choruses}
      take={lit}
      player={player}
      drawBy={drawBy}
      open={open}
      selected={current && current.kind !== 'chorus' ? chosen : null}
      marked={current && current.kind !== 'note' ? span : state.loop}
      fix={fix && { noteIndex: fix.noteIndex, toMidi: fix.toMidi, label: fixLabel(current, report) }}
      zoomed={zoomed && !whole ? Math.max(0, row) : null}
      whole={whole}
      onNote={selectNote}
      onBeat={playFrom}
      onChorus={setOpen}
    />
  );
  const card = current && (
    <SelectionCard
      report={report}
      selection={current}
      place={placeText(timeline, present(span)[0], current.kind === 'note')}
      onClose={() => select(null)}
      onHear={hear}
      onFix={hearFix}
      onPhrase={practisePhrase}
      canCorrect={
        <button type="button" className="text-soft hover:text-ink" onClick={() => setView('correct')}>
          Heard wrongly? Correct it
        </button>
      }
    />
  );
  return (
    <Shell
      place="Takes"
      footer={
        <>
          <Transport player={player} state={state} timeline={timeline} soundGone={take.soundGone} />
          <span className="ml-auto hidden items-center gap-4 xl:flex">
            {view === 'form' && (
              <button
                type="button"
                onClick={() => setDrawBy(drawBy === 'height' ? 'pitch' : 'height')}
                aria-label={`Draw by ${drawBy === 'height' ? 'pitch' : 'height'}`}
              >
                Draw by <b className={drawBy === 'height' ? 'text-ink' : 'font-normal'}>height</b>,{' '}
                <b className={drawBy === 'pitch' ? 'text-ink' : 'font-normal'}>pitch</b>
              </button>
            )}
          </span>
        </>
      }
    >
      <div className="mx-4 pb-6 sm:mx-8">
        <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-6">
          <p className="flex flex-wrap gap-x-5 text-sm leading-6 text-dim">
            <span>
              {take.title}, take {take.number}
            </span>
            <span>
              {take.choruses} {take.choruses === 1 ? 'chorus' : 'choruses'} at{' '}
              {Math.round(take.tempo * 10) / 10}
            </span>
            <span>{planShort(take.plan)}</span>
            <span>
              {report.summary.notes} notes{doubtful}
            </span>
            <span>{take.when}</span>
            {take.source === 'stand-in' && <span>played by the stand-in player</span>}
          </p>
          <nav aria-label="Ways to look at this take" className="no-print flex flex-wrap gap-x-4 text-[15px]">
            {VIEWS.map(([id, name]) => (
              <button
                key={id}
                type="button"
                aria-current={view === id ? 'page' : undefined}
                className={
                  view === id
                    ? 'border-b-2 border-now font-[620] text-ink'
                    : 'border-b-2 border-transparent text-soft hover:text-ink'
                }
                onClick={() => setView(id)}
              >
                {name}
              </button>
            ))}
            <button
              type="button"
              className="border-b-2 border-transparent text-soft hover:text-ink"
              onClick={() => setView('far')}
            >
              Stand back <kbd className="key ml-1">B</kbd>
            </button>
          </nav>
        </div>
        {cut && (
          <p role="status" className="my-2 border-l-[3px] border-now pl-4 text-soft">
            The input went away during this take. What was played until then is kept and judged.
          </p>
        )}
        {data.certainty !== null && data.certainty < DOUBTFUL && (
          <p role="status" className="my-2 border-l-[3px] border-now pl-4 text-ink">
            This hardly sounds like a played line: a voice, drums or the band may have been heard instead.
            Take what follows with doubt; a lead into the input, or the microphone nearer to the guitar,
            helps.
          </p>
        )}
        {opening && (
          <>
            {trouble && (
              <p role="alert" className="mb-3 border-l-[3px] border-now pl-4 text-lg">
                {trouble}
              </p>
            )}
            <h1 className="mb-4 text-[22px] leading-[30px] font-[480] tracking-tight text-soft sm:text-[25px] sm:leading-8">
              <ChordWords text={opening.soft} />
              <br />
              <b className="font-[620] text-ink">
                <ChordWords text={opening.bold} />
              </b>
            </h1>
            <Beside
              main={picture()}
              aside={
                <>
                  {card ?? (
                    <Findings
                      findings={shown}
                      bars={timeline.bars.length}
                      onHear={(bar) => {
                        const from = barStart(timeline, bar);
                        void player.play(from, [from, barStart(timeline, bar + 1)]);
                      }}
                      onDrill={drill}
                    />
                  )}
                  <LandingsBoard
                    report={report}
                    marks={marks}
                    kind={kind}
                    onKind={setKind}
                    onChange={(index) => select({ kind: 'change', index })}
                  />
                </>
              }
            />
            <Legend />
            <div className="no-print mt-5 flex flex-wrap items-center gap-x-6 gap-y-2 border-t border-line pt-3 text-[15px] text-soft">
              <label className="flex items-center gap-2">
                Judged by
                <select
                  className="field !py-1"
                  value={take.plan.id}
                  onChange={(event) => void change({ plan: { id: event.target.value as PlanId } })}
                >
                  {PLAN_IDS.map((id) => (
                    <option key={id} value={id}>
                      {PLANS[id].name}
                    </option>
                  ))}
                </select>
              </label>
              <LineUp
                key={take.offsetSec}
                offsetSec={take.offsetSec}
                onChange={(offsetSec) => void change({ offsetSec })}
              />
              <button
                type="button"
                aria-pressed={zoomed}
                onClick={() => setZoomed(!zoomed)}
                className="hover:text-ink"
              >
                <kbd className="key mr-1.5">Z</kbd>
                {zoomed ? 'the whole form' : 'four bars, wide'}
              </button>
            </div>
          </>
        )}
        {view === 'boards' && (
          <BoardsView
            judgement={judgement}
            plan={take.plan}
            kind={kind}
            onKind={setKind}
            onHear={playFrom}
            onNote={(index) => {
              selectNote(index);
              setView('form');
            }}
          />
        )}
        {view === 'correct' && (
          <CorrectView
            take={take}
            judgement={judgement}
            byId={byId}
            corrections={corrections}
            drawn={drawn}
            player={player}
            held={held}
            onHold={(id) => {
              setHeld(id);
              const index = id === null ? -1 : places.indexOf(id);
              if (index >= 0) setSelection({ kind: 'note', index });
            }}
            act={act}
          />
        )}
        {view === 'compare' && (
          <CompareView
            data={{ ...data, edits: corrections.edits }}
            judgement={judgement}
            siblings={kin}
            onHear={playFrom}
          />
        )}
        {view === 'words' && (
          <>
            <WordsView
              takeId={take.id}
              title={`${take.title}, take ${take.number}`}
              words={words}
              onWords={setWords}
              keeping={keeping}
              soundGone={take.soundGone}
              selection={current}
              place={remarkPlace(current, span, timeline)}
              nameOfBar={(bar) => placeText(timeline, barStart(timeline, bar))}
              beatOfBar={(bar) => barStart(timeline, bar)}
              onHear={playFrom}
              onRemove={() =>
                void trashTake(
                  take.id,
                  () => router.push('/takes'),
                  ({ id }) => router.push(`/takes/${id}`),
                )
              }
            />
            <div className="mt-8">{picture(true)}</div>
          </>
        )}
      </div>
    </Shell>
  );
}

const Beside = ({ main, aside }: { main: ReactNode; aside: ReactNode }) => (
  <div className="grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-6 lg:grid-cols-[minmax(0,872fr)_minmax(280px,320fr)]">
    <div className="min-w-0">{main}</div>
    <aside className="min-w-0">{aside}</aside>
  </div>
);

const countIn = ({ kind }: Selection, report: ReviewData['report']): number =>
  ({
    note: report.notes.length,
    change: report.changes.length,
    figure: report.figures.length,
    phrase: report.phrases.length,
    chorus: report.summary.choruses,
  })[kind];

/** The bars a span lies in, with the bar before it to lead in. */
function aroundBars([from, to]: readonly [number, number], timeline: Timeline): readonly [number, number] {
  const chorus = Math.max(0, Math.floor(from / timeline.formBeats + 1e-6));
  const starts = [
    ...timeline.bars.map(({ start }) => start + chorus * timeline.formBeats),
    (chorus + 1) * timeline.formBeats,
  ];
  const first = Math.max(
    0,
    starts.findLastIndex((start) => start <= from + 1e-6),
  );
  const ends = starts.find((start) => start >= to - 1e-6) ?? (chorus + 1) * timeline.formBeats;
  return [
    elementAt(starts, Math.max(0, first - (from - elementAt(starts, first) < 1 ? 1 : 0))),
    Math.max(ends, elementAt(starts, first) + 1),
  ];
}

function fixOf(selection: Selection | null, report: ReviewData['report']): FixAsked | null {
  if (!selection) return null;
  if (selection.kind === 'change') return elementAt(report.changes, selection.index).fix;
  if (selection.kind !== 'note') return null;
  return report.changes.find(({ landing }) => landing.noteIndex === selection.index)?.fix ?? null;
}

function fixLabel(selection: Selection | null, report: ReviewData['report']): string {
  const change =
    selection?.kind === 'change'
      ? report.changes[selection.index]
      : report.changes.find(({ landing }) => landing.noteIndex === selection?.index);
  if (!change?.fix) return '';
  return intervalLabel(intervalAt(change.to, change.fix.toMidi));
}

function remarkPlace(
  selection: Selection | null,
  span: readonly [number, number] | null,
  timeline: Timeline,
): { bar?: number; phraseBeat?: number; words: string } | null {
  if (!selection || !span) return null;
  if (selection.kind === 'phrase')
    return { phraseBeat: span[0], words: `the phrase from ${placeText(timeline, span[0]).toLowerCase()}` };
  const chorus = Math.max(0, Math.floor(span[0] / timeline.formBeats + 1e-6));
  const bar = timeline.bars.findLastIndex(
    ({ start }) => start + chorus * timeline.formBeats <= span[0] + 1e-6,
  );
  return {
    bar: chorus * timeline.bars.length + Math.max(0, bar) + 1,
    words: placeText(timeline, Math.max(0, span[0])).toLowerCase(),
  };
}

/** What the hand did to each note of the report, in beats and semitones. */
function gesturesOf(
  places: readonly NoteId[],
  byId: ReadonlyMap<NoteId, CorrectedNote>,
  doubted: ReadonlySet<NoteId>,
  tempo: number,
): (index: number) => NoteGesture {
  const beats = (seconds: number) => (seconds * tempo) / 60;
  return (index) => {
    const note = byId.get(elementAt(places, index));
    if (!note) return {};
    const vibrato = (note as { vibrato?: { hz: number; cents: number } }).vibrato;
    return {
      ...(note.bend
        ? { bend: note.bend.map(([seconds, cents]) => [beats(seconds), cents / 100] as const) }
        : {}),
      ...(note.slide ? { slideFrom: note.slide.fromMidi } : {}),
      ...(vibrato ? { vibrato: { perBeat: (vibrato.hz * 60) / tempo, semitones: vibrato.cents / 100 } } : {}),
      ...(doubted.has(note.id) ? { doubtful: true } : {}),
    };
  };
}

const KEEP_AFTER_MS = 500;

function useWords(
  id: string,
  first: TakeWords,
): { words: TakeWords; setWords: (words: TakeWords) => void; keeping: 'kept' | 'keeping' | 'failed' } {
  const [words, setWords] = useState(first);
  const [kept, setKept] = useState<{ words: TakeWords; failed: boolean }>({ words: first, failed: false });
  useEffect(() => {
    if (words === kept.words) return;
    const timer = setTimeout(() => {
      keepWords(id, words)
        .then(() => setKept({ words, failed: false }))
        .catch(() => setKept({ words, failed: true }));
    }, KEEP_AFTER_MS);
    return () => clearTimeout(timer);
  }, [id, words, kept.words]);
  return { words, setWords, keeping: keepingState(kept, words) };
}

/** Every view and selection has an address; stepping through a take writes no history. */
function useAddress(view: View, selection: Selection | null): void {
  useEffect(() => {
    const address = new URL(window.location.href);
    if (view === 'form') address.searchParams.delete('view');
    else address.searchParams.set('view', view);
    if (selection) address.searchParams.set('at', addressOf(selection));
    else address.searchParams.delete('at');
    if (address.href !== window.location.href) window.history.replaceState(null, '', address);
  }, [view, selection]);
}

type FarProps = Pick<Judgement, 'report' | 'marks' | 'timeline'> & {
  formChanges: readonly FormChange[];
  formChange: number;
  player: ReturnType<typeof useTakePlayer>['player'];
  goFormChange: (index: number) => void;
  loopFormChange: () => void;
  onBack: () => void;
};

function FarView({
  report,
  marks,
  timeline,
  formChanges,
  formChange,
  player,
  goFormChange,
  loopFormChange,
  onBack,
}: FarProps) {
  const [sounding, setSounding] = useState<number | null>(null);
  useCursor(player, (beat, playing) =>
    setSounding(playing ? Math.max(0, Math.floor(beat / timeline.formBeats)) : null),
  );
  const one = formChanges[formChange];
  const before = one ? Math.max(1, one.beatInBar > 0 ? one.bar : one.bar - 1) : 1;
  return (
    <div className="flex min-h-dvh flex-col">
      <main className="flex grow flex-col">
        <StandBack
          report={report}
          marks={marks}
          timeline={timeline}
          formChanges={formChanges}
          open={formChange}
          sounding={sounding}
          onOpen={goFormChange}
        />
      </main>
      <footer className="flex min-h-[88px] flex-wrap items-center gap-x-10 gap-y-2 border-t border-line bg-panel px-4 py-3 text-[20px] sm:px-8 sm:text-[26px]">
        <button type="button" onClick={() => goFormChange(formChange + 1)}>
          <b className="mr-3 font-[620] text-now">press</b>
          <b className="font-[620]">next change, with sound</b>
        </button>
        <button type="button" className="text-soft" onClick={onBack}>
          <b className="mr-3 font-[620] text-now">hold</b>back to the full picture
        </button>
        {one && (
          <button type="button" className="text-soft" onClick={loopFormChange}>
            <b className="mr-3 font-[620] text-now">double</b>loop{' '}
            {before === one.bar ? `bar ${one.bar}` : `bars ${before} and ${one.bar}`}
          </button>
        )}
      </footer>
    </div>
  );
}

function keysOfView(
  view: View,
  far: Readonly<Record<string, (() => void) | undefined>>,
  correcting: Readonly<Record<string, (() => void) | undefined>>,
  near: Readonly<Record<string, (() => void) | undefined>>,
) {
  if (view === 'far') return far;
  if (view === 'correct') return correcting;
  return near;
}

function keepingState(kept: { words: TakeWords; failed: boolean }, words: TakeWords) {
  if (kept.words !== words) return 'keeping';
  if (kept.failed) return 'failed';
  return 'kept';
}
