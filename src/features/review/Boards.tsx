'use client';
import { useState } from 'react';
import type { Report } from '@/core/analyse';
import { formPositionOf, type Timeline } from '@/core/chart';
import { typeset } from '@/core/findings';
import { ChordSvg, ChordSymbol } from '@/ui/ChordSymbol';
import { ChordWords } from '@/ui/ChordWords';
import { intervalLabel } from '@/ui/intervalLabel';
import { noteNameIn } from './noteNames';
import { chordText, chordWidth } from '@/ui/chordParts';
import { PhraseEndMark } from '@/ui/form/laneMarks';
import { elementAt } from '@/core/shared';

const WIDTH = 752;
const LEFT = 32;
type Props = { report: Report; timeline: Timeline };
type MutedProps = Props & { onHear?: (beat: number) => void; onNote?: (index: number) => void };

/** Where a beat of a chorus lies across the board. */
const across = (timeline: Timeline, beatInForm: number): number =>
  LEFT + (beatInForm / timeline.formBeats) * (WIDTH - LEFT);

/**
 * With the band muted: heard a solid foot, unclear a thin one and `?`, not heard a dotted one with the chord
 * the line said, silent a dash.
 */
export function MutedBandBoard({ report, timeline, onHear, onNote }: MutedProps) {
  const [looked, setLooked] = useState<number | null>(null);
  const { segments, chance } = report.mutedBand;
  const judged = segments.filter((segment) => segment.verdict !== 'silent');
  const heard = judged.filter((segment) => segment.verdict === 'heard').length;
  const choruses = report.summary.choruses;
  const height = 30 + choruses * 28;
  return (
    <section aria-label="Band muted" className="min-w-0">
      <h2 className="text-[15px] text-dim">
        <b className="mr-3 text-base text-ink">Band muted</b>
        {heard} of {judged.length} heard, a guess would hit 1 in {chance > 0 ? Math.round(1 / chance) : 1};
        named where another chord fits better
      </h2>
      <div className="overflow-x-auto">
        <svg
          viewBox={`0 0 ${WIDTH} ${height}`}
          className="mt-2 w-full min-w-[600px]"
          role="img"
          aria-label="Chords heard without the band, by chorus"
        >
          <BoardFrame timeline={timeline} choruses={choruses} pitch={28} withChords />
          {segments.map((segment, index) => {
            const { chorus } = formPositionOf(timeline, segment.beat);
            const start = segment.beat - chorus * timeline.formBeats;
            const next = segments.find((other) => other.beat > segment.beat)?.beat ?? Infinity;
            const end = Math.min(timeline.formBeats, next - chorus * timeline.formBeats);
            const [a, b, y] = [across(timeline, start) + 2, across(timeline, end) - 2, 30 + chorus * 28 + 22];
            const touch =
              onHear && segment.verdict !== 'silent' ? (
                <rect
                  x={a}
                  y={y - 22}
                  width={Math.max(4, b - a)}
                  height={26}
                  fill={looked === index ? 'var(--line)' : 'transparent'}
                  className="cursor-pointer"
                  onClick={() => {
                    setLooked(index);
                    onHear(segment.beat);
                  }}
                />
              ) : null;
            if (segment.verdict === 'silent')
              return (
                <line
                  key={segment.beat}
                  x1={(a + b) / 2 - 8}
                  y1={y - 8}
                  x2={(a + b) / 2 + 8}
                  y2={y - 8}
                  stroke="var(--dim)"
                  strokeWidth={1.5}
                />
              );
            const solid = segment.verdict === 'heard';
            return (
              <g key={segment.beat}>
                {touch}
                <line
                  x1={a}
                  y1={y}
                  x2={b}
                  y2={y}
                  stroke={solid ? 'var(--h0)' : 'var(--h3)'}
                  strokeWidth={solid ? 4 : VERDICT_STROKE[segment.verdict]}
                  strokeDasharray={segment.verdict === 'not-heard' ? '2 4' : undefined}
                />
                {!solid &&
                  (segment.verdict === 'unclear' ? (
                    <text
                      x={(a + b) / 2}
                      y={y - 6}
                      fontSize={13}
                      textAnchor="middle"
                      style={{ fill: 'var(--soft)' }}
                    >
                      ?
                    </text>
                  ) : (
                    <ChordSvg
                      x={(a + b) / 2}
                      y={y - 6}
                      symbol={segment.best}
                      size={Math.min(14, (b - a) / chordWidth(segment.best))}
                      anchor="middle"
                    />
                  ))}
              </g>
            );
          })}
        </svg>
      </div>
      {looked !== null && <Decided report={report} index={looked} onNote={onNote} />}
      <p className="sr-only">
        {segments
          .map(
            (segment) =>
              `${chordText(segment.chord)} ${segment.verdict}${segment.verdict === 'not-heard' ? `, more like ${chordText(segment.best)}` : ''}`,
          )
          .join('; ')}
      </p>
    </section>
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

/** Phrases across the form, chorus by chorus, with how each ends. */
export function PhrasesBoard({ report, timeline }: Props) {
  const { phrases, summary } = report;
  const count = (end: string) => phrases.filter((phrase) => phrase.end === end).length;
  const crossing = phrases.filter((phrase) => phrase.changesCrossed > 0).length;
  const height = 8 + summary.choruses * 36;
  return (
    <section aria-label="Phrases" className="min-w-0">
      <h2 className="text-[15px] text-dim">
        <b className="mr-3 text-base text-ink">Phrases</b>
        {phrases.length}: {count('home')} come home, {count('floats')} float, {count('asks')} ask; {crossing}{' '}
        cross a change
      </h2>
      <div className="overflow-x-auto">
        <svg
          viewBox={`0 0 ${WIDTH} ${height}`}
          className="mt-2 w-full min-w-[600px]"
          role="img"
          aria-label="Phrases by chorus and how each ends"
        >
          <BoardFrame timeline={timeline} choruses={summary.choruses} pitch={36} withChords={false} />
          {phrases.flatMap((phrase) =>
            pieces(phrase.startBeat, phrase.endBeat, timeline, summary.choruses).map(
              ({ chorus, from, to, first, last }) => {
                const y = chorus * 36 + 20;
                return (
                  <g key={`${phrase.startBeat}-${chorus}`} stroke="var(--h1)" strokeWidth={3}>
                    <line x1={across(timeline, from)} y1={y} x2={across(timeline, to) - 4} y2={y} />
                    {first && (
                      <line
                        x1={across(timeline, from)}
                        y1={y - 6}
                        x2={across(timeline, from)}
                        y2={y + 6}
                        strokeWidth={2}
                      />
                    )}
                    {last && <PhraseEndMark x={across(timeline, to) - 4} y={y} end={phrase.end} />}
                  </g>
                );
              },
            ),
          )}
        </svg>
      </div>
    </section>
  );
}

/** A phrase cut where a chorus ends. */
function pieces(start: number, end: number, { formBeats }: Timeline, choruses: number) {
  const cut = [];
  for (let chorus = 0; chorus < choruses; chorus++) {
    const [from, to] = [Math.max(start, chorus * formBeats, 0), Math.min(end, (chorus + 1) * formBeats)];
    if (to - from > 0.05)
      cut.push({
        chorus,
        from: from - chorus * formBeats,
        to: to - chorus * formBeats,
        first: from === Math.max(0, start),
        last: to === end,
      });
  }
  return cut;
}

function BoardFrame({
  timeline,
  choruses,
  pitch,
  withChords,
}: {
  timeline: Timeline;
  choruses: number;
  pitch: number;
  withChords: boolean;
}) {
  const top = withChords ? 30 : 4;
  return (
    <>
      {Array.from({ length: choruses }, (_, chorus) => (
        <g key={chorus}>
          <rect x={LEFT} y={top + chorus * pitch} width={WIDTH - LEFT} height={pitch - 3} fill="var(--row)" />
          <text
            x={0}
            y={top + chorus * pitch + pitch / 2 + 4}
            fontSize={14}
            fontWeight={560}
            style={{ fill: 'var(--soft)' }}
          >
            {chorus + 1}
          </text>
        </g>
      ))}
      {timeline.bars.map((bar) => (
        <line
          key={bar.index}
          x1={across(timeline, bar.start)}
          y1={withChords ? 4 : 0}
          x2={across(timeline, bar.start)}
          y2={top + choruses * pitch}
          stroke="var(--line)"
        />
      ))}
      {withChords &&
        timeline.chordSpans.map((stretch) => {
          const symbol = stretch.chord?.symbol ?? 'N.C.';
          const before = timeline.chordSpans[stretch.index - 1]?.chord?.symbol;
          const room = across(timeline, stretch.end) - across(timeline, stretch.start) - 6;
          return symbol === before ? null : (
            <ChordSvg
              key={stretch.index}
              x={across(timeline, stretch.start) + 4}
              y={20}
              symbol={symbol}
              size={Math.max(9, Math.min(15, room / chordWidth(symbol)))}
            />
          );
        })}
    </>
  );
}

/** Width of the line of a segment that is not heard clearly. */
const VERDICT_STROKE = { heard: 4, unclear: 2, 'not-heard': 3, silent: 3 } as const;
