'use client';
import { useSyncExternalStore } from 'react';
import { createStore } from '@/core/shared';
import { SCALE_LAYOUTS, type ScaleLayout } from '@/core/neck';
import { CHARACTERS, type ChordInstrument, type StandInCharacter } from '@/core/band';
import type { DeviceChoice } from '@/audio/input/device';
import type { BandLevels } from '@/audio/band/player';
import type { PlaybackLevels } from '@/audio/playback/takePlayer';
import { DEFAULT_BINDINGS, readBindings, type Bindings } from './commands/bindings';

/** How much of the screen helps while playing: all, no targets, no chord names either, no form either. */
export const HELP = ['everything', 'no targets', 'no chord names', 'only the count'] as const;
export type Help = 0 | 1 | 2 | 3;
/** What scale shapes are made of, how they are laid out and what their dots say. */
export const SHAPE_MATERIALS = ['plan', 'chord', 'home'] as const;
export const SHAPE_LABELS = ['intervals', 'fingers', 'notes'] as const;
export type ShapeChoice = {
  readonly material: (typeof SHAPE_MATERIALS)[number];
  readonly layout: ScaleLayout;
  /** False: the hand moves rather than reach. */
  readonly reach: boolean;
  readonly labels: (typeof SHAPE_LABELS)[number];
  /** Each shape on staff and tablature too. */
  readonly page: boolean;
};
export type AfterTake = 'roll' | 'stay' | 'review';
export const AFTER_TAKE: readonly (readonly [AfterTake, string])[] = [
  ['roll', 'the next one is counted in'],
  ['stay', 'the result stays'],
  ['review', 'the review opens'],
];

export type ListensBy = 'headphones' | 'loudspeaker';

/** What belongs to this computer: its devices, its ears and its keys. */
export type Preferences = {
  readonly device: DeviceChoice;
  readonly outputId: string | null;
  /** How the player hears the band; null until it is said. */
  readonly hearing: ListensBy | null;
  readonly bandLevel: number;
  readonly levels: BandLevels;
  /** How loud take, band and click are in a review, as they were left. */
  readonly mix: PlaybackLevels;
  readonly chords: ChordInstrument;
  readonly help: Help;
  readonly afterTake: AfterTake;
  /** Lowest fret of the neck shown while playing. */
  readonly position: number;
  /** Whether Record shows more than its first row. */
  readonly hasMore: boolean;
  readonly shapes: ShapeChoice;
  /** The tuner's A above middle C, in Hz. */
  readonly reference: number;
  readonly restMinutes: number;
  readonly bindings: Bindings;
  readonly midi: boolean;
  readonly cautionsSeen: boolean;
};

export const DEFAULTS: Preferences = {
  device: { kind: 'input', deviceId: null, channel: 'mix' },
  outputId: null,
  hearing: null,
  // low on purpose: nobody's ears should meet a full band by surprise
  bandLevel: 0.3,
  levels: { drums: 1, bass: 1, chords: 1, click: 1 },
  mix: { take: 1, band: 0, click: 0 },
  chords: 'keys',
  help: 0,
  afterTake: 'roll',
  position: 5,
  hasMore: false,
  shapes: { material: 'plan', layout: 'position', reach: true, labels: 'intervals', page: false },
  reference: 440,
  restMinutes: 25,
  bindings: DEFAULT_BINDINGS,
  midi: false,
  cautionsSeen: false,
};

const NAME = 'idle-wander-rig';
const between = (value: unknown, low: number, high: number, otherwise: number): number =>
  typeof value === 'number' && value >= low && value <= high ? value : otherwise;
const oneOf = <T>(value: unknown, choices: readonly T[], otherwise: T): T =>
  choices.includes(value as T) ? (value as T) : otherwise;

