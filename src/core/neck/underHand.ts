import { placesOf, STANDARD_INSTRUMENT, type Instrument, type FretPosition } from './fretboard';
import { reachFrom } from './location';
import { elementAt, type PitchClass } from '../shared';

/** Every place of some tones within one location: five frets from its lowest, six from the seventh fret up. */
export const underHand = (
  pcs: readonly PitchClass[],
  from: number,
  { tuning, frets }: Instrument = STANDARD_INSTRUMENT,
): FretPosition[] => placesOf(pcs, from, Math.min(frets, from + reachFrom(from) - 1), tuning);

/** One way from a tone under the hand to a target of the next chord, on one string. */
export type HandPositionChange = {
  readonly from: FretPosition;
  readonly to: FretPosition;
  /** Frets to move, signed; 0 stays. */
  readonly frets: number;
};

/** How far a finger reaches for the next chord: a whole step on its string. */
const REACH = 2;

/**
 * From the tones under the hand to the nearest targets of the next chord.
 * For every target in the location the present chord's tone nearest to it on its string, a half step before
 * a whole step; a target that already
 * lies under a finger stays.
 */
export function handovers(
  present: readonly PitchClass[],
  targets: readonly PitchClass[],
  from: number,
  instrument: Instrument = STANDARD_INSTRUMENT,
): HandPositionChange[] {
  const tones = underHand(present, from, instrument);
  return underHand(targets, from, instrument).flatMap((to) => {
    const near = tones
      .filter((tone) => tone.string === to.string && Math.abs(tone.fret - to.fret) <= REACH)
      .sort((a, b) => Math.abs(a.fret - to.fret) - Math.abs(b.fret - to.fret))[0];
    return near ? [{ from: near, to, frets: to.fret - near.fret }] : [];
  });
}

/** Places a hand in shape reaches on each string: the shape's own, the fret below and the two above it. */
export function neighboursOf(
  frets: readonly (number | null)[],
  { tuning, frets: last }: Instrument = STANDARD_INSTRUMENT,
): { readonly shape: readonly FretPosition[]; readonly neighbours: readonly FretPosition[] } {
  const open = [...tuning].reverse();
  const shape: FretPosition[] = [];
  const neighbours: FretPosition[] = [];
  frets.forEach((fret, low) => {
    if (fret === null) return;
    const string = open.length - low;
    const at = (where: number): FretPosition => ({ string, fret: where, midi: elementAt(open, low) + where });
    shape.push(at(fret));
    for (const step of [-1, 1, 2])
      if (fret + step >= 0 && fret + step <= last) neighbours.push(at(fret + step));
  });
  return { shape, neighbours };
}

/** What one chord of a form offers within a location, and the tone the thread takes there. */
export type HandStop = { readonly places: readonly FretPosition[]; readonly thread: FretPosition | null };

/**
 * Stay in one place through the whole form: each chord's targets within one location, and the path of one
 * target a chord that moves least.
 * The thread runs on the middle strings where it can. Shortest path over the form, a half step cheaper than
 * standing still is dear.
 * @param form targets of each chord in turn; an empty list where nothing is aimed at
 * @param from the lowest fret of the hand, throughout or over each chord
 */
export function stayThrough(
  form: readonly (readonly PitchClass[])[],
  from: number | readonly number[],
  instrument: Instrument = STANDARD_INSTRUMENT,
): HandStop[] {
  const strings = instrument.tuning.length;
  const middle = (place: FretPosition) =>
    place.string > Math.floor((strings - 3) / 2) && place.string <= Math.floor((strings - 3) / 2) + 4;
  const handAt = (index: number) => (typeof from === 'number' ? from : elementAt(from, index));
  const stops = form.map((pcs, index) => underHand(pcs, handAt(index), instrument));
  type Node = { place: FretPosition | null; cost: number; before: Node | null };
  let nodes: Node[] = [{ place: null, cost: 0, before: null }];
  for (const places of stops) {
    const choices: (FretPosition | null)[] = places.length > 0 ? places : [null];
    nodes = choices.map((place) =>
      nodes
        .map((node) => ({
          place: place ?? node.place,
          cost: node.cost + (place ? (middle(place) ? 0 : 1.5) + moveOf(node.place, place) : 0),
          before: node,
        }))
        .reduce((least, node) => (node.cost < least.cost ? node : least)),
    );
  }
  const thread: (FretPosition | null)[] = [];
  for (
    let node: Node | null = nodes.reduce((least, one) => (one.cost < least.cost ? one : least));
    node?.before;
    node = node.before
  )
    thread.unshift(node.place);
  return stops.map((places, index) => ({
    places,
    thread: places.length > 0 ? elementAt(thread, index) : null,
  }));
}

const moveOf = (from: FretPosition | null, to: FretPosition): number =>
  from === null ? 0 : Math.abs(from.midi - to.midi) + 0.8 * Math.abs(from.string - to.string);

/** Does every chord of the form find at least one of its targets in this location? */
export const fitsForm = (
  form: readonly (readonly PitchClass[])[],
  from: number,
  instrument: Instrument = STANDARD_INSTRUMENT,
): boolean => form.every((pcs) => pcs.length === 0 || underHand(pcs, from, instrument).length > 0);

/** Does one location hold all these pitches, open strings aside? */
export const fitsOneLocation = (
  pitches: readonly number[],
  { tuning, frets }: Instrument = STANDARD_INSTRUMENT,
): boolean =>
  Array.from({ length: frets }, (_, index) => index + 1).some((from) =>
    pitches.every((midi) =>
      tuning.some(
        (open) => midi - open >= from && midi - open <= Math.min(frets, from + reachFrom(from) - 1),
      ),
    ),
  );
