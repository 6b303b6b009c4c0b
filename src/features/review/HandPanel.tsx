'use client';
import type { Instrument } from '@/core/neck';
import { ToggleRow } from '@/ui/controls';
import { HandPlace, lastPlace } from '@/ui/neck/HandPlace';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import type { ReviewModel } from './useReviewModel';
import { HAND_SCOPES, wherePlayed } from './wherePlayed';

/** Where it was played: sound does not tell, so the player may say it of a bar, a phrase or the take. */
export function HandPanel({ model, instrument }: { model: ReviewModel; instrument: Instrument }) {
  const { scope, value, set, move } = wherePlayed(model, instrument);
  useCommands({
    'review.form.handLower': () => move(-1),
    'review.form.handHigher': () => move(1),
    'review.form.handLikeliest': () => set(null),
  });
  return (
    <section
      aria-label="Where it was played"
      className="mt-5 border-t border-line pt-3 text-[15px] leading-6"
    >
      <h2 className="mb-1 flex justify-between font-[580]">
        Where it was played
        <span className="text-dim">
          <KeyOf command="review.form.handLower" /> <KeyOf command="review.form.handHigher" />
        </span>
      </h2>
      {model.current ? (
        <ToggleRow
          label="Of what"
          value={scope}
          choices={HAND_SCOPES}
          onChange={(handScope) => model.dispatch({ type: 'set', change: { handScope } })}
          className="mb-2"
        />
      ) : (
        <p className="mb-2 text-dim">The whole take; select a note for its bar or phrase.</p>
      )}
      <HandPlace label="Fret of the index finger" value={value} last={lastPlace(instrument)} onChange={set} />
      <p className="mt-4 text-dim">
        {value === null &&
          'Sound does not tell where a note was played. Press the fret your index finger lay at.'}
        {value === 'several' && 'Several places, as you set them.'}
        {typeof value === 'number' && `As you set it: your index finger at fret ${value}.`}
      </p>
    </section>
  );
}
