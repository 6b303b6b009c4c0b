import { harmonyOf, isOnStrongBeat, soundingAt, timelineOf, type Chart } from '../chart';
import { rootPc } from '../music';
import { elementAt, modulo, type Beats, type Midi } from '../shared';
import { formulaOfNotes, NEAR, pitchOf, rootNear, type FormScene } from './formula';
import { sceneOf, sizeOf, unplaced, type KeptPhrase, type PhraseNote } from './phrase';
import { nearestOf, pitchAtStep, scaleAt, stepOf } from './scaleSteps';

/** How a phrase is carried to other chords; the names are said in `presentation`. */
export const TRANSFERS = ['degree', 'step', 'contour', 'exact'] as const;
export type Transfer = (typeof TRANSFERS)[number];

export type Statement = { readonly fromBeat: Beats; readonly notes: readonly PhraseNote[] };
export type Transferred = {
  readonly statements: readonly Statement[];
  readonly notes: readonly PhraseNote[];
};

/** What a hand reaches: E of the low string to the octave over the high one's twelfth fret. */
const LOWEST: Midi = 40;
const HIGHEST: Midi = 86;

type Way = (phrase: KeptPhrase, own: FormScene, target: FormScene, from: Beats) => Midi[];

/**
 * A phrase carried over a whole form, one statement after the other from bar to bar, as long as each fits; the
 * phrase itself stays as it is.
 * `degree`: each note the same degree of its new chord, major or minor as that chord is; `step`: the same way
 * through the new scales from the same place over the first chord; `contour`: the same rhythm and turns, chord
 * tones on strong beats and at the end; `exact`: every interval as it was, moved with the root.
 */
export function transferred(phrase: KeptPhrase, chart: Chart, transfer: Transfer): Transferred {
  const timeline = timelineOf(chart, phrase.tempo);
  const target: FormScene = { timeline, harmony: harmonyOf(chart, timeline) };
  const own = sceneOf(phrase);
  const { bars } = sizeOf(phrase);
  const statements: Statement[] = [];
  for (let bar = 0; bar < timeline.bars.length; bar += bars) {
    const from = elementAt(timeline.bars, bar).start;
    const fitting = phrase.notes.filter(({ onsetBeat }) => from + onsetBeat < timeline.formBeats - 1e-6);
    if (fitting.length < phrase.notes.length && bar > 0) break;
    const notes = statementAt({ ...phrase, notes: fitting }, { own, target }, transfer, from);
    if (notes) statements.push({ fromBeat: from, notes });
  }
  return { statements, notes: statements.flatMap(({ notes }) => notes) };
}

/** One statement from a beat of the form; null where a note of it would have no chord. */
function statementAt(
  phrase: KeptPhrase,
  { own, target }: { readonly own: FormScene; readonly target: FormScene },
  transfer: Transfer,
  from: Beats,
): PhraseNote[] | null {
  const hasChord = ({ onsetBeat }: PhraseNote) =>
    soundingAt(target.timeline, Math.max(0, from + onsetBeat + NEAR)).span.chord !== null;
  if (phrase.notes.length === 0 || !phrase.notes.every(hasChord)) return null;
  const pitches = inReach(WAYS[transfer](phrase, own, target, from), phrase.notes);
  return phrase.notes.map((note, index) => ({
    ...unplaced(note),
    onsetBeat: from + note.onsetBeat,
    midi: elementAt(pitches, index),
  }));
}

/**
 * The first notes of a phrase as a cell over the chord at a beat of another form: by degree of that chord, counted
 * from beat 0; null where no chord sounds.
 */
export function cellOver(phrase: KeptPhrase, most: number, chart: Chart, from: Beats): PhraseNote[] | null {
  const first = elementAt(phrase.notes, 0).onsetBeat;
  const cell = phrase.notes.slice(0, most);
  const timeline = timelineOf(chart, phrase.tempo);
  const target: FormScene = { timeline, harmony: harmonyOf(chart, timeline) };
  const carried = statementAt(
    { ...phrase, notes: cell },
    { own: sceneOf(phrase), target },
    'degree',
    from - first,
  );
  return carried && carried.map((note) => ({ ...note, onsetBeat: note.onsetBeat - from }));
}

