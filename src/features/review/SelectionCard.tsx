'use client';
import type { ReactNode } from 'react';
import type { Report } from '@/core/analyse';
import { KeyOf } from '../shell/commands/KeyOf';
import type { FixAsked } from './places';
import { canKeep, type PhraseBorders } from './phraseBorders';
import type { Selection } from './selection';
import { BODIES } from './SelectionBodies';

type Props = {
  report: Report;
  selection: Selection;
  place: string;
  onClose: () => void;
  onHear: () => void;
  onFix: (fix: FixAsked) => void;
  /** Makes a drill of a phrase. */ onPhrase: (index: number) => void;
  /** Keeps a phrase among the player's own. */ onKeep: (index: number) => void;
  borders: PhraseBorders;
  canCorrect?: ReactNode;
};

/**
 * What is selected: what it is, what it did, why it matters, by what rule, and the smallest change that would
 * have met the chord.
 */
export function SelectionCard(props: Props) {
  const { selection, place, onClose, onHear } = props;
  const Body = BODIES[selection.kind];
  return (
    <section aria-label="Selected" className="mb-4 border-t-2 border-now pt-2.5">
      <div className="flex justify-between text-[15px] leading-6 text-soft">
        <h2>{place}</h2>
        <button type="button" onClick={onClose} className="text-dim hover:text-ink">
          <KeyOf command="review.form.clear" /> close
        </button>
      </div>
      <div aria-live="polite">
        <Body report={props.report} index={selection.index} onFix={props.onFix} />
      </div>
      <p className="mt-3 flex flex-wrap gap-x-4 gap-y-1 text-[15px]">
        <button type="button" className="font-[580] text-now hover:underline" onClick={onHear}>
          Hear it <KeyOf command="review.form.hear" className="ml-1" />
        </button>
        {selection.kind === 'phrase' && (
          <button
            type="button"
            className="text-soft hover:text-ink"
            onClick={() => props.onPhrase(selection.index)}
          >
            Practise it on every chord
          </button>
        )}
        {selection.kind === 'phrase' && canKeep(props.report, selection.index) && (
          <button
            type="button"
            className="text-soft hover:text-ink"
            onClick={() => props.onKeep(selection.index)}
          >
            Keep it <KeyOf command="review.form.keepPhrase" className="ml-1" />
          </button>
        )}
        <BorderButtons borders={props.borders} />
        {selection.kind !== 'chorus' && props.canCorrect}
      </p>
    </section>
  );
}

/** Where phrases begin is the player's to say. */
const BorderButtons = ({ borders }: { borders: PhraseBorders }) => (
  <>
    {borders.canSplit && (
      <button type="button" className="text-soft hover:text-ink" onClick={borders.split}>
        Begin a phrase here <KeyOf command="review.form.splitPhrase" className="ml-1" />
      </button>
    )}
    {borders.canJoin && (
      <button type="button" className="text-soft hover:text-ink" onClick={borders.join}>
        Join with the phrase before <KeyOf command="review.form.joinPhrase" className="ml-1" />
      </button>
    )}
  </>
);
