import { chorusAt } from '../chart';
import type { LineLevel } from '../drills';
import { heightIntent, type Plan } from '../plan';
import { ENOUGH, type FindingContext, type FindingsRequest } from './finding';
import { marksOf } from './marks';
import { contextOf } from './over';

/** At which level a chorus was played, and at which it was meant; null where there was too little to tell. */
export type ChorusLevel = {
  readonly chorus: number;
  readonly level: LineLevel | null;
  readonly meant: LineLevel | null;
};

const ENOUGH_NOTES = 8;
/** So much of a chorus in shapes of other chords makes it one of borrowed shapes. */
const BORROWED = 0.3;
/** So much of a chorus in the home scale, with fewer changes met than this, is one scale. */
const ONE_SCALE = 0.92;
const LOCKED = 0.5;

/** The level of each chorus by what it did, and by what its plan meant. */
export function levelsOf(request: FindingsRequest): ChorusLevel[] {
  const context = contextOf([request]);
  return Array.from({ length: request.report.summary.choruses }, (_, chorus) => ({
    chorus: chorus + 1,
    level: levelIn(context, chorus),
    meant: meantIn(context.plan, chorus),
  }));
}

function levelIn(context: FindingContext, chorus: number): LineLevel | null {
  const { report, timeline, harmony } = context;
  const isIn = (beat: number) => chorusAt(timeline, beat + 1e-6) === chorus;
  const notes = report.notes.filter(({ top, onsetBeat }) => top && isIn(onsetBeat));
  if (notes.length < ENOUGH_NOTES) return null;
  const indices = new Set(notes.map(({ index }) => index));
  const outs = report.stepOuts.filter(
    ({ noteIndices: [first] }) => first !== undefined && indices.has(first),
  );
  const home = outs.filter(({ homeIndex }) => homeIndex !== null).length;
  if (outs.length > 0 && home * 2 >= outs.length) return 'free';
  const borrowed = report.shapes
    .filter(
      ({ kind, relation, noteIndices }) =>
        kind === 'arpeggio' &&
        relation !== '1' &&
        noteIndices.some((index) => report.notes[index]?.tier !== 'chord'),
    )
    .flatMap(({ noteIndices }) => noteIndices)
    .filter((index) => indices.has(index));
  if (new Set(borrowed).size >= BORROWED * notes.length) return 'borrowed-shapes';
  const met = metIn(context, chorus);
  const home1 = harmony.homeScales[0]?.pcs ?? [];
  const inHome = notes.filter(({ midi }) => home1.includes(((Math.round(midi) % 12) + 12) % 12)).length;
  return met < LOCKED && inHome >= ONE_SCALE * notes.length ? 'one-scale' : 'locked';
}

/** The share of a chorus's changes that were met; one where there were too few to tell. */
function metIn({ report, plan, chart, tempo }: FindingContext, chorus: number): number {
  const marks = marksOf(report, plan, chart, tempo).filter(
    (mark, index) => mark !== 'rest' && report.changes[index]?.chorus === chorus + 1,
  );
  const met = marks.filter((mark) => mark === 'target' || mark === 'target-late').length;
  return marks.length < ENOUGH - 2 ? 1 : met / marks.length;
}

function meantIn(plan: Plan, chorus: number): LineLevel | null {
  const cells = plan.byChorus.get(chorus) ?? plan.cells;
  const ids = new Set(cells.map(({ id }) => id));
  if (ids.has('free') || ids.has('step-out')) return 'free';
  if (ids.has('superimposed') || ids.has('borrowed-shapes')) return 'borrowed-shapes';
  if (ids.has('home-scale') || ids.has('major-minor-blend')) return 'one-scale';
  return heightIntent(plan, chorus) === 'high' ? 'borrowed-shapes' : 'locked';
}
