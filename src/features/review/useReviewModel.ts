'use client';
import { chorusAt, harmonyOf } from '@/core/chart';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { bandRests } from '@/core/band';
import type { CorrectedNote, NoteId } from '@/core/correct';
import type { Motif } from '@/core/drills';
import type { KeptPhrase } from '@/core/phrases';
import type { PlanWords } from '@/core/plan';
import type { Finding, FirstPage } from '@/core/findings';
import type { Judgement } from '@/core/review';
import { elementAt } from '@/core/shared';
import { amendTake } from '@/audio/persistence/serverTakes';
import type { PlayerState, TakePlayer } from '@/audio/playback/takePlayer';
import { takeOnForm, type TakeOnForm } from '@/ui/form/takeOnForm';
import { notify } from '@/ui/toast/toasts';
import { formChangesOf, type FormChange } from './formChanges';
import { countIn, fixOf, gesturesOf, type FixAsked, type Span } from './places';
import { keepPhraseOf, takeUpDrill, takeUpPhrase } from './reviewServer';
import {
  openingState,
  reviewReducer,
  viewFrom,
  type ReviewAction,
  type ReviewState,
  type View,
} from './reviewState';
import { shownFindings } from './reviewWords';
import { addressOf, noteOf, selectionFrom, spanOf, type Selection } from './selection';
import { useCorrecting, type Correcting } from './useCorrecting';
import { amended, useReview, useWarmedUp, type Corrections, type ReviewData } from './useReview';
import { useTakePlayer } from './useTakePlayer';

type TakeChange = Parameters<typeof amendTake>[1];

/** All that the views of a review and its commands work with. */
export type ReviewModel = {
  readonly data: ReviewData;
  readonly judgement: Judgement;
  readonly byId: ReadonlyMap<NoteId, CorrectedNote>;
  readonly corrections: Corrections;
  readonly player: TakePlayer;
  readonly playing: PlayerState;
  readonly state: ReviewState;
  readonly dispatch: (action: ReviewAction) => void;
  /** What is selected, where the take still has it. */
  readonly current: Selection | null;
  readonly span: Span | null;
  /** The note the selection points at, by its place in the report. */
  readonly chosen: number | null;
  readonly fix: FixAsked | null;
  readonly firstPage: FirstPage;
  readonly shown: readonly Finding[];
  readonly formChanges: readonly FormChange[];
  readonly drawn: TakeOnForm;
  readonly act: Correcting;
  readonly select: (next: Selection | null) => void;
  readonly hold: (id: NoteId | null) => void;
  readonly drill: (finding: Finding) => void;
  readonly practisePhrase: (index: number) => void;
  /** Keeps a phrase among the player's own. */
  readonly keepPhrase: (index: number) => void;
  readonly changeTake: (to: TakeChange) => Promise<void>;
  /** The take is about to be judged otherwise. */
  readonly makeReady: () => void;
  /** A plan may be chosen next: the take is judged by it before that. */
  readonly considerPlan: (plan: PlanWords) => void;
};

export function useReviewModel(stored: ReviewData, firstView?: string, at?: string): ReviewModel {
  const [changed, setChanged] = useState<ReviewData | null>(null);
  const data = useMemo(() => withChange(stored, changed), [stored, changed]);
  const { take } = data;
  const { judgement, said, byId, corrections } = useReview(data);
  const { report, timeline, places } = judgement;
  const { player, state: playing } = useTakePlayer(take, judgement);
  const [state, dispatch] = useReducer(reviewReducer, null, () =>
    openingState(viewFrom(firstView), selectionFrom(at ?? null, data.report), places),
  );
  const { view, selection, held } = state;
  useAddress(view, selection);
  const [isChanging, setChanging] = useState(false);
  useWarmedUp(data, view === 'correct' || isChanging);
  const current = selection && selection.index < countIn(selection, report) ? selection : null;
  const select = useCallback(
    (next: Selection | null) => {
      if (!next) return dispatch({ type: 'clear' });
      const [from] = spanOf(next, report, timeline);
      const note = noteOf(next, report);
      dispatch({
        type: 'select',
        selection: next,
        chorus: chorusAt(timeline, from + 1e-6),
        held: note === null ? null : (places[note] ?? null),
      });
    },
    [report, timeline, places],
  );
  const hold = useCallback(
    (id: NoteId | null) => dispatch({ type: 'hold', id, index: id === null ? -1 : places.indexOf(id) }),
    [places],
  );
  return {
    data,
    judgement,
    byId,
    corrections,
    player,
    playing,
    state,
    dispatch,
    current,
    span: useMemo(() => current && spanOf(current, report, timeline), [current, report, timeline]),
    chosen: current ? noteOf(current, report) : null,
    fix: useMemo(() => fixOf(current, report), [current, report]),
    firstPage: said.firstPage,
    shown: useMemo(() => shownFindings(said.firstPage), [said.firstPage]),
    formChanges: useMemo(
      () => (view === 'far' ? formChangesOf(report, timeline) : []),
      [report, timeline, view],
    ),
    drawn: useDrawn(data, judgement, byId),
    act: useCorrecting({ take, judgement, byId, corrections, player, held, onHold: hold }),
    select,
    hold,
    makeReady: useCallback(() => setChanging(true), []),
    considerPlan: useConsidering(data),
    ...useTakingUp(data, judgement, dispatch, (to) => setChanged(to && amended(data, to))),
  };
}

