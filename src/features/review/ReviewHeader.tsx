'use client';
import { planShort } from '@/core/plan';
import { KeyOf } from '../shell/commands/KeyOf';
import { VIEWS } from './reviewState';
import type { ReviewModel } from './useReviewModel';

/** Under this it is more likely that something else than a played line was heard. */
const DOUBTFUL = 0.5;

/** Which take it is, and the ways to look at it. */
export function ReviewHeader({ model, cut }: { model: ReviewModel; cut: boolean }) {
  const { certainty, isJudgedAnew } = model.data;
  return (
    <>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-6">
        <TakeFacts model={model} />
        <Views model={model} />
      </div>
      {cut && (
        <p role="status" className="my-2 border-l-[3px] border-now pl-4 text-soft">
          The input was disconnected during this take. What was played until then is kept and judged.
        </p>
      )}
      {isJudgedAnew && (
        <p role="status" className="my-2 border-l-[3px] border-line pl-4 text-dim">
          Judged again by newer rules: some counts may differ from those you saw before. Your notes and edits
          are as they were.
        </p>
      )}
      {certainty !== null && certainty < DOUBTFUL && model.judgement.report.summary.notes > 0 && (
        <p role="status" className="my-2 border-l-[3px] border-now pl-4 text-ink">
          This hardly sounds like a played line: a voice, drums or the band may have been heard instead. Take
          what follows with doubt; a lead into the input, or the microphone nearer to the guitar, helps.
        </p>
      )}
    </>
  );
}

function TakeFacts({ model: { data, judgement } }: { model: ReviewModel }) {
  const { take } = data;
  const { doubts, report } = judgement;
  const doubtful = doubts.length === 0 ? '' : `, ${doubts.length} of them in doubt`;
  return (
    <p className="flex flex-wrap gap-x-5 text-sm leading-6 text-dim">
      <span>
        {take.title}, take {take.number}
      </span>
      <span>
        {take.choruses} {take.choruses === 1 ? 'chorus' : 'choruses'} at {Math.round(take.tempo * 10) / 10}
      </span>
      <span>{planShort(take.plan)}</span>
      <span>
        {report.summary.notes} notes{doubtful}
      </span>
      <span>{take.when}</span>
      {take.source === 'stand-in' && <span>played by the stand-in player</span>}
    </p>
  );
}

function Views({ model: { state, dispatch } }: { model: ReviewModel }) {
  return (
    <nav aria-label="Ways to look at this take" className="no-print flex flex-wrap gap-x-4 text-[15px]">
      {VIEWS.map(([id, name]) => (
        <button
          key={id}
          type="button"
          aria-current={state.view === id ? 'page' : undefined}
          className={
            state.view === id
              ? 'border-b-2 border-now font-[620] text-ink'
              : 'border-b-2 border-transparent text-soft hover:text-ink'
          }
          onClick={() => dispatch({ type: 'view', view: id })}
        >
          {name}
        </button>
      ))}
      <button
        type="button"
        className="border-b-2 border-transparent text-soft hover:text-ink"
        onClick={() => dispatch({ type: 'view', view: 'far' })}
      >
        Stand back <KeyOf command="review.standBack" className="ml-1" />
      </button>
    </nav>
  );
}
