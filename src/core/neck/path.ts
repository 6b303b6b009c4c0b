import {
  accepted,
  elementAt,
  present,
  refused,
  type Beats,
  type Midi,
  type Outcome,
  type Problem,
} from '../shared';
import { placesSounding, STANDARD_INSTRUMENT, type FretPosition, type Instrument } from './fretboard';
import { eventsOf, strikesOf, type Grip } from './grips';
import { COST, USUAL_HABITS, type HandHabits } from './handHabits';
import { allLocations, easyLocations, type Location } from './location';
import { pitchName } from './tuning';

/** A note to be found on the neck; string, fret and finger are pins where they are given. */
export type NeckNote = {
  readonly onsetBeat: Beats;
  readonly durationBeats?: Beats;
  readonly midi: Midi;
  readonly string?: number;
  readonly fret?: number;
  readonly finger?: number;
  /** Where the hand lies, by its lowest fret: nothing else counts as much, but a pitch out of its reach is still found. */
  readonly position?: number | undefined;
  /** Hammered on or pulled off: on the string of the note before, if that can be. */
  readonly slurred?: boolean;
};

/** Where a note lies: string 1 is the highest, finger 0 open, 1–4 index to little. */
export type Touch = { readonly string: number; readonly fret: number; readonly finger: number };

export type NeckPath = {
  /** One entry a note. */
  readonly path: readonly Touch[];
  /** How often the hand has to move: the least that is possible. */
  readonly shifts: number;
  /** The same pitches under one location, pins aside, where the path shifts and they fit. */
  readonly noShift?: readonly Touch[];
};

export type PathOptions = {
  readonly instrument?: Instrument;
  /** False: four frets a location; the hand moves rather than stretch, as a small one does unasked. */
  readonly stretch?: boolean;
};
const SHIFT = 1e6;
/** A slurred note on another string than the one before: the hand rather moves. */
const TORN = 50 * SHIFT;
/** Each fret away from where the hand is said to lie: more than all shifts of a line. */
const ASIDE = 1e9;

/**
 * The most probable strings, frets and fingers of a line.
 * Dynamic programming (Viterbi 1967) over locations and places; contract in docs/architecture.md, “neck path”.
 * @param given notes; those with one onset are struck together on strings of their own
 * @returns the path, or the note that no string reaches or whose pins sound another pitch
 */
export function pathOf(
  given: readonly NeckNote[],
  { instrument = STANDARD_INSTRUMENT, stretch }: PathOptions = {},
): Outcome<NeckPath> {
  const habits = instrument.habits ?? USUAL_HABITS;
  const stretches = stretch ?? habits.size !== 'small';
  const order = given
    .map((_, index) => index)
    .sort(
      (a, b) =>
        elementAt(given, a).onsetBeat - elementAt(given, b).onsetBeat ||
        elementAt(given, a).midi - elementAt(given, b).midi,
    );
  const notes = order.map((index) => elementAt(given, index));
  const places = new Map(order.map((index, place) => [index, place]));
  const asGiven = (touches: readonly Touch[]): Touch[] =>
    given.map((_, index) => present(touches[present(places.get(index))]));
  const choices: FretPosition[][] = [];
  for (const [place, note] of notes.entries()) {
    const index = elementAt(order, place);
    const reached = pinnedPlaces(note, instrument);
    if (reached.length === 0) return refused(unreachable(note, index, instrument));
    choices.push(reached);
  }
  const fingered = notes.some((note) => note.finger !== undefined && note.finger > 0);
  const locations = fingered ? allLocations(instrument.frets) : easyLocations(instrument.frets, stretches);
  const found = walk(notes, choices, locations, habits, true);
  if (!found)
    return refused({
      code: 'neck.pins',
      message: 'These strings, frets and fingers cannot be played as they are given.',
      suggestion: 'Leave some of them out.',
    });
  if (found.shifts === 0) return accepted({ ...found, path: asGiven(found.path) });
  const free = notes.map(({ onsetBeat, midi, slurred = false }) => ({ onsetBeat, midi, slurred }));
  const still = walk(
    free,
    free.map((note) => placesSounding(Math.round(note.midi), instrument)),
    easyLocations(instrument.frets, stretches),
    habits,
    false,
  );
  return accepted({
    ...found,
    path: asGiven(found.path),
    ...(still ? { noShift: asGiven(still.path) } : {}),
  });
}

/** Shift or stretch: two answers where teachers differ; one where the hand need do neither. */
export function bothWays(
  notes: readonly NeckNote[],
  instrument: Instrument = STANDARD_INSTRUMENT,
): Outcome<{ readonly stretching: NeckPath; readonly shifting: NeckPath | null }> {
  const stretching = pathOf(notes, { instrument, stretch: true });
  if (!stretching.ok) return stretching;
  const shifting = pathOf(notes, { instrument, stretch: false });
  const differs = shifting.ok && shifting.value.shifts !== stretching.value.shifts;
  return accepted({ stretching: stretching.value, shifting: differs ? shifting.value : null });
}

