import { avoidNotes, tellTaleTones, type Chart, type ChordReading, type Timeline } from '../chart';
import {
  fromRoot,
  hasTone,
  intervalOver,
  noteName,
  pitchClass,
  spellerOf,
  toneByRole,
  type Scale,
} from '../music';
import { modulo, type PitchClass, defined } from '../shared';
import { handsOf } from './hands';
import { cellAt, homesIn, planOn, type PlanCell } from './plan';
import type { PlanChoice } from './settings';

/** A note as a plan names it over a chord. */
export type PlanNote = { readonly interval: string; readonly pc: PitchClass; readonly name: string };

/** A note of the plan that rubs against a chord by a half step: `E` over Cm against its `Eb`. */
export type Clash = {
  readonly chord: string;
  readonly note: string;
  readonly against: string;
  /** Bars of the form, from 1. */
  readonly bars: readonly number[];
};

/** What a plan plays over one chord of the form. */
export type PlannedChord = {
  readonly index: number;
  /** From 1. */
  readonly bar: number;
  readonly beat: number;
  readonly reading: ChordReading;
  readonly home: Scale;
  readonly cell: PlanCell;
  readonly plays: readonly PlanNote[];
  readonly targets: readonly PlanNote[];
  readonly tellTale: readonly PlanNote[];
  readonly avoid: readonly PlanNote[];
  /** The fret under the index finger; null where the plan leaves the hand free. */
  readonly hand: number | null;
  /** Blue notes of the key, which are at home on a blues. */
  readonly blue: readonly PitchClass[];
};

/** Each chord of the form with what the plan plays there, spelled by chord and home scale. */
export function readPlan(chart: Chart, timeline: Timeline, choice: PlanChoice, chorus = 0): PlannedChord[] {
  const { plan, harmony } = planOn(chart, timeline, choice);
  const hands = handsOf(plan, timeline, chorus);
  return timeline.chordSpans.flatMap(({ index, bar, start }): PlannedChord[] => {
    const reading = harmony.readings[index];
    if (!reading) return [];
    const { chord } = reading;
    const home = defined(homesIn(plan, chorus)[index]);
    const spell = spellerOf(chord, home);
    const named = (pcs: Iterable<PitchClass>): PlanNote[] =>
      fromRoot(chord, pcs).map((pc) => ({
        interval: intervalOver(chord, pc),
        pc,
        name: noteName(spell(pc)),
      }));
    const cell = cellAt(plan, index, chorus);
    return [
      {
        index,
        bar: bar + 1,
        beat: start,
        reading,
        home,
        cell,
        plays: named(cell.material),
        targets: named(cell.targets),
        tellTale: named(tellTaleTones(chord, home).map(({ pc }) => pc)),
        avoid: named(avoidNotes(chord, home)),
        hand: defined(hands[index]),
        blue: harmony.character.blues
          ? [3, 6, 10].map((step) => modulo(pitchClass(reading.key.tonic) + step, 12))
          : [],
      },
    ];
  });
}

/** Schools that play every note on purpose: nothing in them is a clash worth a warning. */
const MEANT = new Set(['step-out', 'free', 'shape-neighbours', 'superimposed']);

/**
 * The other third of a chord, major over minor or minor over major, where the plan plays it: what will rub, told
 * before it is played. Blue notes of the key are at home on a blues and told of none of its chords.
 */
export function clashesOf(planned: readonly PlannedChord[]): Clash[] {
  const found = new Map<string, { chord: string; note: string; against: string; bars: Set<number> }>();
  for (const { reading, cell, plays, bar, home, blue } of planned) {
    const { chord } = reading;
    const third = toneByRole(chord, 'third');
    if (!third || MEANT.has(cell.id)) continue;
    const spell = spellerOf(chord, home);
    for (const { pc, name } of plays) {
      const isOtherThird = [3, 4].includes(modulo(pc - defined(chord.tones[0]).pc, 12));
      if (hasTone(chord, pc) || !isOtherThird || blue.includes(pc)) continue;
      const key = `${chord.symbol} ${name}`;
      const clash = found.get(key) ?? {
        chord: chord.symbol,
        note: name,
        against: noteName(spell(third.pc)),
        bars: new Set<number>(),
      };
      clash.bars.add(bar);
      found.set(key, clash);
    }
  }
  return [...found.values()].map((clash) => ({ ...clash, bars: [...clash.bars] }));
}

/** What one note of the home scale is over one chord. */
export type GridCell = {
  readonly pc: PitchClass;
  readonly name: string;
  readonly interval: string;
  readonly role: 'chord-tone' | 'scale' | 'avoid' | 'outside';
};

/** A chord of the form against every note of the home scale. */
export type GridColumn = {
  readonly chord: string;
  readonly degree: string;
  readonly bars: readonly number[];
  readonly cells: readonly GridCell[];
  /** Chord tones that the home scale lacks. */
  readonly missing: readonly PlanNote[];
};

/** Every note of the home scale against every chord of the form; chords that have another home scale by themselves. */
export function homeGridOf(planned: readonly PlannedChord[]): GridColumn[] {
  const columns = new Map<string, PlannedChord[]>();
  for (const one of planned) {
    const key = `${one.reading.chord.symbol} ${one.reading.degree} ${one.home.name}`;
    columns.set(key, [...(columns.get(key) ?? []), one]);
  }
  return [...columns.values()].map((same) => {
    const { reading, home, tellTale } = defined(same[0]);
    const { chord, scale } = reading;
    const spell = spellerOf(chord, home);
    const avoid = new Set(avoidNotes(chord, home));
    const roleOf = (pc: PitchClass): GridCell['role'] => {
      if (hasTone(chord, pc)) return 'chord-tone';
      if (avoid.has(pc)) return 'avoid';
      return scale.pcs.includes(pc) ? 'scale' : 'outside';
    };
    return {
      chord: chord.symbol,
      degree: reading.degree,
      bars: [...new Set(same.map(({ bar }) => bar))],
      missing: tellTale,
      cells: home.pcs.map((pc) => ({
        pc,
        name: noteName(spell(pc)),
        interval: intervalOver(chord, pc),
        role: roleOf(pc),
      })),
    };
  });
}
