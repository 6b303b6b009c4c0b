'use client';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { barStart } from '@/core/chart';
import { trashTake } from '../shell/trash';
import type { SiblingTake } from './CompareView';
import { Picture } from './FormView';
import { remarkPlace } from './places';
import { playAgain } from './reviewCommands';
import { placeText } from './Transport';
import { type ReviewModel } from './useReviewModel';
import { useWords } from './useWords';

const BoardsView = dynamic(() => import('./BoardsView').then((made) => made.BoardsView));
const CorrectView = dynamic(() => import('./CorrectView').then((made) => made.CorrectView));
const CompareView = dynamic(() => import('./CompareView').then((made) => made.CompareView));
const WordsView = dynamic(() => import('./WordsView').then((made) => made.WordsView));
export type ViewProps = { model: ReviewModel; siblings: readonly SiblingTake[] };

export function Boards({
  model: { data, judgement, player, state, dispatch, select },
}: {
  model: ReviewModel;
}) {
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

export const Correct = ({ model }: { model: ReviewModel }) => (
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
    onAgain={() => playAgain(model)}
  />
);

export const Compare = ({ model: { data, judgement, corrections, player }, siblings }: ViewProps) => (
  <CompareView
    data={{ ...data, edits: corrections.edits }}
    judgement={judgement}
    siblings={siblings}
    onHear={(beat) => void player.play(beat, null)}
  />
);

export function Words({ model }: { model: ReviewModel }) {
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

export function DrawBySwitch({ model: { state, dispatch } }: { model: ReviewModel }) {
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
