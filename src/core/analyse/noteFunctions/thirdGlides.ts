import { toneByRole } from '../../music';
import { pitchClassOf, type PitchClass, defined } from '../../shared';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import type { Voice } from '../notes/voice';
import type { JudgedNote } from './noteReport';

/** A slide or a bend that carries a note by less is no blue third. */
const LEAST_SEMITONES = 0.6;
const MOST_SEMITONES = 1.4;

/** ♭3 into 3 by one note's own bend, slide or grace (T7.12); indices into the report's notes. */
export type ThirdGlide = { readonly noteIndices: readonly number[]; readonly targetIndex: number };

/** Notes that arrive on the major third of their chord from the minor one, by bend, slide or grace. */
export function thirdGlides({ contexts }: AnalysisScene, notes: readonly JudgedNote[]): ThirdGlide[] {
  return notes.flatMap(({ note, voice, chordSpans }): ThirdGlide[] => {
    const chord = contexts[defined(chordSpans[0])]?.chord;
    const third = chord ? toneByRole(chord, 'third') : undefined;
    if (third?.semitones !== 4 || voice.pc !== third.pc || note.function === 'grace') return [];
    const minor = (third.pc + 11) % 12;
    const grace = note.from === undefined ? undefined : notes[note.from];
    if (grace?.voice.pc === minor) return [{ noteIndices: [grace.note.index], targetIndex: note.index }];
    return isSlidFrom(voice, minor) || isBentUp(voice)
      ? [{ noteIndices: [note.index], targetIndex: note.index }]
      : [];
  });
}

const isSlidFrom = ({ played: { slide }, pitch }: Voice, minor: PitchClass): boolean =>
  slide !== undefined && pitchClassOf(slide.fromMidi) === minor && slide.fromMidi < pitch;

/** Did the note begin about a half step lower? */
function isBentUp({ played: { midi, bend }, pitch }: Voice): boolean {
  const start = bend?.[0];
  if (!start) return false;
  const by = pitch - (midi + start[1] / 100);
  return by >= LEAST_SEMITONES && by <= MOST_SEMITONES;
}
