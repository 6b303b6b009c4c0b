import { accepted, type Outcome } from '../shared';
import { chordTone, type Chord, type ChordTone, type Quality, type ToneRole } from './chord';
import { suggestRoot, unknown, unknownQuality } from './chordSuggestions';
import { readDegree, type Degree } from './interval';
import { above, noteName, pitchClass, readNote, type SpelledNote } from './spelling';
import { Reader } from './symbolReader';

/**
 * The chord grammar of T2.1: root, quality, extension, alterations, bass. Read left to right; whatever no
 * step takes is
 * refused at its place. `·` in a token list stands for "longest first".
 */
type Sketch = {
  third: Degree | null;
  sus: Degree | null;
  fifth: Degree | null;
  sixth: boolean;
  seventh: Degree | null;
  tensions: Degree[];
  altered: boolean;
  quality: Quality;
};

const degree = (text: string): Degree => {
  const read = readDegree(text);
  if (!read) throw new Error(`not a degree: ${text}`);
  return read;
};

const MAJOR_WORD = /^(?:[Mm]aj|ma(?!dd)|M|Δ|△|∆)/u;
const MINOR_WORD = /^(?:min|mi|m(?!a(?!dd))|-)/u;
const ALTERATION = /^(?:b5|#5|b9|#9|#11|b13)/u;

/**
 * Reads one chord symbol.
 * @param symbol as written, with ASCII or real accidentals
 * @returns the chord, or one problem with its 1-based column in the symbol and the nearest accepted spelling
 * @example
 * unwrap(readChord('Bb7')).tones.map(({ pc }) => pc) // [10, 2, 5, 8]
 * readChord('Hm7').ok // false
 */
export function readChord(symbol: string): Outcome<Chord> {
  const root = readNote(symbol);
  if (!root)
    return unknown(
      symbol,
      0,
      `“${symbol}” does not start with a note name A to G.`,
      suggestRoot(symbol, (other) => readChord(other).ok),
    );
  const slash = bassPlace(symbol);
  const body = symbol
    .slice(root.length, slash ?? symbol.length)
    .replaceAll('♭', 'b')
    .replaceAll('♯', '#');
  const reader = new Reader(body);
  const sketch = readQuality(reader);
  if (!sketch || !reader.done()) return unknownQuality(symbol, root.length, reader, body);
  let bass = root.note;
  if (slash !== null) {
    const read = readNote(symbol.slice(slash + 1));
    if (!read || slash + 1 + read.length !== symbol.length)
      return unknown(
        symbol,
        slash + 1,
        `“${symbol.slice(slash + 1)}” is not a bass note.`,
        symbol.slice(0, slash),
      );
    bass = read.note;
  }
  return accepted(build(symbol, root.note, bass, sketch));
}

/** The slash of a bass, not the one of `6/9`. */
function bassPlace(symbol: string): number | null {
  const place = symbol.lastIndexOf('/');
  return place < 0 || /6\/9/.test(symbol.slice(place - 1, place + 2)) ? null : place;
}

function readQuality(reader: Reader): Sketch | null {
  const sketch: Sketch = {
    third: degree('3'),
    sus: null,
    fifth: degree('5'),
    sixth: false,
    seventh: null,
    tensions: [],
    altered: false,
    quality: 'major',
  };
  if (reader.take(/^(?:7?alt)/)) return asAltered(sketch);
  if (reader.take(/^5$/)) return { ...sketch, third: null, quality: 'power' };
  if (!readHead(reader, sketch)) return null;
  while (!reader.done() && (reader.punctuation() || readTail(reader, sketch)));
  return sketch;
}

function asAltered(sketch: Sketch): Sketch {
  return {
    ...sketch,
    fifth: null,
    seventh: degree('b7'),
    altered: true,
    quality: 'dominant',
    tensions: ['b9', '#9', '#11', 'b13'].map(degree),
  };
}

/** Quality and extension: `m7`, `maj9`, `°7`, `ø`, `+`, `13`, `6/9`, `sus` … */
function readHead(reader: Reader, sketch: Sketch): boolean {
  if (reader.take(/^(?:dim|°|º|o)/u)) return diminish(reader, sketch);
  if (reader.take(/^ø7?/u)) return halfDiminish(reader, sketch);
  if (reader.take(/^(?:aug|\+)/)) {
    sketch.fifth = degree('#5');
    sketch.quality = 'augmented';
  } else if (reader.take(MINOR_WORD)) {
    sketch.third = degree('b3');
    sketch.quality = 'minor';
    while (reader.punctuation());
  }
  if (reader.take(/^(?:69|6\/9)/)) return withSixth(sketch, true);
  if (reader.take(/^6/)) return withSixth(sketch, false);
  return readExtension(reader, sketch);
}

function halfDiminish(reader: Reader, sketch: Sketch): true {
  Object.assign(sketch, {
    third: degree('b3'),
    fifth: degree('b5'),
    seventh: degree('b7'),
    quality: 'half-diminished',
  });
  if (reader.take(/^9/)) sketch.tensions.push(degree('9'));
  return true;
}

/** Sevenths and what is stacked on them, with or without the word for major before. */
function readExtension(reader: Reader, sketch: Sketch): boolean {
  const major = reader.take(MAJOR_WORD);
  const extension = reader.take(/^(?:7|9|11|13)/);
  if (extension) extend(sketch, Number(extension), major !== null);
  else if (major && /[Δ△∆]/u.test(major)) extend(sketch, 7, true);
  // “mmaj” alone says nothing
  else if (major && sketch.quality === 'minor') return false;
  if (extension && !major && sketch.fifth?.alter === 0 && reader.take(/^\+(?=$|\()/))
    sketch.fifth = degree('#5');
  return true;
}

function diminish(reader: Reader, sketch: Sketch): boolean {
  Object.assign(sketch, { third: degree('b3'), fifth: degree('b5'), quality: 'diminished' });
  if (reader.take(/^7/)) Object.assign(sketch, { seventh: degree('bb7'), quality: 'diminished-seventh' });
  return true;
}

function withSixth(sketch: Sketch, nine: boolean): boolean {
  sketch.sixth = true;
  if (nine) sketch.tensions.push(degree('9'));
  return true;
}

/**
 * 7, 9, 11, 13: the seventh and the tensions below the number; `11` on a dominant reads as 9sus, `13` leaves
 * out the 11.
 */
function extend(sketch: Sketch, number: number, major: boolean): void {
  sketch.seventh = degree(major ? '7' : 'b7');
  if (major && sketch.quality === 'minor') sketch.quality = 'minor-major';
  if (!major && sketch.quality !== 'minor') sketch.quality = 'dominant';
  if (number >= 9) sketch.tensions.push(degree('9'));
  if (number === 11 && sketch.quality === 'dominant') suspend(sketch, '4');
  else if (number === 11) sketch.tensions.push(degree('11'));
  if (number === 13) sketch.tensions.push(degree('13'));
}

function suspend(sketch: Sketch, note: '2' | '4'): void {
  Object.assign(sketch, { third: null, sus: degree(note), quality: 'sus' });
}

/** Alterations, added notes, sus and a major seventh after a minor third. */
function readTail(reader: Reader, sketch: Sketch): boolean {
  const sus = sketch.third?.alter === 0 ? reader.take(/^(?:sus[24]?|2)/) : null;
  if (sus) {
    suspend(sketch, sus.endsWith('2') ? '2' : '4');
    return true;
  }
  const added = reader.take(/^(?:add9|add11)/);
  if (added) return sketch.tensions.push(degree(added.slice(3))) > 0;
  if (sketch.quality === 'minor' && !sketch.seventh && reader.take(/^(?:[Mm]aj|ma|M|Δ|△|∆)7/u)) {
    extend(sketch, 7, true);
    return true;
  }
  const altered = reader.take(ALTERATION);
  return altered !== null && alter(sketch, degree(altered));
}

function alter(sketch: Sketch, altered: Degree): boolean {
  if (altered.number !== 5) {
    if (altered.number === 2)
      sketch.tensions = sketch.tensions.filter((t) => t.number !== 2 || t.alter !== 0);
    sketch.tensions.push(altered);
    return true;
  }
  if (!sketch.fifth || sketch.fifth.alter !== 0) return false;
  sketch.fifth = altered;
  if (altered.alter < 0 && sketch.quality === 'minor' && sketch.seventh) sketch.quality = 'half-diminished';
  else if (altered.alter < 0 && sketch.quality === 'minor') sketch.quality = 'diminished';
  else if (altered.alter > 0 && sketch.quality === 'major' && !sketch.seventh && !sketch.sixth)
    sketch.quality = 'augmented';
  return true;
}

function build(symbol: string, root: SpelledNote, bass: SpelledNote, sketch: Sketch): Chord {
  if (readsAsNineSus(root, bass, sketch)) return onItsFourth(symbol, bass, sketch);
  // an augmented triad with a major seventh written is a maj7♯5: it keeps the major row, its fifth tells it
  // apart
  let quality: Quality;
  if (sketch.quality === 'augmented' && sketch.seventh) {
    if (sketch.seventh.alter < 0) quality = 'dominant';
    else quality = 'major';
  } else quality = sketch.quality;
  const tones: ChordTone[] = [];
  const add = (role: ToneRole, at: Degree | null) => at && tones.push(chordTone(root, role, at));
  add('root', degree('1'));
  add('third', sketch.third);
  add('sus', sketch.sus);
  add('fifth', sketch.fifth);
  if (sketch.sixth) add('sixth', degree('6'));
  add('seventh', sketch.seventh);
  if (!tones.some((tone) => tone.pc === pitchClass(bass))) tones.push(foreignBass(root, bass));
  const colours = sketch.tensions
    .map((tension) => chordTone(root, 'tension', tension))
    .filter((tone) => !tones.some((own) => own.pc === tone.pc))
    .sort((a, b) => a.semitones - b.semitones);
  return { symbol, quality, root, bass, tones, colours, altered: sketch.altered };
}

const readsAsNineSus = (root: SpelledNote, bass: SpelledNote, sketch: Sketch): boolean =>
  sketch.quality === 'minor' &&
  sketch.seventh?.alter === -1 &&
  sketch.fifth?.alter === 0 &&
  pitchClass(bass) === pitchClass(above(root, 3, 5));

/** Fm7/B♭ is heard as B♭9sus: what is written above the old root is counted from the bass. */
function onItsFourth(symbol: string, bass: SpelledNote, sketch: Sketch): Chord {
  const tones = (
    [
      ['root', '1'],
      ['sus', '4'],
      ['fifth', '5'],
      ['seventh', 'b7'],
    ] as const
  ).map(([role, at]) => chordTone(bass, role, degree(at)));
  const carried = sketch.tensions.some((tension) => tension.number === 2 && tension.alter === 0)
    ? ['9', '13']
    : ['9'];
  const colours = carried.map((at) => chordTone(bass, 'tension', degree(at)));
  return { symbol, quality: 'sus', root: bass, bass, tones, colours, altered: false };
}

function foreignBass(root: SpelledNote, bass: SpelledNote): ChordTone {
  const steps = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
  const number = ((steps.indexOf(bass.letter) - steps.indexOf(root.letter) + 7) % 7) + 1;
  for (const alter of [0, -1, 1, -2, 2]) {
    const tone = chordTone(root, 'bass', { number, alter });
    if (tone.pc === pitchClass(bass)) return tone;
  }
  return { ...chordTone(root, 'bass', degree('1')), note: bass, pc: pitchClass(bass) };
}

/** A chord's tones and written tensions as the command line prints them. */
export const toneList = (tones: readonly ChordTone[]): { interval: string; pc: number; name: string }[] =>
  tones.map((tone) => ({ interval: tone.interval, pc: tone.pc, name: noteName(tone.note) }));
