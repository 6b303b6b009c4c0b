'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { LandingMark, Report } from '@/core/analyse';
import type { DropOut } from '@/core/band';
import { timelineOf, type Pace } from '@/core/chart';
import {
  corrected,
  doubtsOf,
  playedFrom,
  reportPlaces,
  type CorrectedNote,
  type Edit,
  type NoteId,
  type SecondsNote,
  type TakeWords,
  withEdit,
} from '@/core/correct';
import type { PlanWords } from '@/core/plan';
import type { SaidOfTake } from '@/core/assessment';
import { readCase, judgePiece, judgeTake, type TakeCase, type Judgement } from '@/core/review';
import { latest } from '@/core/shared';
import { keepEdits } from './reviewServer';

export type ReviewTake = {
  readonly id: string;
  readonly chartId: string | null;
  readonly number: number;
  readonly title: string;
  readonly tempo: number;
  readonly choruses: number;
  readonly chartText: string;
  readonly plan: PlanWords;
  readonly pace: Pace | null;
  readonly offsetSec: number;
  readonly latencySec: number | null;
  readonly soundGone: boolean;
  readonly when: string;
  readonly source: string;
  readonly dropOut: DropOut | null;
};
export type ReviewData = SaidOfTake & {
  readonly take: ReviewTake;
  readonly heard: readonly SecondsNote[];
  readonly edits: readonly Edit[];
  readonly words: TakeWords;
  readonly report: Report;
  readonly marks: readonly LandingMark[];
  /** How surely the take holds a played line; null where that was not asked. */
  readonly certainty: number | null;
  /** Judged by older rules before, and again by today's. */
  readonly isJudgedAnew?: boolean;
  /** What was judged here already, without the server. */
  readonly judgement?: Judgement;
};

export const caseOf = (
  { take, heard }: Pick<ReviewData, 'take' | 'heard'>,
  edits: readonly Edit[],
): TakeCase => ({
  chartText: take.chartText,
  tempo: take.tempo,
  pace: take.pace,
  choruses: take.choruses,
  plan: take.plan,
  offsetSec: take.offsetSec,
  isLatencyMeasured: take.latencySec !== null,
  heard,
  edits,
});

/** A judgement from what the server judged already: only what it did not send is worked out. */
function given(data: ReviewData): Judgement {
  if (data.judgement) return data.judgement;
  const one = caseOf(data, data.edits);
  const { chart, plan } = readCase(one);
  const notes = corrected(one.heard, one.edits);
  return {
    chart,
    plan,
    notes,
    timeline: timelineOf(chart, one.tempo),
    report: data.report,
    marks: data.marks,
    places: reportPlaces(data.report, playedFrom(notes, one.pace ?? one.tempo, one.offsetSec)),
    doubts: doubtsOf(notes),
  };
}

type Amendment = Partial<Pick<ReviewTake, 'plan' | 'offsetSec'>>;

const amendedTo = latest((data: ReviewData, said: string): ReviewData => {
  const next = { ...data, take: { ...data.take, ...(JSON.parse(said) as Amendment) } };
  const judgement = judgeTake(caseOf(next, next.edits));
  return { ...next, report: judgement.report, marks: judgement.marks, judgement };
});

/**
 * A take by another plan or lined up otherwise, judged here and now; its findings follow from the server. The last
 * one is kept: what was considered is at hand when it is chosen.
 */
export const amended = (data: ReviewData, to: Amendment): ReviewData => amendedTo(data, JSON.stringify(to));

const KEEP_AFTER_MS = 500;
export type Keeping = 'kept' | 'keeping' | 'failed';

export type Corrections = {
  readonly edits: readonly Edit[];
  readonly undone: readonly Edit[];
  readonly keeping: Keeping;
  readonly edit: (edit: Edit) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly retry: () => void;
  readonly newId: () => NoteId;
};

/**
 * A take under review: what was heard with the player's edits over it, judged anew here with every edit,
 * and kept on the server by itself.
 */
