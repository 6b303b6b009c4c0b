'use client';
import { useEffect, useState } from 'react';
import { formPositionOf, secondsAt, type Pace } from '@/core/chart';
import type { CorrectedNote, Doubt, NoteId } from '@/core/correct';
import type { Chord } from '@/core/music';
import type { Judgement } from '@/core/review';
import { scaleLinear } from 'd3-scale';
import { intervalLabel } from '@/ui/intervalLabel';
import { nameOver } from './noteNames';
import { NotePost, type BarScales } from './NotePost';
import { peaksOf, type Peaks } from './peaks';
import type { ReviewTake } from './useReview';
import { Waveform } from './Waveform';

const WIDTH = 900;
const LEFT = 56;
const WAVE = 60;
/** Pitches shown where the bar has no note. */
const EMPTY_RANGE = [55, 72] as const;

type Props = {
  take: ReviewTake;
  judgement: Judgement;
  from: number;
  to: number;
  pace: Pace;
  held: NoteId | null;
  doubt: Doubt | undefined;
  onHold: (id: NoteId) => void;
};

/** Lowest and highest key of the bar, with room for a hand's breadth around what is in it. */
function pitchRange(inside: readonly CorrectedNote[], doubt: Doubt | undefined): readonly [number, number] {
  const pitches = [
    ...inside.map(({ midi }) => midi),
    ...(doubt?.readings.flatMap(({ midi }) => midi ?? []) ?? []),
  ];
  return pitches.length > 0 ? [Math.min(...pitches) - 3, Math.max(...pitches) + 4] : EMPTY_RANGE;
}

/** One bar: posts at the onsets, a ledge under each pitch, ledges for the chord’s tones; its sound below. */
export function OpenBar({ take, judgement, from, to, pace, held, doubt, onHold }: Props) {
  const { timeline, notes } = judgement;
  const [start, end] = [take.offsetSec + secondsAt(pace, from), take.offsetSec + secondsAt(pace, to)];
  const inside = notes.filter((note) => note.offsetSec > start && note.onsetSec < end);
  const [low, high] = pitchRange(inside, doubt);
  const per = Math.min(30, 330 / (high - low));
  const tall = (high - low) * per + 30;
  const scales: BarScales = {
    x: scaleLinear([start, end], [LEFT, WIDTH]),
    y: scaleLinear([low, high], [20 + (high - low) * per, 20]),
    perHalfStep: per,
    left: LEFT,
    right: WIDTH,
  };
  const inForm = from - formPositionOf(timeline, from).chorus * timeline.formBeats;
  const chord = timeline.chordSpans.findLast((span) => span.start <= inForm + 1e-6)?.chord ?? null;
  const peaks = usePeaks(take, start, end);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${tall + WAVE + 34}`}
      className="mt-2 block w-full"
      role="group"
      aria-label="The bar opened"
    >
      <ChordLedges chord={chord} low={low} high={high} y={scales.y} />
      <BeatLines beats={Math.round(to - from)} tall={tall} />
      {peaks && (
        <Waveform peaks={peaks} left={LEFT} right={WIDTH} middle={tall + 30 + WAVE / 2} tall={WAVE} />
      )}
      {inside.map((note) => (
        <NotePost
          key={note.id}
          note={note}
          isHeld={note.id === held}
          doubt={note.id === held ? doubt : undefined}
          scales={scales}
          label={nameOver(chord?.symbol ?? null, note.midi)}
          onHold={() => onHold(note.id)}
        />
      ))}
    </svg>
  );
}

type LedgeProps = { chord: Chord | null; low: number; high: number; y: (midi: number) => number };

/** A line for each tone of the chord, in every octave of the bar. */
function ChordLedges({ chord, low, high, y }: LedgeProps) {
  return Array.from({ length: high - low + 1 }, (_, step) => low + step).map((midi) => {
    const tone = chord?.tones.find(({ pc }) => pc === ((midi % 12) + 12) % 12);
    if (!tone) return null;
    return (
      <g key={midi}>
        <line x1={LEFT} y1={y(midi)} x2={WIDTH} y2={y(midi)} stroke="var(--line)" strokeWidth={1.25} />
        <text x={0} y={y(midi) + 5} fontSize={15} fontWeight={620}>
          {nameOver(chord?.symbol ?? null, midi)}
        </text>
        <text x={LEFT - 8} y={y(midi) + 4} fontSize={12} textAnchor="end" style={{ fill: 'var(--dim)' }}>
          {intervalLabel(tone.interval)}
        </text>
      </g>
    );
  });
}

/** Beats and the halves between them, counted as a player counts. */
function BeatLines({ beats, tall }: { beats: number; tall: number }) {
  const x = scaleLinear([0, beats * 2], [LEFT, WIDTH]);
  return (
    <>
      {Array.from({ length: beats * 2 + 1 }, (_, half) => (
        <line
          key={half}
          x1={x(half)}
          y1={6}
          x2={x(half)}
          y2={tall}
          stroke="var(--line)"
          strokeWidth={half % 2 ? 0.5 : 1.25}
        />
      ))}
      {Array.from({ length: beats * 2 }, (_, half) => (
        <text
          key={half}
          x={x(half) + 4}
          y={tall + 18}
          fontSize={14}
          fontWeight={560}
          style={{ fill: 'var(--soft)' }}
        >
          {half % 2 ? 'and' : half / 2 + 1}
        </text>
      ))}
    </>
  );
}

function usePeaks(take: ReviewTake, start: number, end: number): Peaks | null {
  const [found, setFound] = useState<{ key: string; peaks: Peaks | null } | null>(null);
  const key = `${take.id} ${start} ${end}`;
  useEffect(() => {
    if (take.soundGone) return;
    let gone = false;
    peaksOf(take.id, start, end, 420)
      .then((peaks) => {
        if (!gone) setFound({ key, peaks });
      })
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [take.id, take.soundGone, start, end, key]);
  return found?.key === key ? found.peaks : null;
}
