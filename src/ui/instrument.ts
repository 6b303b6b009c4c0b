'use client';
import { useSyncExternalStore } from 'react';
import {
  HAND_SIZES,
  NECK_AREAS,
  OPEN_STRINGS,
  readTuning,
  STANDARD_TUNING,
  USUAL_HABITS,
  withCapo,
  writeTuning,
  type HandHabits,
  type Instrument,
} from '@/core/neck';
import { createStore, present } from '@/core/shared';

/** The player's guitar, as it is kept in this browser. */
export type Guitar = {
  readonly tuning: string;
  readonly frets: number;
  readonly capo: number;
  readonly leftHanded: boolean;
} & HandHabits;

export const STANDARD_GUITAR: Guitar = {
  tuning: writeTuning(STANDARD_TUNING),
  frets: 22,
  capo: 0,
  leftHanded: false,
  ...USUAL_HABITS,
};
const KEY = 'idle-wander-guitar';
/** Null until it is read for the first time, in the browser. */
const store = createStore<Guitar | null>(null);

const oneOf = <T>(values: readonly T[], value: unknown): T | undefined => values.find((one) => one === value);

/** What is kept is read with care: anything that is no guitar is the standard one. */
function read(): Guitar {
  try {
    const { tuning, frets, capo, leftHanded, size, open, area } = JSON.parse(
      localStorage.getItem(KEY) ?? '{}',
    ) as Partial<Guitar>;
    const sound = typeof tuning === 'string' && readTuning(tuning).ok;
    return {
      tuning: sound ? tuning : STANDARD_GUITAR.tuning,
      frets: Number.isInteger(frets) && present(frets) >= 19 && present(frets) <= 24 ? present(frets) : 22,
      capo: Number.isInteger(capo) && present(capo) >= 0 && present(capo) <= 11 ? present(capo) : 0,
      leftHanded: leftHanded === true,
      size: oneOf(HAND_SIZES, size) ?? USUAL_HABITS.size,
      open: oneOf(OPEN_STRINGS, open) ?? USUAL_HABITS.open,
      area: oneOf(NECK_AREAS, area) ?? USUAL_HABITS.area,
    };
  } catch {
    return STANDARD_GUITAR;
  }
}

export function keepGuitar(guitar: Guitar): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(guitar));
  } catch {
    // a browser that keeps nothing still uses it until the page goes
  }
  store.set(guitar);
}

export function guitarNow(): Guitar {
  const known = store.get();
  if (known) return known;
  const stored = read();
  store.set(stored);
  return stored;
}

/** The player's guitar; the standard one until the page is alive. */
export const useGuitar = (): Guitar =>
  useSyncExternalStore(store.subscribe, guitarNow, () => STANDARD_GUITAR);

/** The instrument the hand finds: frets count from the capo. */
export function instrumentOf({ tuning, frets, capo, size, open, area }: Guitar): Instrument {
  const strings = readTuning(tuning);
  return withCapo(
    { tuning: strings.ok ? strings.value : STANDARD_TUNING, frets, habits: { size, open, area } },
    capo,
  );
}
