import type { ProvisionalNote } from '@/core/transcribe';
import { elementAt } from '@/core/shared';

/** The notes of the running take as they seem, in order; whoever draws them is told of every change. */
export class LiveNotes {
  notes: readonly ProvisionalNote[] = [];
  private readonly listeners = new Set<() => void>();

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  read = (): readonly ProvisionalNote[] => this.notes;

  /** A note already known by its onset grows; a new one ends what still seemed to sound. */
  add(changed: readonly ProvisionalNote[]): void {
    const notes = [...this.notes];
    for (const note of changed) {
      const at = notes.findLastIndex(({ onsetSec }) => onsetSec <= note.onsetSec + 1e-6);
      if (at >= 0 && Math.abs(elementAt(notes, at).onsetSec - note.onsetSec) < 1e-6) notes[at] = note;
      else {
        const before = notes[at];
        if (before && before.offsetSec > note.onsetSec) notes[at] = { ...before, offsetSec: note.onsetSec };
        notes.splice(at + 1, 0, note);
      }
    }
    this.notes = notes;
    for (const listener of this.listeners) listener();
  }
}
