import { LIMITS } from '../contracts';
import { readChart, soundingAt, writeBars } from '../chart';
import { FLAT_NAMES, letterIndex, NATURAL, readNote } from '../music';
import {
  accepted,
  elementAt,
  modulo,
  refused,
  type Beats,
  type Midi,
  type Outcome,
  type Problem,
} from '../shared';
import { degreesOf, NEAR, type FormScene } from './formula';
import { sceneOf, type KeptPhrase, type PhraseNote } from './phrase';

export const PHRASE_EXAMPLE = 'D4 F A C5:1 | B4:1/2 D5 F5 E5 | C5 B4:1/2 C5 G4:1';

type Written = { readonly chords: string; readonly line: string; readonly tempo: number };

/** A note, a degree or a rest, with its length: `Eb4:1/2`, `b3`, `.:1`. */
const TOKEN = /^(?:(\.)|([A-G][#b♯♭]*)(-?\d)?|([#b♯♭]{0,2})(1[0-3]|[1-9]))(?::(\d+(?:\.\d+)?)(?:\/(\d+))?)?$/;
const FIRST_LENGTH: Beats = 0.5;
const MIDDLE: Midi = 62;

type Reading = { beat: Beats; length: Beats; last: Midi; readonly notes: PhraseNote[] };

/**
 * A phrase typed in: chords as in chart text, and a line of notes (`Eb4`), degrees of the chord sounding (`b3`) and
 * rests (`.`), each with its length in beats behind a colon (`:1/2`); without one it is as long as the note before. A
 * pitch without an octave is the nearest to the note before it. Bar lines are checked.
 */
export function readPhrase({ chords, line, tempo }: Written): Outcome<KeptPhrase> {
  const chart = readChart(`tempo: ${Math.round(tempo)}\n| ${chords.replace(/^\s*\||\|\s*$/g, '')} |`);
  if (!chart.ok) return chart;
  if (chart.value.bars.length > LIMITS.phrase.bars)
    return refused({ code: 'phrase.too-long', message: `A phrase has at most ${LIMITS.phrase.bars} bars.` });
  const chartText = `tempo: ${Math.round(tempo)}\n\n${writeBars(chart.value.bars)}\n`;
  const scene = sceneOf({ chartText, tempo });
  const reading: Reading = { beat: 0, length: FIRST_LENGTH, last: MIDDLE, notes: [] };
  for (const { 0: word, index } of line.matchAll(/\S+/g)) {
    const problem = word === '|' ? barProblem(reading, scene) : readToken(word, reading, scene);
    if (problem) return refused({ ...problem, column: index + 1, length: word.length });
  }
  return whole(reading, scene, { chartText, tempo: Math.round(tempo) });
}

function whole(
  { notes, beat }: Reading,
  { timeline }: FormScene,
  of: Omit<KeptPhrase, 'notes'>,
): Outcome<KeptPhrase> {
  if (notes.length < 2)
    return refused({
      code: 'phrase.short',
      message: 'A phrase has two notes at least.',
      suggestion: PHRASE_EXAMPLE,
    });
  if (notes.length > LIMITS.phrase.notes)
    return refused({
      code: 'phrase.too-long',
      message: `A phrase has at most ${LIMITS.phrase.notes} notes.`,
    });
  if (beat > timeline.formBeats + 1e-6)
    return refused({
      code: 'phrase.over',
      message: `The notes last ${Math.round(beat * 100) / 100} beats, the chords ${timeline.formBeats}.`,
      suggestion: 'Add a bar to the chords, or shorten the notes.',
    });
  return accepted({ ...of, notes });
}

function barProblem({ beat }: Reading, { timeline }: FormScene): Problem | null {
  if (timeline.bars.some(({ start, end }) => Math.abs(start - beat) < 1e-3 || Math.abs(end - beat) < 1e-3))
    return null;
  const bar = timeline.bars.findLast(({ start }) => start <= beat);
  return {
    code: 'phrase.bar-line',
    message: `This bar line comes ${Math.round((beat - (bar?.start ?? 0)) * 100) / 100} beats into its bar.`,
    suggestion: 'Lengths stand behind a colon, in beats: C4:1/2.',
  };
}

function readToken(word: string, reading: Reading, scene: FormScene): Problem | null {
  const match = TOKEN.exec(word);
  if (!match)
    return {
      code: 'phrase.unknown',
      message: `“${word}” is no note, degree or rest.`,
      suggestion: 'Write Eb4, b3 or . with a length like :1/2',
    };
  const [, rest, letter, octave, alter, degree, upper, lower] = match;
  if (upper) reading.length = Number(upper) / Number(lower ?? 1);
  if (!(reading.length > 0.05 && reading.length <= 16))
    return { code: 'phrase.length', message: 'A length lies between 1/16 beat and 16 beats.' };
  if (!rest) {
    const midi = letter
      ? pitchOfNote(letter, octave, reading)
      : pitchOfDegree(alter ?? '', Number(degree), reading, scene);
    if (midi === null)
      return { code: 'phrase.no-chord', message: 'No chord sounds here that this is a degree of.' };
    if (midi < 36 || midi > 96) return { code: 'phrase.range', message: 'This pitch lies off the neck.' };
    reading.notes.push({ onsetBeat: reading.beat, durationBeats: reading.length, midi });
    reading.last = midi;
  }
  reading.beat += reading.length;
  return null;
}

const ALTERS: Record<string, number> = { '#': 1, '♯': 1, b: -1, '♭': -1 };
const alterOf = (signs: string): number => [...signs].reduce((sum, sign) => sum + (ALTERS[sign] ?? 0), 0);

function pitchOfNote(letter: string, octave: string | undefined, { last }: Reading): Midi | null {
  const read = readNote(letter.replace(/♯/g, '#').replace(/♭/g, 'b'));
  if (!read) return null;
  const above = elementAt(NATURAL, letterIndex(read.note)) + read.note.alter;
  return octave === undefined ? nearest(modulo(above, 12), last) : 12 * (Number(octave) + 1) + above;
}

function pitchOfDegree(
  alter: string,
  degree: number,
  { last, beat }: Reading,
  scene: FormScene,
): Midi | null {
  const { chord, scalePcs, root } = chordUnder(scene, beat);
  if (!chord) return null;
  // b3 is the lowered third of the major scale, as it is written; 3 alone is the chord's own
  const own = elementAt(degreesOf(chord, scalePcs), (degree - 1) % 7);
  const major = elementAt([0, 2, 4, 5, 7, 9, 11], (degree - 1) % 7);
  return nearest(modulo(root + (alter === '' ? own : major + alterOf(alter)), 12), last);
}

function chordUnder({ timeline, harmony }: FormScene, beat: Beats) {
  const { span } = soundingAt(timeline, Math.max(0, beat + NEAR));
  return {
    chord: span.chord,
    root: span.chord ? elementAt(span.chord.tones, 0).pc : 0,
    scalePcs: harmony.readings[span.index]?.scale.pcs ?? [],
  };
}

const nearest = (pc: number, to: Midi): Midi => {
  const up = to + modulo(pc - to, 12);
  return up - to > 6 ? up - 12 : up;
};

/** A phrase as it can be typed: its chords and its line. Reading it back gives the same phrase. */
export function writePhrase({ chartText, tempo, notes }: KeptPhrase): Written {
  const { chart, timeline } = sceneOf({ chartText, tempo });
  const words: string[] = [];
  let beat = 0;
  let length: Beats | null = null;
  const put = (name: string, beats: Beats) => {
    words.push(same(beats, length) ? name : `${name}:${lengthText(beats)}`);
    length = beats;
    beat += beats;
    if (timeline.bars.some(({ end }) => Math.abs(end - beat) < 1e-3) && beat < timeline.formBeats - 1e-3)
      words.push('|');
  };
  notes.forEach((note, index) => {
    if (note.onsetBeat - beat > 0.02) put('.', note.onsetBeat - beat);
    const next = notes[index + 1]?.onsetBeat ?? Infinity;
    put(
      `${elementAt(FLAT_NAMES, modulo(note.midi, 12))}${Math.floor(note.midi / 12) - 1}`,
      Math.min(note.durationBeats, next - beat),
    );
  });
  return { chords: writeBars(chart.bars).replace(/^\|\s*|\s*\|\s*$/g, ''), line: words.join(' '), tempo };
}

const same = (a: Beats, b: Beats | null): boolean => b !== null && Math.abs(a - b) < 1e-3;

/** A length as a fraction of small numbers where it is one. */
function lengthText(beats: Beats): string {
  for (const lower of [1, 2, 3, 4, 6, 8, 12, 16]) {
    const upper = Math.round(beats * lower);
    if (Math.abs(upper / lower - beats) < 0.01) return lower === 1 ? String(upper) : `${upper}/${lower}`;
  }
  return beats.toFixed(3);
}
