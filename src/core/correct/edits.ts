import type { PhraseBorder, PlayedNote } from '../analyse';
import type { Attack, Midi, Seconds } from '../shared';

/** A note as it was heard, in seconds of the take. */
export type SecondsNote = Omit<PlayedNote, 'onsetBeat' | 'durationBeats'> & {
  readonly onsetSec: Seconds;
  readonly offsetSec: Seconds;
};

/**
 * A note's name for as long as its take lives: `h` and its place among what was heard, or whatever an edit
 * called it.
 */
export type NoteId = string;

/** One step of a player's hand over what was heard. What was heard stays as it is underneath. */
export type Edit =
  | { readonly kind: 'delete'; readonly id: NoteId }
  | {
      readonly kind: 'add';
      readonly id: NoteId;
      readonly onsetSec: Seconds;
      readonly offsetSec: Seconds;
      readonly midi: Midi;
    }
  | { readonly kind: 'pitch'; readonly id: NoteId; readonly midi: Midi }
  | { readonly kind: 'time'; readonly id: NoteId; readonly onsetSec: Seconds; readonly offsetSec: Seconds }
  | { readonly kind: 'split'; readonly id: NoteId; readonly atSec: Seconds; readonly newId: NoteId }
  | { readonly kind: 'merge'; readonly id: NoteId; readonly withId: NoteId }
  /** Struck, but not meant as a pitch: kept in the take, asked by no rule. */
  | { readonly kind: 'ghost'; readonly id: NoteId; readonly ghost: boolean }
  /** A phrase begins with this note, or goes on through it; null: as the rests say. No correction of the note. */
  | { readonly kind: 'phrase'; readonly id: NoteId; readonly border: PhraseBorder | null }
  /** Where the player had the hand: its lowest fret, for each of these notes; null: where it is likeliest. */
  | {
      readonly kind: 'position';
      readonly id: NoteId;
      readonly ids: readonly NoteId[];
      readonly fret: number | null;
    }
  /** Picked, or begun by the fretting hand: no correction of the note. */
  | { readonly kind: 'attack'; readonly id: NoteId; readonly attack: Exclude<Attack, 'slide'> }
  /** A stretch that was played again: what began in it gives way to what was heard then. */
  | {
      readonly kind: 'again';
      readonly id: NoteId;
      readonly fromSec: Seconds;
      readonly toSec: Seconds;
      readonly notes: readonly (SecondsNote & { readonly id: NoteId })[];
    }
  /** Heard rightly: it is doubted no more. */
  | { readonly kind: 'sure'; readonly id: NoteId };

/** A note after all edits. */
export type CorrectedNote = SecondsNote & {
  readonly id: NoteId;
  readonly edited?: true;
  readonly ghost?: true;
  /** Said to be right by the player. */ readonly sure?: true;
};

export const SHORTEST: Seconds = 0.02;
export const MOST_EDITS = 20_000;

export const heardId = (index: number): NoteId => `h${index}`;

/**
 * What was heard with a player's edits laid over it, in order of onset, then pitch. An edit of a note that
 * is not there any more does
 * nothing: edits may be taken back in any order.
 */
export function corrected(heard: readonly SecondsNote[], edits: readonly Edit[]): CorrectedNote[] {
  const notes = new Map<NoteId, CorrectedNote>(named(heard).map((note) => [note.id, note]));
  for (const edit of edits) apply(notes, edit);
  return [...notes.values()].sort((a, b) => a.onsetSec - b.onsetSec || a.midi - b.midi);
}

const names = new WeakMap<readonly SecondsNote[], readonly CorrectedNote[]>();

/**
 * What was heard with its names: made once a take, so that a note nobody touched stays the same object from
 * edit to edit.
 */
function named(heard: readonly SecondsNote[]): readonly CorrectedNote[] {
  let known = names.get(heard);
  if (!known) names.set(heard, (known = heard.map((note, index) => ({ ...note, id: heardId(index) }))));
  return known;
}

function apply(notes: Map<NoteId, CorrectedNote>, edit: Edit): void {
  switch (edit.kind) {
    case 'add':
      return add(notes, edit);
    case 'position':
      return place(notes, edit.ids, edit.fret);
    case 'again':
      return replaceStretch(notes, edit);
    default:
      return applyToNote(notes, edit);
  }
}

type NoteEdit = Exclude<Edit, { readonly kind: 'add' | 'position' | 'again' }>;

function applyToNote(notes: Map<NoteId, CorrectedNote>, edit: NoteEdit): void {
  const note = notes.get(edit.id);
  if (!note) return;
  const put = (change: Partial<CorrectedNote>) =>
    notes.set(edit.id, { ...note, confidence: 1, edited: true, ...change });
  switch (edit.kind) {
    case 'delete':
      notes.delete(edit.id);
      return;
    case 'pitch':
      notes.set(edit.id, repitched(note, edit.midi));
      return;
    case 'time':
      if (edit.offsetSec - edit.onsetSec >= SHORTEST)
        put({ onsetSec: edit.onsetSec, offsetSec: edit.offsetSec });
      return;
    case 'split':
      split(notes, note, edit.atSec, edit.newId);
      return;
    case 'merge':
      merge(notes, note, edit.withId);
      return;
    case 'ghost': {
      const { ghost: _ghost, ...plain } = note;
      notes.set(edit.id, {
        ...plain,
        confidence: 1,
        edited: true,
        ...(edit.ghost ? { ghost: true as const } : {}),
      });
      return;
    }
    case 'phrase':
      notes.set(edit.id, bordered(note, edit.border));
      return;
    case 'attack':
      notes.set(edit.id, { ...note, attack: edit.attack });
      return;
    case 'sure':
      notes.set(edit.id, { ...note, confidence: 1, sure: true });
  }
}

