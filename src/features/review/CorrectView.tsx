'use client';
import { formPositionOf, steady } from '@/core/chart';
import { editWords, type CorrectedNote } from '@/core/correct';
import { elementAt } from '@/core/shared';
import { KeyOf } from '../shell/commands/KeyOf';
import { beatOfNote, chordAt } from './correctNotes';
import { CorrectRow } from './CorrectRow';
import { DoubtCount, DoubtList, Question, Readings } from './DoubtList';
import { NoteActions } from './NoteActions';
import { nameOver } from './noteNames';
import { OpenBar } from './OpenBar';
import type { Correcting, CorrectProps } from './useCorrecting';
import type { Corrections } from './useReview';

type Props = CorrectProps & { act: Correcting; onAgain: () => void };
const BARS_A_ROW = 4;

/**
 * The bar of a note opened wide, with its pitch as it sounded; what is in doubt is asked first, one key each.
 */
export function CorrectView(props: Props) {
  const { judgement, take, drawn, held, onHold, act } = props;
  const { timeline, doubts } = judgement;
  const { note } = act;
  const beat = beatOfNote(judgement, held);
  const place = formPositionOf(timeline, Math.max(0, beat));
  const bar = elementAt(timeline.bars, place.bar);
  const chorusStart = place.chorus * timeline.formBeats;
  const [from, to] = [bar.start + chorusStart, bar.end + chorusStart];
  return (
    <>
      <h1 className="mb-3 text-[22px] leading-[30px] font-[480] tracking-tight text-soft sm:text-[25px] sm:leading-8">
        {act.doubt && note ? (
          <Question doubt={act.doubt} timeline={timeline} beat={beat} />
        ) : (
          <DoubtCount count={doubts.length} />
        )}
      </h1>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,900fr)_minmax(280px,288fr)]">
        <div className="min-w-0">
          <CorrectRow
            timeline={timeline}
            drawn={drawn}
            chorus={place.chorus}
            row={Math.floor(place.bar / BARS_A_ROW)}
            marked={[from, to]}
            selected={note ? judgement.places.indexOf(note.id) : null}
            onNote={(index) => onHold(elementAt(judgement.places, index))}
          />
          <OpenBar
            take={take}
            judgement={judgement}
            from={from}
            to={to}
            pace={take.pace ?? steady(take.tempo)}
            held={held}
            doubt={act.doubt}
            onHold={onHold}
          />
        </div>
        <aside className="min-w-0">
          <Readings act={act} doubts={doubts} timeline={timeline} beat={beat} />
          <DoubtList {...props} />
          <section aria-label="Change a note" className="mt-4">
            <h2 className="heading">{noteWords(props)}</h2>
            <NoteActions act={act} hasDoubts={doubts.length > 0} onAgain={props.onAgain} />
          </section>
          <Edits {...props} />
        </aside>
      </div>
    </>
  );
}

const nameOf = ({ judgement }: Props, note: CorrectedNote): string =>
  nameOver(chordAt(judgement.timeline, beatOfNote(judgement, note.id)), note.midi);

function noteWords(props: Props): string {
  const { note } = props.act;
  if (!note) return `${props.judgement.notes.length} notes; choose one`;
  return `${nameOf(props, note)}${note.ghost ? ', a ghost' : ''}${note.edited ? ', changed by you' : ''}`;
}

/** The last edit with its undo, how many there are, and whether they are saved. */
function Edits(props: Props) {
  const { corrections, byId } = props;
  const last = corrections.edits[corrections.edits.length - 1];
  const edited = last && byId.get(last.id);
  return (
    <p className="mt-3 border-t border-line pt-2 text-[15px] text-soft" role="status">
      <button type="button" className="disabled:text-dim" disabled={!last} onClick={corrections.undo}>
        <KeyOf command="review.undo" className="mr-1.5" />
        undo
        {last && (
          <>
            : <b>{editWords(last, edited ? nameOf(props, edited) : 'a note')}</b>
          </>
        )}
      </button>
      {corrections.undone.length > 0 && (
        <button type="button" className="ml-4" onClick={corrections.redo}>
          <KeyOf command="review.redo" className="mr-1.5" />
          redo
        </button>
      )}
      <br />
      {corrections.edits.length} {corrections.edits.length === 1 ? 'edit' : 'edits'} in this take,{' '}
      <Saving corrections={corrections} />; what was heard stays underneath
    </p>
  );
}

/** Whether the server has the edits. */
function Saving({ corrections: { keeping, retry } }: { corrections: Corrections }) {
  if (keeping === 'kept') return 'saved';
  if (keeping === 'keeping') return 'being saved';
  return (
    <span className="text-ink">
      not saved yet: the server does not answer.{' '}
      <button type="button" className="underline" onClick={retry}>
        Try again
      </button>
    </span>
  );
}
