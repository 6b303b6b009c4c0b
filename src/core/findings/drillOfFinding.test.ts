import { expect, test } from '@jest/globals';
import { analyse } from '../analyse';
import { improvise } from '../band';
import { readChart } from '../chart';
import { exampleOf } from '../drills';
import { elementAt, unwrap } from '../shared';
import { drillOfFinding, findingsOf } from './index';

const BLUES = unwrap(
  readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | Bb7 |\n| Eb7 | Eb7 | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |'),
);

test('every finding names its drill, over its bars at its tempo, and the drill has an example', () => {
  const plan = { id: 'scale-per-chord' as const };
  const notes = improvise({ chart: BLUES, tempo: 100, choruses: 6, plan, seed: 5, profile: { meet: 0 } });
  const report = analyse({ chart: BLUES, tempo: 100, choruses: 6, plan, notes });
  const findings = findingsOf({ chart: BLUES, tempo: 100, plan, report });
  expect(findings.length).toBeGreaterThan(0);
  for (const finding of findings) {
    const drill = drillOfFinding(finding, BLUES, plan);
    expect(drill).toMatchObject({
      kind: finding.drill!.kind,
      span: finding.drill!.span,
      tempo: finding.drill!.tempo,
    });
    expect([finding.kind, exampleOf(drill!, 2, 2) !== null]).toEqual([finding.kind, true]);
  }
  const { drill: _drill, ...praise } = elementAt(findings, 0);
  expect(drillOfFinding({ ...praise, kind: 'improved' }, BLUES, plan)).toBeNull();
});
