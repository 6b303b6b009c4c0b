import { pitchClassOf, type PitchClass, elementAt } from '../shared';
import { guideTones, intervalOver, pitchClass, rootPc, type Chord, type IntervalName } from '../music';
import { fingersOf } from './fingers';
import { STANDARD_INSTRUMENT, type Instrument } from './fretboard';

/** A chord under the hand. Lists run from the low string to the high; null where a string is silent. */
export type ChordShape = {
  readonly frets: readonly (number | null)[];
  /** 0 open, 1–4 index to little. */
  readonly fingers: readonly (number | null)[];
  readonly tones: readonly (IntervalName | null)[];
};

export type ShapeOptions = {
  readonly instrument?: Instrument;
  /** Fretted notes at `position` − 1 to `position` + 4. */
  readonly position?: number;
  /** Strings to use, by number (1 the highest): a string set. */
  readonly strings?: readonly number[];
  readonly most?: number;
};

const FEWEST_STRINGS = 3;
/** Frets a chord may span, the lowest included: wider than that is no grip below the seventh fret. */
const SPAN = 4;
const SPAN_HIGH = 5;

/**
 * Shapes of a chord, the best first.
 * Rule T15.2: three strings or more, only chord tones and written colours, the guide tones always, a slash
 * bass lowest,
 * at most four fingers. Where the list is cut, a shape with the root and one with each named colour stay in it.
 */
export function chordShapes(
  chord: Chord,
  { instrument = STANDARD_INSTRUMENT, position, strings, most = 24 }: ShapeOptions = {},
): ChordShape[] {
  const found = new Map<string, ChordShape & { worth: number }>();
  const windows =
    position === undefined
      ? Array.from({ length: Math.min(13, instrument.frets - 3) }, (_, index) => index + 1)
      : [Math.max(1, position - 1), Math.max(1, position), position + 1];
  const limit =
    position === undefined
      ? ([1, instrument.frets] as const)
      : ([Math.max(1, position - 1), Math.min(instrument.frets, position + 4)] as const);
  for (const from of windows) {
    const span = from >= 7 ? SPAN_HIGH : SPAN;
    for (const frets of gripsIn(
      chord,
      instrument,
      [Math.max(from, limit[0]), Math.min(from + span - 1, limit[1])],
      strings,
    )) {
      const id = frets.map((fret) => fret ?? 'x').join(' ');
      if (found.has(id)) continue;
      const shape = shapeOf(chord, instrument, frets);
      if (shape)
        found.set(
          id,
          position === undefined
            ? shape
            : { ...shape, worth: shape.worth - 0.5 * Math.abs(lowestOf(frets) - position) },
        );
    }
  }
  return kept(
    chord,
    [...found.values()].sort((a, b) => b.worth - a.worth),
    most,
  );
}

/** Every grip in a window of frets that could be the chord: strings low to high. */
function gripsIn(
  chord: Chord,
  { tuning }: Instrument,
  [from, to]: readonly [number, number],
  strings?: readonly number[],
): (number | null)[][] {
  const allowed = new Set([...chord.tones, ...chord.colours].map((tone) => tone.pc));
  const guides = guideTones(chord).map((tone) => tone.pc);
  const open = [...tuning].reverse();
  const options = open.map((midi, low) => {
    if (strings && !strings.includes(open.length - low)) return [null];
    const frets: (number | null)[] = [null];
    if (allowed.has(pitchClassOf(midi))) frets.push(0);
    for (let fret = from; fret <= to; fret++) if (allowed.has(pitchClassOf(midi + fret))) frets.push(fret);
    return frets;
  });
  const grips: (number | null)[][] = [];
  const bass = chord.symbol.includes('/') ? pitchClass(chord.bass) : null;
  const extend = (grip: (number | null)[], missing: readonly PitchClass[], sounding: number): void => {
    const string = grip.length;
    if (missing.length > options.length - string || sounding + options.length - string < FEWEST_STRINGS)
      return;
    if (string === options.length)
      return void (missing.length === 0 && sounding >= FEWEST_STRINGS && grips.push(grip));
    for (const fret of elementAt(options, string)) {
      const pc = fret === null ? null : pitchClassOf(elementAt(open, string) + fret);
      // the lowest string that sounds carries a written bass
      if (pc !== null && sounding === 0 && bass !== null && !isSixNine(chord) && pc !== bass) continue;
      extend(
        [...grip, fret],
        pc === null ? missing : missing.filter((one) => one !== pc),
        sounding + (pc === null ? 0 : 1),
      );
    }
  };
  extend([], guides, 0);
  return grips;
}

