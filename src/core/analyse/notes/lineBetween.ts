import type { Beats } from '../../shared';
import type { Event, Line, LineNote } from './voice';

/** Line notes that start from one beat up to but not including another; the line is in order of onset. */
export function lineBetween(line: Line, from: Beats, to: Beats): readonly LineNote[] {
  return line.slice(firstFrom(line, from), firstFrom(line, to));
}

/** Place of the first note that starts at or after a beat. */
export const firstFrom = (line: Line, beat: Beats): number =>
  firstWhere(line.length, (place) => line[place]!.onset >= beat);

/** The first place of an ordered list where something holds; its length where nowhere. */
export function firstWhere(length: number, holds: (place: number) => boolean): number {
  let [low, high] = [0, length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Does anything sound in an open stretch of beats? */
export function soundsBetween(events: readonly Event[], from: Beats, to: Beats): boolean {
  const reach = from - longestSounding(events);
  for (
    let place = firstWhere(events.length, (at) => events[at]!.onset >= to) - 1;
    place >= 0 && events[place]!.onset >= reach;
    place--
  )
    if (events[place]!.end > from) return true;
  return false;
}

const longest = new WeakMap<readonly Event[], Beats>();

/** Beats that the longest of all events lasts: nothing that began earlier than that can still sound. */
export function longestSounding(events: readonly Event[]): Beats {
  const known = longest.get(events);
  if (known !== undefined) return known;
  const beats = events.reduce((most, event) => Math.max(most, event.end - event.onset), 0);
  longest.set(events, beats);
  return beats;
}
