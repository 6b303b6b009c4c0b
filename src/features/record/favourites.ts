'use client';
import { LIMITS } from '@/core/contracts';
import { useSyncExternalStore } from 'react';
import { CLICK_BEATS } from '@/core/band';
import { isPlanWords, PLANS } from '@/core/plan';
import { createStore } from '@/core/shared';
import type { Preferences } from '../shell/preferences';
import { KEY_STEPS, tempoOf, type RecordChart, type Settings } from './settings';

/** Everything that decides how the next take sounds: what is played, and with which band. */
export type WholeSetup = {
  readonly settings: Settings;
  readonly band: Pick<Preferences, 'bandLevel' | 'levels' | 'chords'>;
};
export type Favourite = WholeSetup & { readonly name: string };
type Kept = { readonly last: WholeSetup | null; readonly favourites: readonly Favourite[] };

const NAME = 'idle-wander-favourites';
const MOST = 12;
const NONE: Kept = { last: null, favourites: [] };

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isNumberIn = (value: unknown, low: number, high: number): boolean =>
  typeof value === 'number' && value >= low && value <= high;
const isText = (value: unknown): value is string => typeof value === 'string' && value.length <= 120;

const isBars = (value: unknown): boolean =>
  value === null ||
  (Array.isArray(value) && value.length === 2 && value.every((bar) => isNumberIn(bar, 1, 999)));

function isSettings(value: unknown): value is Settings {
  return (
    isRecord(value) &&
    isText(value['chartId']) &&
    isBars(value['bars']) &&
    isNumberIn(value['tempo'], 20, 400) &&
    isNumberIn(value['tempoStep'], -40, 40) &&
    KEY_STEPS.some(([step]) => step === value['keyStep']) &&
    isNumberIn(value['choruses'], 1, 40) &&
    isNumberIn(value['countInBars'], 1, 2) &&
    (CLICK_BEATS as readonly unknown[]).includes(value['click']) &&
    isText(value['aloneChoruses']) &&
    isText(value['aloneBars']) &&
    isPlanWords(value['plan']) &&
    (value['backingId'] === null || isText(value['backingId']))
  );
}

function isWhole(value: unknown): value is WholeSetup {
  if (!isRecord(value) || !isSettings(value['settings']) || !isRecord(value['band'])) return false;
  const { bandLevel, levels, chords } = value['band'];
  return (
    isNumberIn(bandLevel, 0, 1) &&
    isRecord(levels) &&
    ['drums', 'bass', 'chords', 'click'].every((part) => isNumberIn(levels[part], 0, 1.5)) &&
    (chords === 'keys' || chords === 'guitar')
  );
}

/** Favourites out of whatever the browser kept; what cannot be read is left out. */
export function readFavourites(text: string | null): Kept {
  try {
    const kept: unknown = JSON.parse(text ?? '{}');
    if (!isRecord(kept)) return NONE;
    const list = Array.isArray(kept['favourites']) ? kept['favourites'] : [];
    return {
      last: isWhole(kept['last']) ? kept['last'] : null,
      favourites: list
        .filter((one): one is Favourite => isWhole(one) && isText((one as Favourite).name))
        .slice(-MOST),
    };
  } catch {
    return NONE;
  }
}

function stored(): Kept {
  if (typeof window === 'undefined') return NONE;
  try {
    return readFavourites(window.localStorage.getItem(NAME));
  } catch {
    return NONE;
  }
}

const store = createStore(stored());
const nothing = (): Kept => NONE;

/** The setup of the last take, and those the player keeps by name. */
export const useFavourites = (): Kept => useSyncExternalStore(store.subscribe, store.get, nothing);

function keep(change: Partial<Kept>): void {
  const kept = { ...store.get(), ...change };
  store.set(kept);
  try {
    window.localStorage.setItem(NAME, JSON.stringify(kept));
  } catch {
    // a browser that keeps nothing: they hold until the page is left
  }
}

