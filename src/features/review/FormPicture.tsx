'use client';
import { memo, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { chorusAt, type Timeline } from '@/core/chart';
import type { TakePlayer } from '@/audio/playback/takePlayer';
import { FormRow } from '@/ui/form/FormRow';
import {
  CLOSED_LANE,
  HEAD,
  LANE,
  lanesHeight,
  MOST_OPEN,
  PITCH_LANE,
  rowGeometry,
  ZOOMED_LANE,
  type FormRowProps,
  type LaneSpec,
} from '@/ui/form/geometry';
import { formRows, type FormRowModel } from '@/ui/form/formRows';
import type { TakeOnForm } from '@/ui/form/takeOnForm';
import { useCursor } from './useTakePlayer';
import { present, elementAt, type Beats } from '@/core/shared';

const WIDTH = 872;
const GAP = 8;
const FOLDED = 8;
/** What is drawn at once, in drawing units: as much as a screen shows. */
const FIRST = 640;

export type DrawBy = 'height' | 'pitch';

type Props = {
  timeline: Timeline;
  choruses: number;
  take: TakeOnForm;
  player: TakePlayer;
  drawBy: DrawBy;
  /** The chorus that is open where not all can be; from 0. */
  open: number;
  selected: number | null;
  marked: readonly [Beats, Beats] | null;
  fix: FormRowProps['fix'];
  /** The row that fills the picture, opened wide; null for the whole form. */
  zoomed: number | null;
  /** Draws what is not in sight too: for pictures that are saved and printed. */
  whole?: boolean;
  onNote: (index: number) => void;
  onBeat: (beat: Beats) => void;
  onChorus: (chorus: number) => void;
};

/** How the choruses of a row are drawn: all by height while they fit; else one open and the others closed. */
export function lanesOf(choruses: number, drawBy: DrawBy, open: number, zoomed: boolean): LaneSpec[] {
  const all = Array.from({ length: choruses }, (_, chorus) => chorus);
  if (drawBy === 'height' && choruses <= MOST_OPEN && !zoomed)
    return all.map((chorus) => ({ chorus, view: 'height', height: LANE }));
  const chosen = Math.max(0, Math.min(choruses - 1, open));
  return all.map((chorus) =>
    chorus === chosen
      ? {
          chorus,
          view: drawBy,
          height: laneHeight(zoomed, drawBy),
        }
      : { chorus, view: 'closed', height: CLOSED_LANE },
  );
}

/**
 * The form, walked: one row per four bars, all choruses of it close below one another. Sections fold; a row
 * can fill the picture.
 */
export const FormPicture = memo(function FormPicture(props: Props) {
  const { timeline, choruses, drawBy, open, zoomed, whole = false } = props;
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const rows = useMemo(() => formRows(timeline), [timeline]);
  const lanes = useMemo(
    () => lanesOf(choruses, drawBy, open, zoomed !== null),
    [choruses, drawBy, open, zoomed],
  );
  const sections = useMemo(
    () => rows.map((row) => timeline.bars.find((bar) => bar.start >= row.start - 1e-6)?.section ?? null),
    [rows, timeline],
  );
  const shown = rows.filter((row) => zoomed === null || row.index === zoomed);
  const toggle = (name: string) =>
    setFolded((now) => {
      const next = new Set(now);
      if (!next.delete(name)) next.add(name);
      return next;
    });
  return (
    <div className="overflow-x-auto" data-testid="form">
      <div className="min-w-[720px]">
        {shown.map((row) => {
          const section = sections[row.index] ?? null;
          const begins = section !== null && sections[row.index - 1] !== section;
          const isFolded = section !== null && folded.has(`${section}`) && zoomed === null;
          return (
            <div key={row.index}>
              {begins && zoomed === null && (
                <button
                  type="button"
                  aria-expanded={!isFolded}
                  className="mb-0.5 text-sm text-dim hover:text-ink"
                  onClick={() => toggle(section)}
                >
                  {isFolded ? `${section}, folded: open it` : section}
                </button>
              )}
              {isFolded ? (
                begins && <hr className="border-line" style={{ marginBottom: FOLDED }} />
              ) : (
                <LazyRow
                  {...props}
                  row={row}
                  lanes={lanes}
                  now={whole || zoomed !== null || row.index * (HEAD + lanesHeight(lanes) + GAP) < FIRST}
                />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
});

type RowProps = Props & { row: FormRowModel; lanes: readonly LaneSpec[] };

/**
 * What is far from being seen is drawn when it comes near: a form of many rows opens as quickly as a short
 * one. What is near and not in sight follows a change as soon as what is in sight has been drawn.
 */
function LazyRow({ now, ...props }: RowProps & { now: boolean }) {
  const box = useRef<HTMLDivElement>(null);
  const [hasBeenNear, setNear] = useState(false);
  const [isSeen, setSeen] = useState(true);
  const isDrawn = now || hasBeenNear;
  useEffect(() => {
    const place = present(box.current);
    const near = new IntersectionObserver(
      (entries) => {
        if (entries.some(({ isIntersecting }) => isIntersecting)) setNear(true);
      },
      { rootMargin: '900px' },
    );
    const seen = new IntersectionObserver((entries) => setSeen(present(entries.at(-1)).isIntersecting));
    near.observe(place);
    seen.observe(place);
    return () => {
      near.disconnect();
      seen.disconnect();
    };
  }, []);
  const later = useDeferredValue(props);
  return (
    <div
      ref={box}
      style={isDrawn ? undefined : { aspectRatio: `${WIDTH} / ${HEAD + lanesHeight(props.lanes) + GAP}` }}
    >
      {isDrawn && <Row {...(isSeen || props.whole ? props : later)} />}
    </div>
  );
}

const Row = memo(function Row({
  row,
  lanes,
  timeline,
  take,
  player,
  selected,
  marked,
  fix,
  onNote,
  onBeat,
  onChorus,
}: RowProps) {
  const height = HEAD + lanesHeight(lanes) + GAP;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="block w-full"
      role="img"
      aria-label={`Bars ${elementAt(row.bars, 0).number} to ${elementAt(row.bars, row.bars.length - 1).number} of the take; the landings table says the same`}
    >
      <FormRow
        row={row}
        width={WIDTH}
        formBeats={timeline.formBeats}
        choruses={lanes.map(({ chorus }) => chorus)}
        lanes={lanes}
        take={take}
        selected={selected}
        marked={marked}
        fix={fix}
        onNote={onNote}
        onBeat={onBeat}
        onChorus={onChorus}
      />
      <Cursor row={row} lanes={lanes} formBeats={timeline.formBeats} player={player} />
    </svg>
  );
});

/** The present moment; it is moved by hand, so that a frame draws one line and nothing else. */
function Cursor({
  row,
  lanes,
  formBeats,
  player,
}: {
  row: FormRowModel;
  lanes: readonly LaneSpec[];
  formBeats: Beats;
  player: TakePlayer;
}) {
  const line = useRef<SVGLineElement>(null);
  const { x } = rowGeometry(row, WIDTH);
  useCursor(player, (beat, playing) => {
    const chorus = chorusAt({ formBeats }, beat);
    const inForm = beat - chorus * formBeats;
    const place = lanes.findIndex((lane) => lane.chorus === chorus);
    const here = place >= 0 && inForm >= row.start - 1e-6 && inForm < row.end && (playing || beat > 0);
    line.current?.setAttribute('visibility', here ? 'visible' : 'hidden');
    if (!here) return;
    const top = HEAD + lanesHeight(lanes.slice(0, place));
    line.current?.setAttribute('transform', `translate(${x(inForm).toFixed(1)} ${top})`);
    line.current?.setAttribute('y2', String(elementAt(lanes, place).height - 1));
  });
  return (
    <line
      ref={line}
      x1={0}
      y1={-1}
      x2={0}
      y2={LANE}
      stroke="var(--now)"
      strokeWidth={3}
      visibility="hidden"
      pointerEvents="none"
      data-cursor={row.index}
    />
  );
}

function laneHeight(zoomed: boolean, drawBy: DrawBy) {
  if (zoomed) {
    if (drawBy === 'pitch') return ZOOMED_LANE;
    return 2 * LANE;
  }
  if (drawBy === 'pitch') return PITCH_LANE;
  return LANE;
}
