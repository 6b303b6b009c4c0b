'use client';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { barStart } from '@/core/chart';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { trashTake } from '../shell/trash';
import type { SiblingTake } from './CompareView';
import { FormView, Picture } from './FormView';
import { remarkPlace } from './places';
import { reviewCommands } from './reviewCommands';
import { ReviewHeader } from './ReviewHeader';
import { placeText, Transport } from './Transport';
import type { ReviewData } from './useReview';
import { useReviewModel, type ReviewModel } from './useReviewModel';
import { useWords } from './useWords';

// what a review opens with is the form; the other views come when they are asked for
const PageView = dynamic(() => import('./PageView').then((made) => made.PageView));
const BoardsView = dynamic(() => import('./BoardsView').then((made) => made.BoardsView));
const CorrectView = dynamic(() => import('./CorrectView').then((made) => made.CorrectView));
const CompareView = dynamic(() => import('./CompareView').then((made) => made.CompareView));
const WordsView = dynamic(() => import('./WordsView').then((made) => made.WordsView));
const FarView = dynamic(() => import('./FarView').then((made) => made.FarView));

type Props = {
  data: ReviewData;
  cut: boolean;
  siblings: readonly SiblingTake[];
  view?: string | undefined;
  at?: string | undefined;
};
type ViewProps = { model: ReviewModel; siblings: readonly SiblingTake[] };

/**
 * A take under review, from near and from two metres away: the form, its boards, its notes under the hand, and
 * other takes beside it.
 */
export function ReviewScreen({ data, cut, siblings, view, at }: Props) {
  const model = useReviewModel(data, view, at);
  useCommands(reviewCommands(model));
  if (model.state.view === 'far') return <FarView model={model} />;
  const { judgement, player, playing } = model;
  return (
    <Shell
      place="Takes"
      footer={
        <>
          <Transport
            player={player}
            state={playing}
            timeline={judgement.timeline}
            soundGone={data.take.soundGone}
          />
          <DrawBySwitch model={model} />
        </>
      }
    >
      <div className="mx-4 pb-6 sm:mx-8">
        <ReviewHeader model={model} cut={cut} />
        <NearView model={model} siblings={siblings} />
      </div>
    </Shell>
  );
}

function NearView({ model, siblings }: ViewProps) {
  switch (model.state.view) {
    case 'form':
      return <FormView model={model} />;
    case 'page':
      return <PageView model={model} />;
    case 'boards':
      return <Boards model={model} />;
    case 'correct':
      return <Correct model={model} />;
    case 'compare':
      return <Compare model={model} siblings={siblings} />;
    case 'words':
      return <Words model={model} />;
    case 'far':
      return null;
  }
}

function Boards({ model: { data, judgement, player, state, dispatch, select } }: { model: ReviewModel }) {
  return (
    <BoardsView
      judgement={judgement}
      plan={data.take.plan}
      kind={state.kind}
      onKind={(kind) => dispatch({ type: 'set', change: { kind } })}
      onHear={(beat) => void player.play(beat, null)}
      onNote={(index) => {
        select({ kind: 'note', index });
        dispatch({ type: 'view', view: 'form' });
      }}
    />
  );
}

const Correct = ({ model }: { model: ReviewModel }) => (
  <CorrectView
    take={model.data.take}
    judgement={model.judgement}
    byId={model.byId}
    corrections={model.corrections}
    drawn={model.drawn}
    player={model.player}
    held={model.state.held}
    onHold={model.hold}
    act={model.act}
  />
);

const Compare = ({ model: { data, judgement, corrections, player }, siblings }: ViewProps) => (
  <CompareView
    data={{ ...data, edits: corrections.edits }}
    judgement={judgement}
    siblings={siblings}
    onHear={(beat) => void player.play(beat, null)}
  />
);

function Words({ model }: { model: ReviewModel }) {
  const { data, judgement, player, current, span } = model;
  const { take } = data;
  const { timeline } = judgement;
  const router = useRouter();
  const { words, setWords, keeping } = useWords(take.id, data.words);
  return (
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
        onHear={(beat) => void player.play(beat, null)}
        onRemove={() =>
          void trashTake(
            take.id,
            () => router.push('/takes'),
            ({ id }) => router.push(`/takes/${id}`),
          )
        }
      />
      <div className="mt-8">
        <Picture model={model} whole />
      </div>
    </>
  );
}

function DrawBySwitch({ model: { state, dispatch } }: { model: ReviewModel }) {
  const { drawBy, view } = state;
  return (
    <span className="ml-auto hidden items-center gap-4 xl:flex">
      {view === 'form' && (
        <button
          type="button"
          onClick={() => dispatch({ type: 'toggleDrawBy' })}
          aria-label={`Draw by ${drawBy === 'height' ? 'pitch' : 'height'}`}
        >
          Draw by <b className={drawBy === 'height' ? 'text-ink' : 'font-normal'}>height</b>,{' '}
          <b className={drawBy === 'pitch' ? 'text-ink' : 'font-normal'}>pitch</b>
        </button>
      )}
    </span>
  );
}
