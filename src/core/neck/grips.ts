import { elementAt } from '../shared';
import { type FretPosition } from './fretboard';
import { placeCost, type HandHabits } from './handHabits';
import { fingerAt, serves, type Location } from './location';
import type { NeckNote, Touch } from './path';
/** Six strings, and a doubled note or two. */
export const MOST_STRUCK = 8;

/** A way to play one event (the notes of one onset) in one location. */
export type Grip = { readonly location: number; readonly touches: readonly Touch[]; readonly own: number };

export function eventsOf(notes: readonly NeckNote[]): [number, number][] {
  const events: [number, number][] = [];
  notes.forEach((note, index) => {
    const last = events[events.length - 1];
    if (last && Math.abs(elementAt(notes, last[0]).onsetBeat - note.onsetBeat) < 1e-6) last[1] = index + 1;
    else events.push([index, index + 1]);
  });
  return events;
}

/**
 * The ways to play what is struck together. Under one hand with a string for each note where that can be; what
 * no hand holds at once is played one note after another, still on a string each; only notes that have no
 * string each share one.
 * Ways multiply with every note, so more notes than a hand can strike at once are played one after another.
 */
export function strikesOf(
  notes: readonly NeckNote[],
  choices: readonly (readonly FretPosition[])[],
  locations: readonly Location[],
  habits: HandHabits,
): Grip[][] {
  const oneByOne = (places: readonly (readonly FretPosition[])[]): Grip[][] =>
    notes.map((note, index) =>
      locations.flatMap((_, location) =>
        gripsAt([note], [elementAt(places, index)], locations, location, habits),
      ),
    );
  if (notes.length > MOST_STRUCK || notes.length === 1) return oneByOne(choices);
  const held = locations.flatMap((_, location) => gripsAt(notes, choices, locations, location, habits));
  if (held.length > 0) return [held];
  const apart = onStringsApart(choices);
  return oneByOne(apart ? apart.map((place) => [place]) : choices);
}

/** A string for each note, the frets as near together as they can be; null where there are too few strings. */
function onStringsApart(choices: readonly (readonly FretPosition[])[]): FretPosition[] | null {
  let best: FretPosition[] | null = null;
  let least = Infinity;
  const extend = (chosen: readonly FretPosition[]): void => {
    const wide = spreadOf(chosen);
    if (wide >= least) return;
    if (chosen.length === choices.length) {
      best = [...chosen];
      least = wide;
      return;
    }
    for (const place of elementAt(choices, chosen.length))
      if (!chosen.some(({ string }) => string === place.string)) extend([...chosen, place]);
  };
  extend([]);
  return best;
}

/** Frets from the lowest to the highest that is held down. */
function spreadOf(places: readonly FretPosition[]): number {
  const frets = places.map(({ fret }) => fret).filter((fret) => fret > 0);
  return frets.length === 0 ? 0 : Math.max(...frets) - Math.min(...frets);
}

export function gripsAt(
  notes: readonly NeckNote[],
  choices: readonly (readonly FretPosition[])[],
  locations: readonly Location[],
  location: number,
  habits: HandHabits,
): Grip[] {
  let grips: Grip[] = [{ location, touches: [], own: 0 }];
  notes.forEach((note, index) => {
    grips = grips.flatMap((grip) =>
      elementAt(choices, index).flatMap((place) => {
        if (grip.touches.some((touch) => touch.string === place.string)) return [];
        return fingersFor(note, place, elementAt(locations, location)).map((finger) => ({
          ...grip,
          touches: [...grip.touches, { string: place.string, fret: place.fret, finger }],
          own: grip.own + placeCost(place.fret, finger, elementAt(locations, location), habits),
        }));
      }),
    );
  });
  return grips;
}

/** The given finger where it serves the fret; else the one that does. */
export function fingersFor({ finger }: NeckNote, { fret }: FretPosition, location: Location): number[] {
  if (finger !== undefined) return serves(location, fret, finger) ? [finger] : [];
  const found = fingerAt(location, fret);
  return found === null ? [] : [found];
}
