'use client';
import { scaleLinear } from 'd3-scale';
import { curveStepAfter, line as pathThrough } from 'd3-shape';
import type { PlayedNote } from '@/core/analyse';
import { beatInForm, type Timeline } from '@/core/chart';
import type { RankedExample } from '@/core/drills';
import { intervalOver, noteName, spellOver, typeset } from '@/core/music';
import { elementAt, modulo } from '@/core/shared';
import { intervalLabel } from '@/ui/intervalLabel';
import type { LinesOffered } from './useLines';

type Props = {
  readonly offered: LinesOffered;
  readonly timeline: Timeline;
  readonly chosen: number | null;
  readonly onChoose: (seed: number) => void;
};

/** Different lines for one drill, the one most worth copying first: a shape, a few words, and a press to see it. */
export function LinesToChoose({ offered: { lines, isLooking }, timeline, chosen, onChoose }: Props) {
  return (
    <div role="group" aria-label="Lines to choose from" className="mb-3">
      <ol className="grid gap-x-6 sm:grid-cols-2">
        {lines.map((one, place) => (
          <li key={one.seed}>
            <button
              type="button"
              aria-pressed={one.seed === chosen}
              onClick={() => onChoose(one.seed)}
              className="flex min-h-11 w-full items-center gap-3 border-b border-line px-1 text-left text-[15px] text-soft hover:text-ink aria-pressed:bg-row aria-pressed:font-[580] aria-pressed:text-ink"
            >
              <span className="w-4 text-right tabular-nums">{place + 1}</span>
              <Contour one={one} formBeats={timeline.formBeats} />
              <span>{inWords(one.line, timeline)}</span>
            </button>
          </li>
        ))}
      </ol>
      <p role="status" className="mt-1 text-sm text-dim">
        {isLooking ? `Looking for lines: ${lines.length} so far` : foundWords(lines.length)}
      </p>
    </div>
  );
}

const foundWords = (count: number): string =>
  count === 1 ? 'There is one line here' : `${count} different lines, the best to copy first`;

const WIDTH = 132;
const HEIGHT = 26;

/** The line's rise and fall, a gap where it breathes. */
function Contour({ one: { line, passes }, formBeats }: { one: RankedExample; formBeats: number }) {
  const pitches = line.map(({ midi }) => midi);
  const x = scaleLinear([0, passes * formBeats], [1, WIDTH - 1]);
  const y = scaleLinear([Math.min(...pitches) - 1, Math.max(...pitches) + 1], [HEIGHT - 2, 2]);
  const points = line.flatMap(({ onsetBeat, durationBeats, midi }, index) => {
    const end = onsetBeat + durationBeats;
    const isFollowed = (line[index + 1]?.onsetBeat ?? Infinity) - end < 0.25;
    return isFollowed ? [{ at: onsetBeat, midi }] : [{ at: onsetBeat, midi }, { at: end, midi }, null];
  });
  const path = pathThrough<(typeof points)[number]>()
    .defined((point) => point !== null)
    .x((point) => x(point?.at ?? 0))
    .y((point) => y(point?.midi ?? 0))
    .curve(curveStepAfter);
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden="true" className="shrink-0">
      <path d={path(points) ?? ''} fill="none" stroke="currentColor" strokeWidth={1.75} />
    </svg>
  );
}

/** How many notes, and where it comes to rest. */
function inWords(line: readonly PlayedNote[], timeline: Timeline): string {
  const last = elementAt(line, line.length - 1);
  const at = beatInForm(timeline, last.onsetBeat);
  const chord = timeline.chordSpans.findLast(({ start }) => start <= at + 1e-6)?.chord;
  const pc = modulo(Math.round(last.midi), 12);
  const notes = `${line.length} notes`;
  if (!chord) return notes;
  return `${notes}, ends on ${typeset(noteName(spellOver(chord, pc)))} (${intervalLabel(intervalOver(chord, pc))})`;
}
