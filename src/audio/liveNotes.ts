import type { ProvisionalNote } from '@/core/transcribe';
import { createStore, elementAt } from '@/core/shared';

/** The notes of the running take as they seem, in order; whoever draws them is told of every change. */
export class LiveNotes {
  private readonly store = createStore<readonly ProvisionalNote[]>([]);
  readonly subscribe = this.store.subscribe;
  readonly read = this.store.get;
  get notes(): readonly ProvisionalNote[] {
    return this.store.get();
  }

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
    this.store.set(notes);
  }
}
