'use client';
import { formPositionOf, type Timeline } from '@/core/chart';
import type { Doubt } from '@/core/correct';
import { KeyOf } from '../shell/commands/KeyOf';
import { beatOfNote, readingName } from './correctNotes';
import type { Correcting, CorrectProps } from './useCorrecting';

const MOST_LISTED = 20;
const WHY: Record<Doubt['why'], string> = {
  octave: 'an octave out of its line',
  between: 'between two keys',
  faint: 'hardly heard',
};

/** The two readings of the note in doubt, each with its key. */
export function Readings({ act, doubts, timeline, beat }: ReadingsProps) {
  if (!act.doubt) return null;
  return (
    <section aria-label="Readings">
      <h2 className="border-b-2 border-now pb-1 text-[15px] text-dim">
        Note {doubts.indexOf(act.doubt) + 1} of {doubts.length}: two readings
      </h2>
      {act.doubt.readings.map((reading, index) => (
        <button
          key={index}
          type="button"
          className="block w-full border-b border-line py-2 text-left"
          onClick={index === 0 ? act.accept : act.other}
        >
          <span className="flex items-baseline justify-between gap-3">
            <b
              className={
                index === 0
                  ? 'text-[40px] leading-[44px] font-[640]'
                  : 'text-[32px] leading-[40px] font-[560] text-soft'
              }
            >
              {readingName(reading.midi, timeline, beat)}
            </b>
            <span className="text-soft">
              {Math.round(reading.belief * 100)} in 100{' '}
              <KeyOf
                command={index === 0 ? 'review.correct.accept' : 'review.correct.other'}
                className="ml-1"
              />
            </span>
          </span>
        </button>
      ))}
    </section>
  );
}
type ReadingsProps = { act: Correcting; doubts: readonly Doubt[]; timeline: Timeline; beat: number };

/** The notes that are still in doubt: choosing one plays it. */
export function DoubtList({ act, judgement, held, onHold, player }: CorrectProps & { act: Correcting }) {
  const { doubts, timeline } = judgement;
  if (doubts.length === 0) return null;
  const open = doubts.filter(({ id }) => id !== held).slice(0, MOST_LISTED);
  return (
    <section aria-label="In doubt" className="mt-4">
      <h2 className="heading">{act.doubt ? 'Still in doubt' : 'In doubt'}</h2>
      <ul className="max-h-40 overflow-y-auto">
        {open.map((doubt) => {
          const beat = beatOfNote(judgement, doubt.id);
          const at = formPositionOf(timeline, Math.max(0, beat));
          const names = doubt.readings.map(({ midi }) => readingName(midi, timeline, beat));
          return (
            <li key={doubt.id} className="border-t border-line">
              <button
                type="button"
                className="flex w-full justify-between py-1.5 text-left text-[15px]"
                onClick={() => {
                  onHold(doubt.id);
                  void player.play(beat - 1, null);
                }}
              >
                <span className="text-soft">
                  bar {at.bar + 1}, chorus {at.chorus + 1}
                </span>
                <b>{names.join(' or ')}</b>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** The two readings of a note in doubt, as a question. */
export function Question({ doubt, timeline, beat }: { doubt: Doubt; timeline: Timeline; beat: number }) {
  const why = WHY[doubt.why];
  const second = readingName(doubt.readings[1].midi, timeline, beat);
  return (
    <>
      {why.charAt(0).toUpperCase() + why.slice(1)}:{' '}
      <b className="font-[620] text-ink">
        {readingName(doubt.readings[0].midi, timeline, beat)}, or{' '}
        {second.toLowerCase() === 'no note' ? 'no note' : second}?
      </b>
    </>
  );
}

/** How many notes are in doubt, where none is chosen. */
export function DoubtCount({ count }: { count: number }) {
  if (count === 0) {
    return (
      <>
        No note of this take is in doubt. <b className="font-[620] text-ink">Any of them can be changed.</b>
      </>
    );
  }
  return (
    <>
      {count} {count === 1 ? 'note is' : 'notes are'} in doubt;{' '}
      <b className="font-[620] text-ink">they are left out of the findings until you say.</b>
    </>
  );
}
