'use client';
import { useState } from 'react';
import type { Report } from '@/core/analyse';
import { formPositionOf, type Timeline } from '@/core/chart';
import { typeset } from '@/core/music';
import { elementAt } from '@/core/shared';
import { ChordSvg, ChordSymbol } from '@/ui/ChordSymbol';
import { ChordWords } from '@/ui/ChordWords';
import { chordText, chordWidth } from '@/ui/chordParts';
import { intervalLabel } from '@/ui/intervalLabel';
import { acrossForm, FormGrid, WIDTH } from './FormGrid';
import { noteNameIn } from './noteNames';

const PITCH = 28;
const TOP = 30;

type Props = {
  report: Report;
  timeline: Timeline;
  onHear?: (beat: number) => void;
  onNote?: (index: number) => void;
};
type Segment = Report['mutedBand']['segments'][number];

/**
 * With the band muted: heard a solid foot, unclear a thin one and `?`, not heard a dotted one with the chord
 * the line said, silent a dash.
 */
export function MutedBandBoard({ report, timeline, onHear, onNote }: Props) {
  const [looked, setLooked] = useState<number | null>(null);
  const { segments, chance } = report.mutedBand;
  const judged = segments.filter((segment) => segment.verdict !== 'silent');
  const heard = judged.filter((segment) => segment.verdict === 'heard').length;
  const { choruses } = report.summary;
  const spans = spansOf(segments, timeline);
  return (
    <section aria-label="Band muted" className="min-w-0">
      <h2 className="text-[15px] text-dim">
        <b className="mr-3 text-base text-ink">Band muted</b>
        {heard} of {judged.length} heard, a guess would hit 1 in {chance > 0 ? Math.round(1 / chance) : 1};
        named where another chord fits better
      </h2>
      <div className="overflow-x-auto">
        <svg
          viewBox={`0 0 ${WIDTH} ${TOP + choruses * PITCH}`}
          className="mt-2 w-full min-w-[600px]"
          role="img"
          aria-label="Chords heard without the band, by chorus"
        >
          <FormGrid timeline={timeline} choruses={choruses} pitch={PITCH} withChords />
          {spans.map((span, index) => (
            <SegmentMark
              key={span.segment.beat}
              {...span}
              isLooked={looked === index}
              onLook={
                onHear &&
                (() => {
                  setLooked(index);
                  onHear(span.segment.beat);
                })
              }
            />
          ))}
        </svg>
      </div>
      {looked !== null && <Decided report={report} index={looked} onNote={onNote} />}
      <p className="sr-only">{segments.map(segmentWords).join('; ')}</p>
    </section>
  );
}

const segmentWords = ({ chord, verdict, best }: Segment): string =>
  `${chordText(chord)} ${verdict}${verdict === 'not-heard' ? `, more like ${chordText(best)}` : ''}`;

type Span = {
  readonly segment: Segment;
  readonly from: number;
  readonly to: number;
  readonly y: number;
};

/** Where each segment lies on the board: until the next one, or the end of its chorus. */
function spansOf(segments: readonly Segment[], timeline: Timeline): Span[] {
  const x = acrossForm(timeline);
  return segments.map((segment) => {
    const { chorus } = formPositionOf(timeline, segment.beat);
    const start = chorus * timeline.formBeats;
    const next = segments.find((other) => other.beat > segment.beat)?.beat ?? Infinity;
    return {
      segment,
      from: x(segment.beat - start) + 2,
      to: x(Math.min(timeline.formBeats, next - start)) - 2,
      y: TOP + chorus * PITCH + 22,
    };
  });
}

const STROKE = { heard: 4, unclear: 2, 'not-heard': 3, silent: 1.5 } as const;
type MarkProps = Span & { isLooked: boolean; onLook: (() => void) | undefined };

function SegmentMark({ segment, from, to, y, isLooked, onLook }: MarkProps) {
  const { verdict, best } = segment;
  const middle = (from + to) / 2;
  if (verdict === 'silent')
    return (
      <line
        x1={middle - 8}
        y1={y - 8}
        x2={middle + 8}
        y2={y - 8}
        stroke="var(--dim)"
        strokeWidth={STROKE.silent}
      />
    );
  return (
    <g>
      {onLook && (
        <rect
          x={from}
          y={y - 22}
          width={Math.max(4, to - from)}
          height={26}
          fill={isLooked ? 'var(--line)' : 'transparent'}
          className="cursor-pointer"
          onClick={onLook}
        />
      )}
      <line
        x1={from}
        y1={y}
        x2={to}
        y2={y}
        stroke={verdict === 'heard' ? 'var(--h0)' : 'var(--h3)'}
        strokeWidth={STROKE[verdict]}
        strokeDasharray={verdict === 'not-heard' ? '2 4' : undefined}
      />
      {verdict === 'unclear' && (
        <text x={middle} y={y - 6} fontSize={13} textAnchor="middle" style={{ fill: 'var(--soft)' }}>
          ?
        </text>
      )}
      {verdict === 'not-heard' && (
        <ChordSvg
          x={middle}
          y={y - 6}
          symbol={best}
          size={Math.min(14, (to - from) / chordWidth(best))}
          anchor="middle"
        />
      )}
    </g>
  );
}

/** One bar of the muted band: what the line said there, and by which notes. */
function Decided({
  report,
  index,
  onNote,
}: {
  report: Report;
  index: number;
  onNote: ((index: number) => void) | undefined;
}) {
  const segment = elementAt(report.mutedBand.segments, index);
  const notes = report.heardBy.decidedBy[index] ?? [];
  return (
    <p className="mt-2 text-[15px] text-soft" role="status">
      <b className="text-ink">
        <ChordSymbol symbol={segment.chord} />
      </b>{' '}
      {
        { heard: 'is heard', unclear: 'is not clear', 'not-heard': 'is not heard', silent: 'was silent' }[
          segment.verdict
        ]
      }
      {segment.verdict === 'not-heard' && segment.best && (
        <>
          : the line is nearer to <ChordSymbol symbol={segment.best} />
        </>
      )}
      {segment.said && segment.verdict !== 'heard' && (
        <>
          ; it spells <ChordWords text={typeset(segment.said)} />
        </>
      )}
      . Decided by{' '}
      {notes.slice(0, 6).map((at) => (
        <button
          key={at}
          type="button"
          className="mr-1.5 font-[580] text-now hover:underline"
          onClick={() => onNote?.(at)}
        >
          {noteNameIn(report, at)}{' '}
          <span className="text-dim">{intervalLabel(elementAt(report.notes, at).interval)}</span>
        </button>
      ))}
      {notes.length === 0 && 'nothing'}
    </p>
  );
}
