import type { Report } from '../analyse';
import { elementAt, present } from '../shared';

/**
 * How often targets were led into in one way, by the side it came from; `left` counts those that never
 * arrived.
 */
export type ApproachRow = {
  readonly kind: string;
  readonly name: string;
  readonly below: number;
  readonly above: number;
  readonly both: number;
};

const NAMES: Record<string, string> = {
  'approach-below': 'By one note',
  'approach-above': 'By one note',
  'double-chromatic': 'Double chromatic',
  enclosure: 'Enclosure',
  suspension: 'Suspension',
  retardation: 'Retardation',
  'minor-to-major-third': 'Minor into major third',
};

/**
 * The figures of a take by kind and side, and how many chromatic notes led nowhere.
 * Rule T7.2: an enclosure comes from both sides; the others from the side of their last member.
 */
export function approachTable(report: Report): {
  readonly rows: readonly ApproachRow[];
  readonly arrived: number;
  readonly left: number;
} {
  const rows = new Map<string, { kind: string; name: string; below: number; above: number; both: number }>();
  for (const { kind, noteIndices, targetIndex } of report.figures) {
    const last = present(report.notes[elementAt(noteIndices, noteIndices.length - 1)]);
    const target = elementAt(report.notes, targetIndex);
    const chromatic = last.chromatic === true;
    const single = kind === 'approach-below' || kind === 'approach-above';
    let name: string;
    if (single) {
      if (chromatic) name = 'Chromatic';
      else name = 'By scale step';
    } else name = present(NAMES[kind]);
    const row = rows.get(name) ?? { kind, name, below: 0, above: 0, both: 0 };
    const oneSide = last.midi < target.midi ? 'below' : 'above';
    row[kind === 'enclosure' ? 'both' : oneSide]++;
    rows.set(name, row);
  }
  const members = new Set(report.figures.flatMap(({ noteIndices }) => noteIndices));
  const left = report.notes.filter(
    (note) => note.chromatic && !members.has(note.index) && note.function !== 'grace',
  ).length;
  const order = [
    'Chromatic',
    'By scale step',
    'Double chromatic',
    'Enclosure',
    'Suspension',
    'Retardation',
    'Minor into major third',
  ];
  return {
    rows: order.map((name) => rows.get(name) ?? { kind: name, name, below: 0, above: 0, both: 0 }),
    arrived: report.figures.length,
    left,
  };
}
