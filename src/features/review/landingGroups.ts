import type { LandingMark, Report } from '@/core/analyse';
import { elementAt, present } from '@/core/shared';
import type { FormChange } from './formChanges';

/** Landings of one change of the form that came to the same. */
export type FoldedLandings = {
  readonly mark: LandingMark;
  readonly interval: string | null;
  readonly height: number;
  readonly count: number;
  readonly choruses: readonly number[];
  /** The target it came to late. */ readonly then: string | null;
};

const ORDER: readonly LandingMark[] = ['target', 'target-late', 'chord-tone', 'not-met', 'rest'];
/** More groups than this are joined by their mark. */
const MOST_GROUPS = 5;

/** The landings of a change over all choruses, folded; met ones first. */
export function groupsOf(
  formChange: FormChange,
  report: Report,
  marks: readonly LandingMark[],
): FoldedLandings[] {
  const of = (key: (index: number) => string) => {
    const found = new Map<string, number[]>();
    for (const index of formChange.changes) found.set(key(index), [...(found.get(key(index)) ?? []), index]);
    return [...found.values()]
      .map((indices): FoldedLandings => {
        const { landing } = present(report.changes[elementAt(indices, 0)]);
        const same = indices.every(
          (index) => elementAt(report.changes, index).landing.interval === landing.interval,
        );
        const late = indices
          .map((index) => elementAt(report.changes, index).landing.resolutionIndex)
          .map((at) => (at === undefined ? null : present(report.notes[at]).interval));
        return {
          mark: present(marks[elementAt(indices, 0)]),
          interval: same ? landing.interval : null,
          height: { target: 0, 'chord-tone': 0, colour: 1, scale: 2 }[landing.verdict as string] ?? 4,
          count: indices.length,
          choruses: indices.map((index) => elementAt(report.changes, index).chorus),
          then:
            marks[elementAt(indices, 0)] === 'target-late' && late.every((one) => one === late[0])
              ? (late[0] ?? null)
              : null,
        };
      })
      .sort((a, b) => ORDER.indexOf(a.mark) - ORDER.indexOf(b.mark) || b.count - a.count);
  };
  const fine = of((index) => `${marks[index]} ${elementAt(report.changes, index).landing.interval}`);
  return fine.length > MOST_GROUPS ? of((index) => elementAt(marks, index)) : fine;
}
