import { readChord, rootPc, toneByRole, type IntervalName } from '../../music';
import { modulo, type Semitones, defined } from '../../shared';
import type { Report } from '../report';

/** What was struck together: two notes by interval and degrees, lower first, or a chord by name and lowest tone. */
export type Together = {
  readonly dyad?: {
    readonly semitones: Semitones;
    readonly degrees: readonly [IntervalName | null, IntervalName | null];
  };
  readonly name?: string;
  /** Of a triad: 0 with its root lowest, 1 its third, 2 its fifth. */
  readonly inversion?: 0 | 1 | 2;
};

/**
 * What sounds together in an event of a report (T4.6).
 * @param at the event's place in the report
 * @returns empty for a single note
 */
export function togetherOf({ events, notes }: Pick<Report, 'events' | 'notes'>, at: number): Together {
  const { kind, name, noteIndices } = defined(events[at]);
  if (kind === 'single') return {};
  const voices = noteIndices
    .map((index) => defined(notes[index]))
    .map(({ midi, interval }) => ({ pitch: Math.round(midi), interval }))
    .sort((a, b) => a.pitch - b.pitch);
  const low = defined(voices[0]);
  const high = defined(voices[voices.length - 1]);
  if (kind === 'dyad')
    return { dyad: { semitones: high.pitch - low.pitch, degrees: [low.interval, high.interval] } };
  const inversion = name === undefined ? null : inversionOf(name, voices);
  return { ...(name !== undefined && { name }), ...(inversion !== null && { inversion }) };
}

function inversionOf(name: string, voices: readonly { readonly pitch: number }[]): 0 | 1 | 2 | null {
  const read = readChord(name);
  const pcs = new Set(voices.map(({ pitch }) => modulo(pitch, 12)));
  if (!read.ok || pcs.size !== 3) return null;
  const chord = read.value;
  const tones = [rootPc(chord), toneByRole(chord, 'third')?.pc, toneByRole(chord, 'fifth')?.pc];
  if (!tones.every((pc) => pc !== undefined && pcs.has(pc))) return null;
  return tones.indexOf(modulo(defined(voices[0]).pitch, 12)) as 0 | 1 | 2;
}