/** Preferences out of whatever the browser kept: what cannot be read is as it was in the beginning. */
export function readPreferences(text: string | null): Preferences {
  let kept: Record<string, unknown> = {};
  try {
    const read: unknown = JSON.parse(text ?? '{}');
    if (typeof read === 'object' && read !== null) kept = read as Record<string, unknown>;
  } catch {
    return DEFAULTS;
  }
  const levels = (kept.levels ?? {}) as Record<string, unknown>;
  const shapes = (kept.shapes ?? {}) as Record<string, unknown>;
  const mix = (kept.mix ?? {}) as Record<string, unknown>;
  return {
    device: readDevice(kept.device),
    outputId: typeof kept.outputId === 'string' ? kept.outputId : null,
    hearing: oneOf(kept.hearing, [null, 'headphones', 'loudspeaker'], null),
    bandLevel: between(kept.bandLevel, 0, 1, DEFAULTS.bandLevel),
    chords: oneOf(kept.chords, ['keys', 'guitar'], 'keys'),
    levels: {
      drums: between(levels.drums, 0, 1.5, 1),
      bass: between(levels.bass, 0, 1.5, 1),
      chords: between(levels.chords, 0, 1.5, 1),
      click: between(levels.click, 0, 1.5, 1),
    },
    mix: {
      take: between(mix.take, 0, 1, DEFAULTS.mix.take),
      band: between(mix.band, 0, 1, DEFAULTS.mix.band),
      click: between(mix.click, 0, 1, DEFAULTS.mix.click),
    },
    help: oneOf(kept.help, [0, 1, 2, 3], 0),
    afterTake: oneOf(kept.afterTake, ['roll', 'stay', 'review'], 'roll'),
    position: between(kept.position, 1, 15, 5),
    hasMore: kept.hasMore === true,
    shapes: {
      material: oneOf(shapes.material, SHAPE_MATERIALS, DEFAULTS.shapes.material),
      layout: oneOf(shapes.layout, SCALE_LAYOUTS, DEFAULTS.shapes.layout),
      reach: shapes.reach !== false,
      labels: oneOf(shapes.labels, SHAPE_LABELS, DEFAULTS.shapes.labels),
      page: shapes.page === true,
    },
    reference: between(kept.reference, 400, 480, 440),
    restMinutes: between(kept.restMinutes, 5, 120, 25),
    bindings: readBindings(kept.bindings),
    midi: kept.midi === true,
    cautionsSeen: kept.cautionsSeen === true,
  };
}

function readDevice(kept: unknown): DeviceChoice {
  const { kind, deviceId, channel, character, delayMs } = (kept ?? {}) as Record<string, unknown>;
  if (kind === 'stand-in')
    return {
      kind,
      character:
        typeof character === 'string' && character in CHARACTERS ? (character as StandInCharacter) : 'steady',
      delayMs: between(delayMs, 0, 250, 0),
    };
  return {
    kind: 'input',
    deviceId: typeof deviceId === 'string' ? deviceId : null,
    channel: typeof channel === 'number' && channel >= 0 && channel < 32 ? channel : 'mix',
  };
}

/** Null until they are read for the first time, in the browser. */
const store = createStore<Preferences | null>(null);

function readStored(): Preferences {
  try {
    return readPreferences(localStorage.getItem(NAME));
  } catch {
    return DEFAULTS; // storage is forbidden: this visit has its own
  }
}

export function preferences(): Preferences {
  if (typeof window === 'undefined') return DEFAULTS;
  const known = store.get();
  if (known) return known;
  const read = readStored();
  store.set(read);
  return read;
}

export function prefer(change: Partial<Preferences>): void {
  const changed = { ...preferences(), ...change };
  try {
    localStorage.setItem(NAME, JSON.stringify(changed));
  } catch {
    // full or forbidden: it holds until the page is closed
  }
  store.set(changed);
}

/** The preferences, and the screen drawn anew when they change. The server draws the beginning ones. */
export const usePreferences = (): Preferences =>
  useSyncExternalStore(store.subscribe, preferences, () => DEFAULTS);

const LEVEL_STEPS = 20;

/** The band louder or quieter by one step of twenty. */
export function stepBandLevel(by: 1 | -1): void {
  const level = Math.round(preferences().bandLevel * LEVEL_STEPS + by) / LEVEL_STEPS;
  prefer({ bandLevel: Math.max(0, Math.min(1, level)) });
}

/** Silences a part of the band, or lets it play again. */
export function togglePart(part: 'drums' | 'bass' | 'chords'): void {
  const { levels } = preferences();
  prefer({ levels: { ...levels, [part]: levels[part] > 0 ? 0 : 1 } });
}

/** One thing less on the screen while playing; after the last, all of them again. */
export const stepHelp = (): void => prefer({ help: ((preferences().help + 1) % HELP.length) as Help });