/** Judges by a plan as soon as the page has a moment, with all that the form shows of it. */
function useConsidering(data: ReviewData): ReviewModel['considerPlan'] {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  return useCallback(
    (plan) => {
      clearTimeout(timer.current);
      timer.current = setTimeout(() => {
        const { report, marks } = amended(data, { plan });
        takeOnForm(report, marks);
      });
    },
    [data],
  );
}

/** The take as the form draws it. */
function useDrawn(
  { take }: ReviewData,
  { report, marks, timeline, places, doubts }: Judgement,
  byId: ReadonlyMap<NoteId, CorrectedNote>,
): TakeOnForm {
  const alone = useMemo(
    () => (take.dropOut ? bandRests(timeline, take.choruses, take.dropOut) : []),
    [take, timeline],
  );
  return useMemo(() => {
    const doubted = new Set(doubts.map(({ id }) => id));
    return takeOnForm(report, marks, gesturesOf(places, byId, doubted, take.tempo), alone);
  }, [report, marks, places, byId, doubts, take.tempo, alone]);
}

/** What leaves the review for the server: drills taken up, and changes to the take itself. */
function useTakingUp(
  { take }: ReviewData,
  judgement: Judgement,
  dispatch: (action: ReviewAction) => void,
  setChanged: (to: TakeChange | null) => void,
): Pick<ReviewModel, 'drill' | 'practisePhrase' | 'keepPhrase' | 'changeTake'> {
  const router = useRouter();
  const open = (made: Promise<string>) =>
    void made
      .then((id) => router.push(`/drills/${id}`))
      .catch((error: Error) => dispatch({ type: 'set', change: { trouble: error.message } }));
  return {
    drill: ({ kind, where: { change, chord, tone } }) =>
      open(
        takeUpDrill(take.id, {
          kind,
          ...(change && { change }),
          ...(chord && { chord }),
          ...(tone && { tone }),
        }),
      ),
    practisePhrase: (index) => {
      if (take.chartId !== null) {
        const { chartId, tempo } = take;
        return open(
          phraseOf(judgement, index).then((phrase) => takeUpPhrase(chartId, phrase, Math.round(tempo))),
        );
      }
      const trouble = 'The chart of this take has been removed: there is nothing to fit the phrase to.';
      dispatch({ type: 'set', change: { trouble } });
    },
    keepPhrase: (index) =>
      void keptPhraseOf(judgement, index, take.tempo)
        .then((phrase) => {
          const { startBeat } = elementAt(judgement.report.phrases, index);
          return keepPhraseOf(
            { id: take.id, beat: startBeat },
            `${take.title}, take ${take.number}`.slice(0, 80),
            phrase,
          );
        })
        .then((id) =>
          notify('The phrase is kept under Phrases.', {
            label: 'Open it',
            run: () => router.push(`/phrases/${id}`),
          }),
        )
        .catch((error: Error) => dispatch({ type: 'set', change: { trouble: error.message } })),
    changeTake: async (to) => {
      setChanged(to);
      try {
        await amendTake(take.id, to);
        router.refresh();
      } catch (error) {
        setChanged(null);
        dispatch({ type: 'set', change: { trouble: (error as Error).message } });
      }
    },
  };
}

/** A phrase with the bars it stands over. */
async function keptPhraseOf({ report, chart }: Judgement, index: number, tempo: number): Promise<KeptPhrase> {
  const { phraseOfTake } = await import('@/core/phrases');
  return phraseOfTake(report, index, chart, tempo);
}

/** A phrase as what can be practised of it: its rhythm, its contour, and its degrees over the chords. */
async function phraseOf({ report, chart, timeline }: Judgement, index: number): Promise<Motif> {
  // loaded when it is asked for: nothing else of a review needs it
  const [{ shapeOf }, { formulaOf }] = await Promise.all([import('@/core/drills'), import('@/core/phrases')]);
  const own = elementAt(report.phrases, index);
  const formula = formulaOf(report, own, { timeline, harmony: harmonyOf(chart, timeline) });
  return { ...shapeOf(report, own), ...(formula && { formula }) };
}

/** A change shows at once and stands; once the server has judged it too, its words come with it. */
function withChange(stored: ReviewData, changed: ReviewData | null): ReviewData {
  if (!changed) return stored;
  if (!isJudgedAlike(changed, stored)) return changed;
  // the same judgement: what is drawn from it need not be drawn again
  const { report, marks, judgement } = changed;
  return stored.edits === changed.edits && judgement ? { ...stored, report, marks, judgement } : stored;
}

/** Are two answers about a take judged by the same plan, and lined up alike? */
const isJudgedAlike = (a: ReviewData, b: ReviewData): boolean =>
  a.take.offsetSec === b.take.offsetSec && JSON.stringify(a.take.plan) === JSON.stringify(b.take.plan);

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
