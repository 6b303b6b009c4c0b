import type { Report } from '../analyse';
import { pitchClassOf, elementAt, present } from '../shared';
import { guideTones, readChord, toneByRole, type Chord, type ToneRole } from '../music';
import { approachTable, onTheNeck, type Rate } from '../findings';

export const TARGET_TONES = ['root', 'third', 'fifth', 'seventh'] as const;
export type TargetTone = (typeof TARGET_TONES)[number];
export const APPROACHES = ['Chromatic', 'By scale step', 'Double chromatic', 'Enclosure'] as const;

/**
 * What of a take counts for progress. The same yardstick for every plan: guide tones at the change, or within
 * a beat of it.
 */
export type Measures = {
  readonly kinds: readonly ({ readonly from: string; readonly to: string } & Rate)[];
  /** How often each tone was the landing, of the landings on a chord that has it. */
  readonly tones: readonly ({ readonly tone: TargetTone } & Rate)[];
  /** How many landings were led into in each way, of all landings that a note came before. */
  readonly approaches: readonly ({ readonly name: string } & Rate)[];
  /** Notes by the fret under the index finger; 0 is open. */
  readonly places: Readonly<Record<number, number>>;
};

/** A landing still counts when its guide tone comes within a beat after the change. */
const WITHIN_BEATS = 1;
const ROLES: Record<TargetTone, readonly ToneRole[]> = {
  root: ['root'],
  third: ['third', 'sus'],
  fifth: ['fifth'],
  seventh: ['seventh', 'sixth'],
};

/**
 * Counts of one take by kind of change, by tone, by approach. Changes at rest are left out: nobody was
 * playing.
 */
export function measuresOf(report: Report): Measures {
  const kinds = new Map<string, { from: string; to: string; met: number; of: number }>();
  const tones = new Map<TargetTone, { met: number; of: number }>(
    TARGET_TONES.map((tone) => [tone, { met: 0, of: 0 }]),
  );
  let fresh = 0;
  for (const { from, to, landing, connection } of report.changes) {
    if (landing.rest) continue;
    const chord = chordOf(to);
    const name = `${from}→${to}`;
    const row = kinds.get(name) ?? { from, to, met: 0, of: 0 };
    kinds.set(name, row);
    row.of++;
    if (!chord) continue;
    const landed =
      landing.noteIndex === null ? null : pitchClassOf(elementAt(report.notes, landing.noteIndex).midi);
    const resolved =
      landing.resolutionIndex === undefined || (landing.resolvedAfterBeats ?? Infinity) > WITHIN_BEATS
        ? null
        : pitchClassOf(elementAt(report.notes, landing.resolutionIndex).midi);
    if (guideTones(chord).some(({ pc }) => pc === landed || pc === resolved)) row.met++;
    for (const tone of TARGET_TONES) {
      const own = toneByRole(chord, ...ROLES[tone]);
      if (!own) continue;
      const cell = present(tones.get(tone));
      cell.of++;
      if (own.pc === landed) cell.met++;
    }
    if (connection.kind !== null && connection.kind !== 'fresh') fresh++;
  }
  const landings = new Set(report.changes.flatMap(({ landing }) => landing.noteIndex ?? []));
  const { rows } = approachTable({ ...into(report, landings) });
  return {
    places: onTheNeck(report).positions,
    kinds: [...kinds.values()],
    tones: [...tones].filter(([, { of }]) => of > 0).map(([tone, rate]) => ({ tone, ...rate })),
    approaches: APPROACHES.map((name) => {
      const row = rows.find((one) => one.name === name);
      return {
        name,
        met: Math.min(fresh, (row?.below ?? 0) + (row?.above ?? 0) + (row?.both ?? 0)),
        of: fresh,
      };
    }),
  };
}

/** A report with only the figures that lead into landings. */
const into = (report: Report, landings: ReadonlySet<number>): Report => ({
  ...report,
  figures: report.figures.filter(({ targetIndex }) => landings.has(targetIndex)),
});

function chordOf(symbol: string): Chord | null {
  const read = readChord(symbol);
  return read.ok ? read.value : null;
}
