import type { AudioInput } from './audioInput';

/**
 * An input that is quieter than this all through its first look gives nothing at all: no lead, no power,
 * muted. In dBFS.
 */
const DEAD = -84;
const LOOK_MS = 450;
const LOOK_EVERY_MS = 30;
/** A note coming in, in dBFS. */
const NOTE = -48;
const NOTES_WANTED = 2;
const NOTE_GAP_SECONDS = 0.15;

/**
 * Does the open input give anything, be it only its own noise? Answers as soon as it does. @param givenUp asks
 * whether anybody still wants to know
 */
export async function isAlive(input: AudioInput, givenUp: () => boolean): Promise<boolean> {
  const until = Date.now() + LOOK_MS;
  while (input.highest < DEAD && Date.now() < until && !givenUp())
    await new Promise((done) => setTimeout(done, LOOK_EVERY_MS));
  return input.highest >= DEAD;
}

/**
 * Waits for two notes on the chosen channel, or until the device is gone, or it is said that this is enough.
 */
export function twoNotes(input: AudioInput): { readonly done: Promise<void>; readonly enough: () => void } {
  let enough = () => undefined as void;
  const done = new Promise<void>((resolve) => {
    let notes = 0;
    let last = -1;
    const stopHearing = input.hear(() => {
      const now = input.context?.currentTime ?? 0;
      if (input.level > NOTE && now - last > NOTE_GAP_SECONDS) {
        notes++;
        last = now;
      }
      if (notes >= NOTES_WANTED) enough();
    });
    const stopWatching = input.subscribe(() => {
      if (input.state.phase !== 'open') enough();
    });
    enough = () => {
      stopHearing();
      stopWatching();
      resolve();
    };
  });
  return { done, enough: () => enough() };
}