export const rememberLast = (last: WholeSetup): void => keep({ last });

/** Keeps a setup by name; one of the same name gives way to it. */
export const keepFavourite = (favourite: Favourite): void =>
  keep({
    favourites: [...store.get().favourites.filter(({ name }) => name !== favourite.name), favourite].slice(
      -MOST,
    ),
  });

export const removeFavourite = (name: string): void =>
  keep({ favourites: store.get().favourites.filter((one) => one.name !== name) });

/** The chords are heard, or not: below this nobody hears them. */
const OFF = 0.01;
const SLOW = 0.7;

/** The setup slower than its chart and without the chords: the ear has to know where they are. */
export const slowWithoutChords = (
  { settings, band }: WholeSetup,
  charts: readonly RecordChart[],
): WholeSetup => ({
  settings: {
    ...settings,
    tempo: Math.max(
      LIMITS.tempo[0],
      Math.round(SLOW * tempoOf(charts.find(({ id }) => id === settings.chartId))),
    ),
  },
  band: { ...band, levels: { ...band.levels, chords: 0 } },
});

const barsIn = (bars: Settings['bars']): string => (bars ? `bars ${bars[0]}–${bars[1]}` : 'the whole form');
const clickIn = (click: Settings['click']): string => (click === 'off' ? 'no click' : 'a click');

/** What is set otherwise than for the last take, in a few words each. */
export function changesSince(last: WholeSetup, now: WholeSetup, charts: readonly RecordChart[]): string[] {
  const [was, is] = [last.settings, now.settings];
  const titleOf = (id: string) => charts.find((chart) => chart.id === id)?.title ?? 'another chart';
  const chords = (one: WholeSetup) => one.band.levels.chords > OFF;
  const rows: readonly (readonly [boolean, string])[] = [
    [was.chartId !== is.chartId, `${titleOf(is.chartId)} instead of ${titleOf(was.chartId)}`],
    [barsIn(was.bars) !== barsIn(is.bars), barsIn(is.bars)],
    [was.tempo !== is.tempo, `tempo ${is.tempo} instead of ${was.tempo}`],
    [was.choruses !== is.choruses, `${is.choruses} choruses instead of ${was.choruses}`],
    [
      was.plan.id !== is.plan.id,
      `${PLANS[is.plan.id].name.toLowerCase()} instead of ${PLANS[was.plan.id].name.toLowerCase()}`,
    ],
    [
      was.plan.home !== is.plan.home,
      is.plan.home ? `home scale ${is.plan.home}` : 'the chart’s own home scale',
    ],
    [was.click !== is.click, clickIn(is.click)],
    [chords(last) !== chords(now), chords(now) ? 'with the chords' : 'without the chords'],
  ];
  return rows.filter(([isOther]) => isOther).map(([, words]) => words);
}

/** What stands under *More* and is not as it begins: nobody should be surprised by it. */
export function hiddenSettings({ settings }: WholeSetup): string[] {
  const { bars, tempoStep, keyStep, choruses, click, aloneBars, aloneChoruses, backingId } = settings;
  const moves = choruses > 1;
  const rows: readonly (readonly [boolean, string])[] = [
    [bars !== null, barsIn(bars)],
    [moves && tempoStep !== 0, `${Math.abs(tempoStep)} ${tempoStep > 0 ? 'faster' : 'slower'} each chorus`],
    [moves && keyStep !== 0, `key ${KEY_STEPS.find(([step]) => step === keyStep)?.[1] ?? 'moves'}`],
    [click !== 'off', 'a click'],
    [aloneChoruses.trim() !== '', `alone in choruses ${aloneChoruses.trim()}`],
    [aloneBars.trim() !== '', `alone in bars ${aloneBars.trim()}`],
    [backingId !== null, 'over your own backing'],
  ];
  return rows.filter(([isSet]) => isSet).map(([, words]) => words);
}