function pinnedPlaces(note: NeckNote, instrument: Instrument): FretPosition[] {
  const { string, fret, finger } = note;
  return placesSounding(Math.round(note.midi), instrument).filter(
    (place) =>
      (string === undefined || place.string === string) &&
      (fret === undefined || place.fret === fret) &&
      (finger === undefined || (finger === 0) === (place.fret === 0)),
  );
}

function unreachable(note: NeckNote, index: number, instrument: Instrument): Problem {
  const name = pitchName(Math.round(note.midi));
  const reachable = placesSounding(Math.round(note.midi), instrument);
  if (reachable.length === 0)
    return {
      code: 'neck.range',
      path: `notes.${index}.midi`,
      message: `No string reaches ${name} on frets 0 to ${instrument.frets}.`,
      suggestion: 'Move it by an octave, or name another tuning.',
    };
  return {
    code: 'neck.pin',
    path: `notes.${index}`,
    message: `What is given for note ${index + 1} does not sound ${name}.`,
    suggestion: reachable.map((place) => `string ${place.string}, fret ${place.fret}`).join('; or '),
  };
}

type Node = { readonly grip: Grip; readonly cost: number; readonly from: Node | null };

function walk(
  notes: readonly NeckNote[],
  choices: readonly (readonly FretPosition[])[],
  locations: readonly Location[],
  habits: HandHabits,
  mayShift: boolean,
): { path: Touch[]; shifts: number } | null {
  let nodes: Node[] | null = null;
  for (const event of eventsOf(notes))
    for (const grips of strikesOf(notes.slice(...event), choices.slice(...event), locations, habits)) {
      const { position, slurred = false } = elementAt(notes, event[0]);
      nodes = advance(nodes, placed(grips, position, locations), locations, { mayShift, slurred });
      if (nodes.length === 0) return null;
    }
  const best = nodes?.reduce((least, node) => (node.cost < least.cost ? node : least)) ?? null;
  const grips: Grip[] = [];
  let shifts = 0;
  for (let node = best; node; node = node.from) {
    grips.push(node.grip);
    if (node.from && node.from.grip.location !== node.grip.location) shifts++;
  }
  return { path: grips.reverse().flatMap(({ touches }) => touches), shifts };
}

/** Grips with what it costs to be elsewhere than the player says. */
function placed(
  grips: readonly Grip[],
  position: number | undefined,
  locations: readonly Location[],
): Grip[] {
  return position === undefined
    ? [...grips]
    : grips.map((grip) => ({
        ...grip,
        own: grip.own + ASIDE * Math.abs(elementAt(locations, grip.location).from - position),
      }));
}

function advance(
  before: readonly Node[] | null,
  grips: readonly Grip[],
  locations: readonly Location[],
  { mayShift, slurred }: { readonly mayShift: boolean; readonly slurred: boolean },
): Node[] {
  if (!before) return grips.map((grip) => ({ grip, cost: grip.own, from: null }));
  const staying = new Map<number, Node[]>();
  for (const node of before)
    staying.set(node.grip.location, [...(staying.get(node.grip.location) ?? []), node]);
  const placeOf = ({ location }: Grip): number => elementAt(locations, location).from;
  const torn = (node: Node, grip: Grip): number => (slurred && !isOnOneString(node.grip, grip) ? TORN : 0);
  // a hand that moves forgets its string: of each place on the neck only the cheapest way in matters
  const leaving = new Map<string, Node>();
  for (const node of before) {
    const from = placeOf(node.grip);
    const way = slurred ? `${from} ${lastString(node.grip)}` : `${from}`;
    const known = leaving.get(way);
    if (!known || node.cost < known.cost) leaving.set(way, node);
  }
  return grips.flatMap((grip) => {
    let best: Node | null = null;
    const offer = (from: Node, cost: number) => {
      if (!best || cost < best.cost) best = { grip, cost, from };
    };
    for (const node of staying.get(grip.location) ?? [])
      offer(node, node.cost + moveCost(node.grip, grip) + torn(node, grip) + grip.own);
    if (mayShift)
      for (const node of leaving.values())
        offer(
          node,
          node.cost +
            SHIFT +
            COST.shiftPerFret * Math.abs(placeOf(node.grip) - placeOf(grip)) +
            torn(node, grip) +
            grip.own,
        );
    return best ? [best as Node] : [];
  });
}

const lastString = ({ touches }: Grip): number => elementAt(touches, touches.length - 1).string;
const isOnOneString = (before: Grip, after: Grip): boolean =>
  lastString(before) === elementAt(after.touches, 0).string;

/** From the last touch of one event to the first of the next. */
function moveCost(before: Grip, after: Grip): number {
  const [a, b] = [elementAt(before.touches, before.touches.length - 1), elementAt(after.touches, 0)];
  const across = Math.abs(a.string - b.string);
  const jump =
    a.finger !== 0 && a.finger === b.finger && (a.string !== b.string || a.fret !== b.fret)
      ? COST.sameFinger
      : 0;
  return jump + COST.crossing * across + (across > 1 ? COST.skip * (across - 1) : 0);
}
