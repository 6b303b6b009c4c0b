'use client';
import { useEffect, useMemo, useState } from 'react';
import { readChart, timelineOf } from '@/core/chart';
import { reviewAnswer, ServerRefusal } from '@/audio/persistence/serverTakes';
import { FormRow } from '@/ui/form/FormRow';
import { HEAD, LANE } from '@/ui/form/geometry';
import { formRows } from '@/ui/form/formRows';
import { Shell } from '../shell/Shell';
import type { SiblingTake } from './CompareView';
import { ReviewScreen } from './ReviewScreen';
import type { ReviewData, ReviewTake } from './useReview';

type Props = {
  take: ReviewTake;
  siblings: readonly SiblingTake[];
  cut: boolean;
  view?: string | undefined;
  at?: string | undefined;
};

/**
 * Opens a review: the form stands at once, its notes come as data of their own. A long take is two
 * megabytes of report, and those are
 * quicker asked for as what they are than as part of a page.
 */
export function ReviewPage({ take, siblings: kin, cut, view, at }: Props) {
  const [state, setState] = useState<{ data: ReviewData } | { trouble: string } | null>(null);
  const [attempt, setAttempt] = useState(0);
  useEffect(() => {
    let gone = false;
    reviewAnswer<Omit<ReviewData, 'take'>>(take.id)
      .then((review) => {
        if (!gone)
          setState((before) => ({ data: { ...review, edits: sameEdits(before, review.edits), take } }));
      })
      .catch((error: unknown) => {
        if (!gone)
          setState({
            trouble: error instanceof ServerRefusal ? error.message : 'The server does not answer.',
          });
      });
    return () => {
      gone = true;
    };
  }, [take, attempt]);
  if (state && 'data' in state)
    return <ReviewScreen data={state.data} siblings={kin} cut={cut} view={view} at={at} />;
  return (
    <Opening
      take={take}
      trouble={state?.trouble ?? null}
      onAgain={() => {
        setState(null);
        setAttempt(attempt + 1);
      }}
    />
  );
}

/** The very edits of before where the server has the same ones: nothing of a visit begins anew then. */
function sameEdits(
  before: { data: ReviewData } | { trouble: string } | null,
  edits: ReviewData['edits'],
): ReviewData['edits'] {
  const known = before && 'data' in before ? before.data.edits : null;
  return known && JSON.stringify(known) === JSON.stringify(edits) ? known : edits;
}

/** Most takes are there sooner than a drawing of what is not there yet could be looked at. */
const SOON_MS = 400;

/** The form without its notes, while they come. */
function Opening({
  take,
  trouble,
  onAgain,
}: {
  take: ReviewTake;
  trouble: string | null;
  onAgain: () => void;
}) {
  const timeline = useMemo(() => {
    const chart = readChart(take.chartText);
    return chart.ok ? timelineOf(chart.value, take.tempo) : null;
  }, [take]);
  const [waiting, setWaiting] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setWaiting(true), SOON_MS);
    return () => clearTimeout(timer);
  }, []);
  const rows = waiting && timeline ? formRows(timeline).slice(0, 3) : [];
  const lanes = Array.from({ length: Math.min(3, take.choruses) }, (_, chorus) => chorus);
  const height = HEAD + lanes.length * LANE + 8;
  return (
    <Shell
      place="Takes"
      footer={
        <span className="text-dim">
          {take.title}, take {take.number}
        </span>
      }
    >
      <div className="mx-4 pt-2 pb-6 sm:mx-8">
        {trouble === null ? (
          <p role="status" className="mb-10 text-[25px] leading-8 text-dim">
            Opening take {take.number}.
          </p>
        ) : (
          <p role="alert" className="mb-6 border-l-[3px] border-now pl-4 text-xl leading-8 text-ink">
            {trouble}{' '}
            <button type="button" className="quiet ml-3" onClick={onAgain}>
              Try again
            </button>
          </p>
        )}
        <div className="max-w-[872px]" aria-hidden="true">
          {rows.map((row) => (
            <svg key={row.index} viewBox={`0 0 872 ${height}`} className="block w-full">
              <FormRow
                row={row}
                width={872}
                formBeats={timeline?.formBeats ?? 0}
                choruses={lanes}
                take={null}
              />
            </svg>
          ))}
        </div>
      </div>
    </Shell>
  );
}
