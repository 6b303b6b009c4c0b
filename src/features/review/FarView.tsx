'use client';
import { chorusAt } from '@/core/chart';
import { useState } from 'react';
import { StandBack } from './StandBack';
import { barsOfFormChange } from './places';
import { hearingOf, leaveFar } from './reviewCommands';
import type { ReviewModel } from './useReviewModel';
import { useCursor } from './useTakePlayer';

/** The form from two metres away, one change after the other. */
export function FarView({ model }: { model: ReviewModel }) {
  const { judgement, formChanges, player, state } = model;
  const { report, marks, timeline } = judgement;
  const { formChange } = state;
  const hear = hearingOf(model);
  const [sounding, setSounding] = useState<number | null>(null);
  useCursor(player, (beat, playing) => setSounding(playing ? chorusAt(timeline, beat) : null));
  const change = formChanges[formChange];
  return (
    <div className="flex min-h-dvh flex-col">
      <main className="flex grow flex-col">
        <StandBack
          report={report}
          marks={marks}
          formChanges={formChanges}
          open={formChange}
          sounding={sounding}
          onOpen={hear.formChange}
        />
      </main>
      <footer className="flex min-h-[88px] flex-wrap items-center gap-x-10 gap-y-2 border-t border-line bg-panel px-4 py-3 text-[20px] sm:px-8 sm:text-[26px]">
        <button type="button" onClick={() => hear.formChange(formChange + 1)}>
          <b className="mr-3 font-[620] text-now">press</b>
          <b className="font-[620]">next change, with sound</b>
        </button>
        <button type="button" className="text-soft" onClick={() => leaveFar(model)}>
          <b className="mr-3 font-[620] text-now">hold</b>back to the full picture
        </button>
        {change && (
          <button type="button" className="text-soft" onClick={hear.loopFormChange}>
            <b className="mr-3 font-[620] text-now">double</b>loop {barsWords(barsOfFormChange(change))}
          </button>
        )}
      </footer>
    </div>
  );
}

const barsWords = ([first, last]: readonly [number, number]): string =>
  first === last ? `bar ${last}` : `bars ${first} and ${last}`;