function add(notes: Map<NoteId, CorrectedNote>, edit: Extract<Edit, { kind: 'add' }>): void {
  const { kind: _kind, ...note } = edit;
  if (!notes.has(note.id) && note.offsetSec - note.onsetSec >= SHORTEST)
    notes.set(note.id, { ...note, confidence: 1, edited: true });
}

/** The line goes from note to note: one that still rings ends where the next one begins. */
function replaceStretch(
  notes: Map<NoteId, CorrectedNote>,
  { fromSec, toSec, notes: fresh }: Extract<Edit, { kind: 'again' }>,
): void {
  const [first] = fresh;
  for (const [id, note] of notes) {
    if (note.onsetSec >= fromSec && note.onsetSec < toSec) notes.delete(id);
    else if (first && note.onsetSec < fromSec && note.offsetSec > first.onsetSec)
      notes.set(id, { ...note, offsetSec: Math.max(note.onsetSec + SHORTEST, first.onsetSec) });
  }
  const next = Math.min(...[...notes.values()].map(({ onsetSec }) => onsetSec).filter((at) => at >= toSec));
  for (const note of fresh) {
    if (notes.has(note.id)) continue;
    const offsetSec = Math.max(note.onsetSec + SHORTEST, Math.min(note.offsetSec, next));
    notes.set(note.id, { ...note, offsetSec, edited: true });
  }
}

/** A border is said of the line, not of the note: it is as sure and as untouched as before. */
function bordered(note: CorrectedNote, border: PhraseBorder | null): CorrectedNote {
  const { phrase: _phrase, ...plain } = note;
  return border === null ? plain : { ...plain, phrase: border };
}

/** Where the hand was is said of notes as they stand: they are as sure and as untouched as before. */
function place(notes: Map<NoteId, CorrectedNote>, ids: readonly NoteId[], fret: number | null): void {
  for (const id of ids) {
    const note = notes.get(id);
    if (!note) continue;
    const { position: _position, ...plain } = note;
    notes.set(id, fret === null ? plain : { ...plain, position: fret });
  }
}

/** Another pitch is played as written: how it was bent or slid was how the other one sounded. */
function repitched(note: CorrectedNote, midi: Midi): CorrectedNote {
  const { bend: _bend, slide: _slide, cents: _cents, ...plain } = note;
  return { ...plain, midi, confidence: 1, edited: true };
}

function split(notes: Map<NoteId, CorrectedNote>, note: CorrectedNote, atSec: Seconds, newId: NoteId): void {
  if (notes.has(newId) || atSec - note.onsetSec < SHORTEST || note.offsetSec - atSec < SHORTEST) return;
  const { bend, slide: _slide, attack: _attack, ...second } = note;
  const at = atSec - note.onsetSec;
  const before = bend?.filter(([time]) => time < at);
  const { bend: _bend, ...first } = note;
  notes.set(note.id, {
    ...first,
    ...(before && before.length > 1 ? { bend: before } : {}),
    offsetSec: atSec,
    confidence: 1,
    edited: true,
  });
  notes.set(newId, { ...second, id: newId, onsetSec: atSec, confidence: 1, edited: true });
}

/** Two notes of one string as one: it keeps the first one's pitch and attack. */
function merge(notes: Map<NoteId, CorrectedNote>, note: CorrectedNote, withId: NoteId): void {
  const other = notes.get(withId);
  if (!other || other === note) return;
  const [first, last] = note.onsetSec <= other.onsetSec ? [note, other] : [other, note];
  notes.delete(last.id);
  notes.set(first.id, {
    ...first,
    offsetSec: Math.max(first.offsetSec, last.offsetSec),
    confidence: 1,
    edited: true,
  });
}

/** Edits with one more. A hand that is moved along fret by fret is one edit, not one for each fret. */
export function withEdit(edits: readonly Edit[], one: Edit): readonly Edit[] {
  const last = edits[edits.length - 1];
  const isSame =
    one.kind === 'position' && last?.kind === 'position' && one.ids.join(' ') === last.ids.join(' ');
  return isSame ? [...edits.slice(0, -1), one] : [...edits, one];
}

const ATTACK_WORDS = { pick: 'picked', hammer: 'hammered on', pull: 'pulled off' } as const;
const PLAIN_WORDS = {
  delete: 'taken out',
  add: 'put in',
  time: 'moved',
  split: 'split',
  merge: 'joined',
  sure: 'as heard',
} as const;

/** An edit in words, for “undo …”. @param name the pitch of the note it was made to */
export function editWords(edit: Edit, name: string): string {
  switch (edit.kind) {
    case 'pitch':
      return `now ${name}`;
    case 'ghost':
      return edit.ghost ? `${name} a ghost` : `${name} a note again`;
    case 'phrase':
      return edit.border === 'goes-on' ? `phrases joined at ${name}` : `a phrase from ${name}`;
    case 'position':
      return edit.fret === null ? `the likeliest place from ${name}` : `fret ${edit.fret} from ${name}`;
    case 'attack':
      return `${name} ${ATTACK_WORDS[edit.attack]}`;
    case 'again':
      return edit.notes.length > 0 ? `a bar played again from ${name}` : 'a bar played again: a rest';
    default:
      return `${name} ${PLAIN_WORDS[edit.kind]}`;
  }
}