export function useReview(data: ReviewData): {
  judgement: Judgement;
  said: SaidOfTake;
  corrections: Corrections;
  byId: ReadonlyMap<NoteId, CorrectedNote>;
} {
  const [edits, setEdits] = useState(data.edits);
  const [undone, setUndone] = useState<readonly Edit[]>([]);
  const frame = useMemo(() => readCase(caseOf(data, data.edits)), [data]);
  const judgement = useMemo(
    () => (edits === data.edits ? given(data) : judgeTake(caseOf(data, edits), frame)),
    [data, edits, frame],
  );
  const said = useFindings(data, edits, judgement);
  const byId = useMemo(() => new Map(judgement.notes.map((note) => [note.id, note])), [judgement]);
  const { keeping, retry } = useKept(data.take.id, edits, data.edits);
  const counter = useRef(0);
  const edit = useCallback((one: Edit) => {
    setEdits((before) => withEdit(before, one));
    setUndone([]);
  }, []);
  const undo = useCallback(() => {
    const last = edits[edits.length - 1];
    if (!last) return;
    setEdits(edits.slice(0, -1));
    setUndone([...undone, last]);
  }, [edits, undone]);
  const redo = useCallback(() => {
    const last = undone[undone.length - 1];
    if (!last) return;
    setEdits([...edits, last]);
    setUndone(undone.slice(0, -1));
  }, [edits, undone]);
  const newId = useCallback(() => `a${Date.now().toString(36)}${(counter.current++).toString(36)}`, []);
  return {
    judgement,
    said,
    byId,
    corrections: { edits, undone, keeping, edit, undo, redo, retry, newId },
  };
}

const FIND_AFTER_MS = 250;

/**
 * Findings follow a moment after the last edit: boards are right at once, and nobody reads a sentence between
 * two key presses.
 */
function useFindings(data: ReviewData, edits: readonly Edit[], judgement: Judgement): SaidOfTake {
  const [found, setFound] = useState<{ judgement: Judgement; said: SaidOfTake } | null>(null);
  useEffect(() => {
    if (edits === data.edits) return;
    let isOver = false;
    const say = async (): Promise<SaidOfTake> => {
      // what finds and words is heavy, and most takes are read without a correction
      const { findingsIn } = await import('@/core/assessment');
      return findingsIn(caseOf(data, edits), judgement);
    };
    const timer = setTimeout(
      () =>
        void say()
          .then((said) => {
            if (!isOver) setFound({ judgement, said });
          })
          // with the server away it cannot be loaded: what was said stands until the server says it anew
          .catch(() => undefined),
      FIND_AFTER_MS,
    );
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [data, edits, judgement]);
  return edits === data.edits ? data : (found?.said ?? data);
}

/** So many notes are judged in a few milliseconds, so often: no key waits for a piece. */
const PIECE = 400;
const WARM_UPS = 60;
const WARM_UP_EVERY_MS = 8;

/**
 * Judges pieces of the take while nothing else is to be done: the first correction is then as quick as the tenth.
 */
export function useWarmedUp(data: ReviewData, wanted: boolean): void {
  const latestData = useRef(data);
  useEffect(() => void (latestData.current = data), [data]);
  useEffect(() => {
    if (!wanted) return;
    let done = 0;
    let timer = setTimeout(function again() {
      judgePiece(caseOf(latestData.current, latestData.current.edits), done * PIECE, PIECE);
      if (++done < WARM_UPS) timer = setTimeout(again, WARM_UP_EVERY_MS);
    }, WARM_UP_EVERY_MS);
    return () => clearTimeout(timer);
  }, [wanted]);
}

/**
 * Keeps edits on the server a moment after the last one; what is not kept when the page goes is sent on its
 * way.
 */
function useKept(
  id: string,
  edits: readonly Edit[],
  first: readonly Edit[],
): { keeping: Keeping; retry: () => void } {
  const [state, setState] = useState<{ edits: readonly Edit[]; keeping: Keeping }>({
    edits: first,
    keeping: 'kept',
  });
  const [attempt, setAttempt] = useState(0);
  const latest = useRef({ edits, kept: first });
  useEffect(() => {
    latest.current.edits = edits;
    if (edits === latest.current.kept) return;
    const timer = setTimeout(() => {
      keepEdits(id, edits)
        .then(() => {
          latest.current.kept = edits;
          setState({ edits, keeping: 'kept' });
        })
        .catch(() => setState({ edits, keeping: 'failed' }));
    }, KEEP_AFTER_MS);
    return () => clearTimeout(timer);
  }, [id, edits, attempt]);
  useEffect(() => {
    const flush = () => {
      const { edits: now, kept } = latest.current;
      if (now === kept) return;
      latest.current.kept = now;
      void keepEdits(id, now, true).catch(() => undefined);
    };
    window.addEventListener('pagehide', flush);
    return () => {
      window.removeEventListener('pagehide', flush);
      flush();
    };
  }, [id]);
  return {
    keeping: state.edits === edits ? state.keeping : 'keeping',
    retry: () => setAttempt((count) => count + 1),
  };
}
