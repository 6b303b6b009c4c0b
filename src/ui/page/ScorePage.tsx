'use client';
import '@vexflow-fonts/bravura/index.css';
import { memo, useEffect, useLayoutEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import type { ScoreBar } from '@/core/notation';
import { elementAt, present, type Beats } from '@/core/shared';
import { ChordSvg } from '../ChordSymbol';
import { chordWidth } from '../chordParts';
import { Pill } from '../form/Pill';
import { useIsPainted } from '../useIsPainted';
import { standApart } from './apart';
import { drawSoon } from './drawSoon';
import { engrave, setEngravingFonts, type Engraved } from './engrave';
import { lineWidth, pageLines } from './pageLines';
import type { DegreeUnder } from './reportPage';
import { useMusicFont } from './useMusicFont';

type Props = {
  readonly bars: readonly ScoreBar[];
  readonly strings: number;
  readonly withStaff: boolean;
  readonly degreeOf: (index: number) => DegreeUnder | null;
  readonly selected?: number | null;
  readonly marked?: readonly [Beats, Beats] | null;
  readonly onNote?: (index: number) => void;
  /** Follows what sounds: calls back with the beat, or null, and gives a way to stop. */
  readonly follow?: (move: (beat: Beats | null) => void) => () => void;
  /** Draws what is not in sight too: for print. */
  readonly whole?: boolean;
};

/** A line as staff and tablature, or tablature alone; a line of bars is engraved when it comes into sight. */
export function ScorePage(props: Props) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const ready = useMusicFont();
  const lines = useMemo(() => (width > 0 ? pageLines(props.bars, width) : []), [props.bars, width]);
  const isPainted = useIsPainted();
  return (
    <div ref={box} data-testid="page" className="min-w-0">
      {ready &&
        lines
          .slice(0, isPainted ? lines.length : FIRST_LINES)
          .map((line, index) => (
            <Line
              key={index}
              {...props}
              whole={props.whole === true || index === 0}
              line={line}
              width={lineWidth(line, width)}
              before={lines[index - 1]?.at(-1) ?? null}
              after={lines[index + 1]?.[0] ?? null}
            />
          ))}
    </div>
  );
}

/** So many lines fill a screen: those below are laid out once these stand, and the first is drawn at once. */
const FIRST_LINES = 4;

type Box = React.RefObject<HTMLDivElement | null>;

function useWidth(box: Box): number {
  const [subscribe] = useState(() => widthsOf(box));
  return useSyncExternalStore(
    subscribe,
    () => box.current?.clientWidth ?? 0,
    () => 0,
  );
}

const widthsOf =
  (box: Box) =>
  (changed: () => void): (() => void) => {
    const watcher = new ResizeObserver(changed);
    watcher.observe(present(box.current));
    return () => watcher.disconnect();
  };

/** Engraves one bar out of sight: a browser reads the engraver's code when it is first run. */
export function warmEngraver(bar: ScoreBar): void {
  setEngravingFonts(getComputedStyle(document.body).fontFamily);
  const options = { width: 400, withStaff: true, strings: 6, before: null, after: null };
  engrave(document.createElement('div'), [bar], options);
}

type LineProps = Props & {
  line: readonly ScoreBar[];
  width: number;
  before: ScoreBar | null;
  after: ScoreBar | null;
};

/** About as high as a line is, before it is drawn. */
const GUESS = { staff: 240, tab: 150 };

const Line = memo(function Line(props: LineProps) {
  const { line, width, withStaff, strings, before, after, whole } = props;
  const box = useRef<HTMLDivElement>(null);
  const host = useRef<HTMLDivElement>(null);
  const near = useNear(box, whole === true);
  const [drawn, setDrawn] = useState<Engraved | null>(null);
  useLayoutEffect(() => {
    if (!near) return;
    setEngravingFonts(getComputedStyle(document.body).fontFamily);
    setDrawn(
      engrave(present(host.current), line, {
        width,
        withStaff,
        strings,
        before,
        after,
      }),
    );
  }, [near, line, width, withStaff, strings, before, after]);
  const height = drawn?.height ?? (withStaff ? GUESS.staff : GUESS.tab);
  const first = elementAt(line, 0);
  return (
    <div ref={box} className="relative mb-3" style={{ height }}>
      <div ref={host} aria-hidden="true" className="engraved absolute inset-0 text-soft" />
      {drawn && (
        <Marks
          {...props}
          drawn={drawn}
          label={`From bar ${first.index + 1}${first.chorus > 0 ? `, chorus ${first.chorus + 1}` : ''}; the list says the same`}
        />
      )}
    </div>
  );
});

function useNear(box: React.RefObject<HTMLDivElement | null>, whole: boolean): boolean {
  const [near, setNear] = useState(whole);
  useEffect(() => {
    let forget = () => {};
    const watcher = new IntersectionObserver(
      (entries) => {
        // a line that was scrolled past and back has several: the last says where it is now
        const { isIntersecting, boundingClientRect: line } = present(entries.at(-1));
        forget();
        if (isIntersecting)
          forget = drawSoon(() => setNear(true), line.top < window.innerHeight && line.bottom > 0);
      },
      { rootMargin: '600px' },
    );
    watcher.observe(present(box.current));
    return () => {
      watcher.disconnect();
      forget();
    };
  }, [box]);
  return near || whole;
}

