import { modulo, type Beats, type Midi, type PitchClass } from '../../shared';
import type { Chord, IntervalName } from '../../music';
import type { SoundingChord } from '../../chart';
import type { PlayedNote } from './played';

export type Tier = 'chord' | 'colour' | 'scale' | 'approach' | 'outside';
export type TensionLevel = 0 | 1 | 2 | 3 | 4;
export const TENSION_LEVEL: Record<Tier, TensionLevel> = {
  chord: 0,
  colour: 1,
  scale: 2,
  approach: 3,
  outside: 4,
};

/** What a note did; every note has exactly one. */
export type NoteFunction =
  | 'chord-tone'
  | 'target'
  | 'anticipation'
  | 'grace'
  | 'enclosure'
  | 'double-chromatic'
  | 'approach-below'
  | 'approach-above'
  | 'suspension'
  | 'retardation'
  | 'passing'
  | 'neighbour'
  | 'colour'
  | 'scale'
  | 'approach'
  | 'outside';

export type Flag = 'blue' | 'altered' | 'slide' | 'bend' | 'pickup' | 'lead-in' | 'resolved';

/** One note after events and graces: what the later steps read. Indices point into the report's notes. */
export type Voice = {
  readonly index: number;
  readonly played: PlayedNote;
  /** Nearest semitone of the judged pitch. */
  readonly pitch: Midi;
  readonly pc: PitchClass;
  /** Fraction of a semitone of the judged pitch against `pitch`. */
  readonly bentBy: number;
  readonly onset: Beats;
  readonly end: Beats;
  readonly event: number;
  readonly top: boolean;
  readonly grace: boolean;
  /** First of the graces that lent this note its onset. */
  readonly from?: number;
};

/** A line note: the top voice of its event, in order of onset; its event's index is its place in the line. */
export type LineNote = Voice;
export type Line = readonly LineNote[];

export type Event = {
  readonly index: number;
  readonly onset: Beats;
  readonly end: Beats;
  /** Voices low to high. */
  readonly voices: readonly Voice[];
};

/** How many pitches an event has: a copy of a note makes no chord. */
export const pitchesIn = ({ voices }: Event): number =>
  voices.length === 1 ? 1 : new Set(voices.map((voice) => voice.pitch)).size;

/** The chord a note belongs to; null over N.C. */
export type ChordAssignment = {
  readonly sounding: SoundingChord;
  readonly chord: Chord | null;
  readonly anticipates: boolean;
  readonly leadIn: boolean;
};

export type NoteSpan = {
  readonly chord: string | null;
  readonly interval: IntervalName | null;
  readonly height: TensionLevel;
  readonly beats: Beats;
};

/** T4.5: the next line note starts at most 1 beat after this one ends; inside figures at most 0.5. */
export const isLinked = (from: Voice | undefined, to: Voice | undefined, within: Beats = 1): boolean =>
  from !== undefined && to !== undefined && to.onset - from.end <= within + 1e-6;

export const FIGURE_GAP: Beats = 0.5;

export const pitchClassAt = (pitch: Midi): PitchClass => modulo(pitch, 12);