const byDegree: Way = (phrase, own, target, from) => {
  const formula = formulaOfNotes(phrase.notes, own);
  const first = elementAt(phrase.notes, 0);
  if (!formula) return exactly(phrase, own, target, from);
  return phrase.notes.map(({ onsetBeat }, index) => {
    const beat = Math.max(0, from + onsetBeat + NEAR);
    const root = rootNear(target, beat, below(first.midi, own, first.onsetBeat)) ?? first.midi;
    return pitchOf(elementAt(formula, index), target, beat, root) ?? first.midi;
  });
};

/** The root of the chord under a note, at or below it. */
function below(midi: Midi, scene: FormScene, onset: Beats): Midi {
  const { root } = scaleAt(scene, onset);
  return midi - modulo(midi - root, 12);
}

const byStep: Way = (phrase, own, target, from) => {
  const { notes } = phrase;
  const first = elementAt(notes, 0);
  const start = stepOf(first.midi, scaleAt(own, first.onsetBeat));
  const there = scaleAt(target, from + first.onsetBeat);
  let pitch = nearestOctave(pitchAtStep(start.step, there) + start.alter, first.midi);
  return notes.map((note, index) => {
    const before = notes[index - 1];
    if (!before) return pitch;
    const [ownScale, scale] = [scaleAt(own, note.onsetBeat), scaleAt(target, from + note.onsetBeat)];
    const [a, b] = [stepOf(before.midi, ownScale), stepOf(note.midi, ownScale)];
    pitch =
      pitchAtStep(stepOf(pitch, scale).step + b.step - a.step, scale) +
      (note.midi === before.midi ? 0 : b.alter);
    return pitch;
  });
};

const byContour: Way = ({ notes }, own, target, from) => {
  let pitch = elementAt(notes, 0).midi;
  return notes.map((note, index) => {
    const onset = from + note.onsetBeat;
    const scale = scaleAt(target, onset);
    const isHeld = index === notes.length - 1 || isOnStrongBeat(target.timeline, Math.max(0, onset), NEAR);
    const choice = isHeld && scale.tones.length > 0 ? scale.tones : scale.pcs;
    const before = notes[index - 1];
    if (!before) return (pitch = nearestOf(choice, pitch));
    const move = note.midi - before.midi;
    const wanted = nearestOf(choice, pitch + move);
    // the turn is what a contour is: a note never goes the other way
    if (move !== 0 && Math.sign(wanted - pitch) !== Math.sign(move))
      for (let to = pitch + Math.sign(move); ; to += Math.sign(move))
        if (choice.includes(modulo(to, 12))) return (pitch = to);
    return (pitch = move === 0 ? pitch : wanted);
  });
};

const exactly: Way = ({ notes }, own, target, from) => {
  const first = elementAt(notes, 0);
  const rootOf = (scene: FormScene, beat: Beats) => {
    const { chord } = soundingAt(scene.timeline, Math.max(0, beat + NEAR)).span;
    return chord ? rootPc(chord) : 0;
  };
  const up = modulo(rootOf(target, from + first.onsetBeat) - rootOf(own, first.onsetBeat), 12);
  return notes.map(({ midi }) => midi + (up > 6 ? up - 12 : up));
};

const WAYS: Record<Transfer, Way> = { degree: byDegree, step: byStep, contour: byContour, exact: exactly };

const nearestOctave = (midi: Midi, to: Midi): Midi => midi + 12 * Math.round((to - midi) / 12);

/** The whole statement in the octave nearest to the phrase as it was, and under the hand. */
function inReach(pitches: readonly Midi[], own: readonly PhraseNote[]): Midi[] {
  const mean = (list: readonly Midi[]) =>
    list.reduce((sum, midi) => sum + midi, 0) / Math.max(1, list.length);
  let shift = 12 * Math.round((mean(own.map(({ midi }) => midi)) - mean(pitches)) / 12);
  const [low, high] = [Math.min(...pitches), Math.max(...pitches)];
  if (low + shift < LOWEST) shift += 12 * Math.ceil((LOWEST - low - shift) / 12);
  if (high + shift > HIGHEST) shift -= 12 * Math.ceil((high + shift - HIGHEST) / 12);
  return pitches.map((midi) => midi + shift);
}
