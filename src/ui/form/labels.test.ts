import { expect, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { improvise } from '@/core/band';
import { LIBRARY, readChart, timelineOf } from '@/core/chart';
import { marksOf } from '@/core/findings';
import { planOn } from '@/core/plan';
import { elementAt, seededRandom, unwrap } from '@/core/shared';
import { formRows } from './formRows';
import { LANE, rowGeometry, ZOOMED_LANE, type LaneSpec } from './geometry';
import { placeNotes, slopeOf, type Placed } from './laneNotes';
import { labelFont } from './Pill';
import { takeOnForm } from './takeOnForm';

const PLAN = { id: 'scale-per-chord' } as const;
const TAKES = 40;

/** A seeded take as bedrooms give them: notes that ring on under the next ones, short ones, two at once. */
function takeOf(seed: number) {
  const { text } = elementAt(LIBRARY, seed % LIBRARY.length);
  const chart = unwrap(readChart(text));
  const tempo = 80 + ((seed * 17) % 120);
  const random = seededRandom(seed);
  const notes = improvise({ chart, tempo, choruses: 1, plan: PLAN, seed }).flatMap((note) => {
    const rings = random() < 0.3 ? 2.5 : 1;
    const durationBeats = random() < 0.1 ? 0.08 : note.durationBeats * rings;
    const own = { ...note, durationBeats };
    return random() < 0.1 ? [own, { ...own, midi: own.midi + 4 + Math.floor(random() * 6) }] : [own];
  });
  const timeline = timelineOf(chart, tempo);
  const report = analyse({ chart, tempo, notes, plan: PLAN, leanMs: 0, choruses: 1 });
  return {
    timeline,
    take: takeOnForm(report, marksOf(report, planOn(chart, timeline, PLAN).plan, chart, tempo)),
  };
}

type Box = { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };

/** Where a label is printed: letters are 0.58 of their size wide and at most 0.72 of it high. */
function boxOf({ part: { label }, x, y, width, height }: Placed): Box[] {
  const font = labelFont(label, width, height >= 20 ? 13 : 11);
  if (font === null) return [];
  const half = (font * 0.58 * label.length) / 2;
  const middle = x + width / 2;
  return [{ left: middle - half, right: middle + half, top: y - 0.36 * font, bottom: y + 0.36 * font }];
}
const overlap = (a: Box, b: Box): boolean =>
  Math.min(a.right, b.right) - Math.max(a.left, b.left) > 0.5 &&
  Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 0.5;

test.each([
  ['height', 872, LANE],
  ['height', 400, LANE],
  ['pitch', 872, ZOOMED_LANE],
] as const)(
  'labels by %s, %i wide: none over another, none wider than its note, over forty seeded takes',
  (view, width, height) => {
    const found: string[] = [];
    let labels = 0;
    for (let seed = 0; seed < TAKES; seed++) {
      const { take, timeline } = takeOf(seed);
      const lane: LaneSpec = { chorus: 0, view, height };
      for (const row of formRows(timeline)) {
        const [from, to] = [row.start - 1, row.end];
        const { x } = rowGeometry(row, width);
        const placed = placeNotes(take, from, to, x, lane, slopeOf(lane, take, from, to));
        const boxes = placed.flatMap(boxOf);
        labels += boxes.length;
        boxes.forEach((box, index) => {
          if (boxes.slice(index + 1).some((other) => overlap(box, other)))
            found.push(`${seed} row ${row.index}`);
        });
      }
    }
    expect(found).toEqual([]);
    expect(labels).toBeGreaterThan(500);
  },
);