/** `6/9` has a slash and no bass. */
const isSixNine = (chord: Chord): boolean => /6\/9$/.test(chord.symbol);

function shapeOf(
  chord: Chord,
  { tuning }: Instrument,
  frets: readonly (number | null)[],
): (ChordShape & { worth: number }) | null {
  const fingers = fingersOf(frets);
  if (!fingers) return null;
  const open = [...tuning].reverse();
  const pcs = frets.map((fret, string) =>
    fret === null ? null : pitchClassOf(elementAt(open, string) + fret),
  );
  const worth = worthOf(chord, frets, pcs, fingers);
  return worth === null
    ? null
    : {
        frets: [...frets],
        fingers,
        tones: pcs.map((pc) => (pc === null ? null : intervalOver(chord, pc))),
        worth,
      };
}

const lowestOf = (frets: readonly (number | null)[]): number =>
  Math.min(...frets.filter((fret): fret is number => fret !== null && fret > 0));

/** Strings held down by one finger other than the index: hard to lay flat. */
const lateBarres = (fingers: readonly (number | null)[]): number =>
  [2, 3, 4].reduce(
    (sum, finger) =>
      sum + Math.max(0, fingers.filter((one) => one === finger).length - (finger === 3 ? 2 : 1)),
    0,
  );

/**
 * How good a grip is: whole, low in the hand, without holes or doubled guide tones. Our own weights; null
 * where a hand cannot.
 */
function worthOf(
  chord: Chord,
  frets: readonly (number | null)[],
  pcs: readonly (PitchClass | null)[],
  fingers: readonly (number | null)[],
): number | null {
  const fretted = frets.filter((fret): fret is number => fret !== null && fret > 0);
  const [low, high] = [Math.min(...fretted), Math.max(...fretted)];
  if (fretted.length > 0 && high - low + 1 > (low >= 7 ? SPAN_HIGH : SPAN)) return null;
  // an open string beside a hand far up the neck is another kind of chord
  if (frets.includes(0) && high > 5) return null;
  const sounding = pcs.filter((pc): pc is PitchClass => pc !== null);
  const kinds = new Set(sounding);
  const named = chord.colours.filter((tone) => kinds.has(tone.pc)).length;
  const tones = chord.tones.filter((tone) => kinds.has(tone.pc)).length;
  const first = frets.findIndex((fret) => fret !== null);
  const last = frets.length - 1 - [...frets].reverse().findIndex((fret) => fret !== null);
  const holes = frets.slice(first, last + 1).filter((fret) => fret === null).length;
  const guides = guideTones(chord).map((tone) => tone.pc);
  const doubled = sounding.filter((pc) => guides.includes(pc)).length - guides.length;
  const lowest = sounding[0] === rootPc(chord) ? 3 : 0;
  return (
    4 * tones +
    3 * named +
    lowest -
    1.5 * holes -
    1.2 * doubled -
    0.6 * Math.max(0, sounding.length - 5) -
    0.15 * (fretted.length ? low : 0) -
    0.8 * Math.max(0, high - low - 2) -
    0.4 * Math.max(0, ...fingers.map((finger) => finger ?? 0)) -
    2 * Math.max(0, FEWEST_STRINGS + 1 - sounding.length) -
    1.5 * lateBarres(fingers)
  );
}

/** The best, and where they are not among them the best with the root and with each named colour. */
function kept(chord: Chord, shapes: readonly (ChordShape & { worth: number })[], most: number): ChordShape[] {
  const root = intervalOver(chord, rootPc(chord));
  const wanted = [root, ...chord.colours.map((tone) => intervalOver(chord, tone.pc))];
  const list = shapes.slice(0, most);
  for (const tone of wanted) {
    if (list.some((shape) => shape.tones.includes(tone))) continue;
    const other = shapes.find((shape) => shape.tones.includes(tone));
    if (other) list.push(other);
  }
  return list.map(({ worth: _worth, ...shape }) => shape);
}
