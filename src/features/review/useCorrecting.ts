import { secondsAt, steady } from '@/core/chart';
import { isSlurred, type Slur } from '@/core/shared';
import { SHORTEST, type CorrectedNote, type Doubt, type NoteId } from '@/core/correct';
import type { Judgement } from '@/core/review';
import type { TakePlayer } from '@/audio/playback/takePlayer';
import type { TakeOnForm } from '@/ui/form/takeOnForm';
import type { Corrections, ReviewTake } from './useReview';

export type CorrectProps = {
  take: ReviewTake;
  judgement: Judgement;
  byId: ReadonlyMap<NoteId, CorrectedNote>;
  corrections: Corrections;
  drawn: TakeOnForm;
  player: TakePlayer;
  /** The note that is held, by its name. */
  held: NoteId | null;
  onHold: (id: NoteId | null) => void;
};

const STEP_SEC = 0.01;

/** What the hands can do to a note: used by the keys and by the buttons alike. */
export function useCorrecting({
  judgement,
  byId,
  corrections,
  held,
  onHold,
  player,
  take,
}: Omit<CorrectProps, 'drawn'>) {
  const { doubts, notes } = judgement;
  const note = held === null ? undefined : byId.get(held);
  const doubt = doubts.find(({ id }) => id === held);
  const { edit, newId } = corrections;
  const at = note ? notes.indexOf(note) : -1;
  const hold = (index: number) => onHold(notes[Math.max(0, Math.min(notes.length - 1, index))]?.id ?? null);
  const nextDoubt = (after: NoteId | null) => doubts.find(({ id }) => id !== after)?.id ?? null;
  const read = (reading: Doubt['readings'][number]) => {
    if (!note) return;
    if (reading.midi === null) edit({ kind: 'delete', id: note.id });
    else if (reading.midi === note.midi) edit({ kind: 'sure', id: note.id });
    else edit({ kind: 'pitch', id: note.id, midi: reading.midi });
    onHold(nextDoubt(note.id) ?? note.id);
  };
  const time = (start: number, end: number) => {
    if (note && note.offsetSec + end - (note.onsetSec + start) >= SHORTEST)
      edit({ kind: 'time', id: note.id, onsetSec: note.onsetSec + start, offsetSec: note.offsetSec + end });
  };
  return {
    note,
    doubt,
    accept: () => doubt && read(doubt.readings[0]),
    other: () => doubt && read(doubt.readings[1]),
    skip: () =>
      onHold(
        doubts[(doubts.findIndex(({ id }) => id === held) + 1) % Math.max(1, doubts.length)]?.id ?? null,
      ),
    previous: () => hold(at < 0 ? notes.length - 1 : at - 1),
    next: () => hold(at + 1),
    pitch: (by: number) =>
      note && edit({ kind: 'pitch', id: note.id, midi: Math.max(20, Math.min(108, note.midi + by)) }),
    remove: () => {
      if (note) {
        edit({ kind: 'delete', id: note.id });
        onHold(notes[at + 1]?.id ?? notes[at - 1]?.id ?? null);
      }
    },
    start: (by: number) => time(by * STEP_SEC, 0),
    end: (by: number) => time(0, by * STEP_SEC),
    move: (by: number) => time(by * STEP_SEC, by * STEP_SEC),
    split: () => {
      if (note) {
        const id = newId();
        edit({ kind: 'split', id: note.id, atSec: (note.onsetSec + note.offsetSec) / 2, newId: id });
      }
    },
    merge: () => {
      const after = notes[at + 1];
      if (note && after) edit({ kind: 'merge', id: note.id, withId: after.id });
    },
    ghost: () => note && edit({ kind: 'ghost', id: note.id, ghost: !note.ghost }),
    slur: () => {
      const before = notes[at - 1];
      if (note && before) edit({ kind: 'attack', id: note.id, attack: otherAttack(before, note) });
    },
    add: () => {
      const walk = take.pace ?? steady(take.tempo);
      const onsetSec = note ? note.offsetSec : take.offsetSec + secondsAt(walk, player.beat);
      const id = newId();
      edit({ kind: 'add', id, onsetSec, offsetSec: onsetSec + 0.25, midi: note?.midi ?? 60 });
      onHold(id);
    },
  };
}

/** Picked where it was slurred; else hammered on or pulled off, by where the note before lies. */
const otherAttack = (before: CorrectedNote, { attack, midi }: CorrectedNote): 'pick' | Slur => {
  if (isSlurred(attack)) return 'pick';
  return midi > before.midi ? 'hammer' : 'pull';
};
export type Correcting = ReturnType<typeof useCorrecting>;
