'use client';
import dynamic from 'next/dynamic';
import { useEffect, useEffectEvent } from 'react';
import { whenIdle } from '@/ui/whenIdle';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import type { SiblingTake } from './CompareView';
import { FormView } from './FormView';
import { reviewCommands } from './reviewCommands';
import { ReviewHeader } from './ReviewHeader';
import { Transport } from './Transport';
import type { ReviewData } from './useReview';
import { useReviewModel } from './useReviewModel';
import { Boards, Correct, Compare, Words, DrawBySwitch, type ViewProps } from './ReviewViews';

// what a review opens with is the form; the other views come when they are asked for
const loadPage = () => import('./PageView');
const PageView = dynamic(() => loadPage().then((made) => made.PageView));
const PlayAgain = dynamic(() => import('./PlayAgain').then((made) => made.PlayAgain));
const FarView = dynamic(() => import('./FarView').then((made) => made.FarView));

type Props = {
  data: ReviewData;
  cut: boolean;
  siblings: readonly SiblingTake[];
  view?: string | undefined;
  at?: string | undefined;
};

/**
 * A take under review, from near and from two metres away: the form, its boards, its notes under the hand, and
 * other takes beside it.
 */
export function ReviewScreen({ data, cut, siblings, view, at }: Props) {
  const model = useReviewModel(data, view, at);
  useCommands(reviewCommands(model));
  // the engraver is large: it comes while the form is looked at, and the page stands at once when its key is pressed
  const makeReady = useEffectEvent((page: Awaited<ReturnType<typeof loadPage>>) => page.makeReady(model));
  useEffect(() => whenIdle(() => void loadPage().then((page) => makeReady(page))), []);
  if (model.state.isPlayingAgain) return <PlayAgain model={model} />;
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
            takeId={data.take.id}
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