const CHORD_SIZE = 17;
/** Chords of one line read apart at this distance; degrees, which have a shape of their own, at less. */
const [CHORD_GAP, PILL_GAP] = [7, 1];
const pillWidth = (degree: DegreeUnder | null): number => (degree ? 7 + 6 * degree.label.length : 0);

/** What the app says over the engraving: chords, degrees, the selection and where it sounds. */
function Marks({
  drawn,
  width,
  degreeOf,
  selected,
  marked,
  onNote,
  follow,
  line,
  label,
}: LineProps & { drawn: Engraved; label: string }) {
  const { height, notes, chords, degreesY, top, bottom, ceiling, bars } = drawn;
  const first = elementAt(line, 0);
  const chordEdges = standApart(
    chords.map(({ x, symbol }) => ({ x, width: CHORD_SIZE * chordWidth(symbol) })),
    CHORD_GAP,
    width,
  );
  const pillEdges = standApart(
    notes.map(({ index, x }) => {
      const wide = pillWidth(degreeOf(index));
      return { x: x - wide / 2, width: wide };
    }),
    PILL_GAP,
    width,
  );
  return (
    <svg width={width} height={height} className="absolute inset-0" role="img" aria-label={label}>
      {marked && <Marked drawn={drawn} from={marked[0]} to={marked[1]} />}
      {first.chorus >= 0 && (
        <text x={elementAt(bars, 0).x} y={top - 16} fontSize={12} style={{ fill: 'var(--dim)' }}>
          {first.index === 0 && first.chorus > 0 ? `chorus ${first.chorus + 1}` : first.index + 1}
        </text>
      )}
      {chords.map(({ y, symbol }, index) => (
        <g key={index} data-chord={symbol}>
          <ChordSvg x={elementAt(chordEdges, index)} y={y} symbol={symbol} size={CHORD_SIZE} />
        </g>
      ))}
      {notes.map(({ index, x }, place) => {
        const degree = degreeOf(index);
        return (
          <g key={place} onClick={onNote && (() => onNote(index))} className={onNote && 'cursor-pointer'}>
            <rect x={x - 9} y={ceiling} width={18} height={bottom - ceiling} fill="transparent" />
            {degree && (
              <Pill
                x={elementAt(pillEdges, place)}
                y={degreesY}
                width={pillWidth(degree)}
                height={17}
                tier={degree.tier}
                label={degree.label}
                size={11}
              />
            )}
            {selected === index && <Chosen x={x} drawn={drawn} />}
          </g>
        );
      })}
      {follow && <Cursor drawn={drawn} follow={follow} />}
    </svg>
  );
}

/** The selected note: a band behind it, closed above and below, that crosses none of its signs. */
function Chosen({ x, drawn: { ceiling, bottom } }: { x: number; drawn: Engraved }) {
  const [from, to] = [ceiling, bottom + 14];
  return (
    <g data-chosen="">
      <rect x={x - 12} y={from} width={24} height={to - from} fill="var(--now)" opacity={0.16} />
      <path d={`M${x - 12} ${from}h24M${x - 12} ${to}h24`} stroke="var(--now)" strokeWidth={3} />
    </g>
  );
}

function Marked({ drawn, from, to }: { drawn: Engraved; from: Beats; to: Beats }) {
  const [x1, x2] = [xOf(drawn, from), xOf(drawn, to)];
  const last = drawn.times.at(-1);
  const first = drawn.times[0];
  if (!first || !last || to <= first.beat || from >= last.beat) return null;
  const y = drawn.ceiling;
  return (
    <path
      d={`M${x1 - 6} ${y + 6}V${y}H${Math.max(x1 + 8, x2 - 4)}V${y + 6}`}
      fill="none"
      stroke="var(--now)"
      strokeWidth={2}
    />
  );
}

/** Where a beat stands: between its neighbours' places. */
function xOf({ times }: Engraved, beat: Beats): number {
  const after = times.findIndex((one) => one.beat > beat);
  if (after < 0) return times.at(-1)?.x ?? 0;
  if (after === 0) return elementAt(times, 0).x;
  const [a, b] = [elementAt(times, after - 1), elementAt(times, after)];
  return b.beat > a.beat ? a.x + ((b.x - a.x) * (beat - a.beat)) / (b.beat - a.beat) : a.x;
}

function Cursor({ drawn, follow }: { drawn: Engraved; follow: NonNullable<Props['follow']> }) {
  const line = useRef<SVGLineElement>(null);
  useEffect(
    () =>
      follow((beat) => {
        const [first, last] = [drawn.times[0], drawn.times.at(-1)];
        const shows = beat !== null && first && last && beat >= first.beat && beat < last.beat;
        line.current?.setAttribute('visibility', shows ? 'visible' : 'hidden');
        if (shows) line.current?.setAttribute('transform', `translate(${xOf(drawn, beat)} 0)`);
      }),
    [drawn, follow],
  );
  return (
    <line
      ref={line}
      visibility="hidden"
      y1={drawn.ceiling}
      y2={drawn.bottom + 12}
      stroke="var(--now)"
      strokeWidth={2}
    />
  );
}
