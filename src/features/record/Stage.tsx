import { memo, useCallback, useEffect, useMemo, useRef } from 'react';
import { harmonyOf, timelineOf, type Chart, type Timeline } from '@/core/chart';
import { noteName, spellOver, type Chord } from '@/core/music';
import { planOf, type LandOn, type PlanChoice } from '@/core/plan';
import { intervalWord, typeset } from '@/core/findings';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordText, chordWidth } from '@/ui/chordParts';
import { FormRow } from '@/ui/form/FormRow';
import { HEAD, LANE, rowGeometry } from '@/ui/form/geometry';
import { formRows, type FormRowModel } from '@/ui/form/formRows';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { Neck } from '@/ui/Neck';
import type { TakeOnForm } from '@/ui/form/takeOnForm';
import type { Help } from '../shell/preferences';
import { nowPlaying, type NowPlaying } from '@/ui/stage/nowPlaying';
import { present, elementAt } from '@/core/shared';

type Props = {
  chart: Chart;
  tempo: number;
  choruses: number;
  plan: PlanChoice;
  /** Where the take is, in beats; the stage changes only when a beat does. */
  beat: number;
  /** Moves the cursor between two drawings of the stage: called for every frame while the stage is shown. */
  follow?: (draw: (beat: number) => void) => () => void;
  /** What has been heard so far, as marks on the form. */
  line?: TakeOnForm | null;
  /** How much is hidden: nothing, targets, chord names too, the form too. */
  help?: Help;
  /** Lowest of the frets shown. */
  position?: number;
};

/** The screen while playing: one sentence on one baseline, the neck, and the form with its cursor. */
export const Stage = memo(function Stage({
  chart,
  tempo,
  choruses,
  plan: choice,
  beat,
  follow,
  line = null,
  help = 0,
  position = 5,
}: Props) {
  const timeline = useMemo(() => timelineOf(chart, tempo), [chart, tempo]);
  const plan = useMemo(() => planOf(choice, harmonyOf(chart, timeline), timeline), [choice, chart, timeline]);
  const rows = useMemo(() => formRows(timeline), [timeline]);
  const now = nowPlaying(timeline, plan, beat);
  const row = rows.find((one) => one.bars.some((bar) => bar.number === now.bar + 1)) ?? elementAt(rows, 0);
  return (
    <div className="mx-4 flex grow flex-col gap-5 sm:mx-8">
      <Sentence now={help >= 1 ? { ...now, landOn: null } : now} named={help < 2} />
      <div className="grid gap-6 lg:grid-cols-[408px_minmax(0,1fr)] lg:gap-[72px]">
        <Whereabouts now={now} bars={timeline.bars.length} choruses={choruses} />
        <div className="mx-auto w-full max-w-[736px]">
          {help === 0 && <NeckNow now={now} position={position} />}
        </div>
      </div>
      {help < 3 && (
        <svg
          viewBox={`0 0 1216 ${HEAD + LANE}`}
          className="mt-auto mb-4 hidden w-full sm:block"
          aria-hidden="true"
        >
          <FormRow
            row={help < 2 ? row : nameless(row)}
            width={1216}
            formBeats={timeline.formBeats}
            choruses={[now.chorus]}
            take={line}
          />
          <Cursor
            row={row}
            offset={now.chorus * timeline.formBeats}
            beat={beat}
            follow={follow}
            width={1216}
          />
        </svg>
      )}
      {help < 3 && (
        <PhoneForm
          row={row}
          now={now}
          named={help < 2}
          timeline={timeline}
          beat={beat}
          follow={follow}
          line={line}
        />
      )}
    </div>
  );
});

/**
 * The present moment on the row. It is moved by hand: drawing the whole stage for every frame would take time
 * from the sound.
 */
function Cursor({
  row,
  offset,
  beat,
  follow,
  width,
}: { row: FormRowModel; offset: number; beat: number; width: number } & Pick<Props, 'follow'>) {
  const line = useRef<SVGLineElement>(null);
  const { x } = rowGeometry(row, width);
  const place = useCallback(
    (at: number) =>
      line.current?.setAttribute(
        'transform',
        `translate(${x(Math.max(row.start, at - offset)).toFixed(1)} 0)`,
      ),
    [x, row.start, offset],
  );
  useEffect(() => follow?.(place), [follow, place]);
  return (
    <line
      ref={line}
      transform={`translate(${x(Math.max(row.start, beat - offset)).toFixed(1)} 0)`}
      x1={0}
      y1={HEAD - 1}
      x2={0}
      y2={HEAD + LANE - 1}
      stroke="var(--now)"
      strokeWidth={3}
    />
  );
}

/** The row with its gates and bars, its chords unsaid: what sounds is for the ear. */
const nameless = (row: FormRowModel): FormRowModel => ({
  ...row,
  chords: row.chords.map((chord) => ({ ...chord, symbol: '' })),
});

const PHONE = 358;

/** On a phone there is room for two bars: those the cursor is in. */
function PhoneForm({
  row,
  now,
  named,
  timeline,
  beat,
  follow,
  line,
}: { row: FormRowModel; now: NowPlaying; named: boolean; timeline: Timeline; line: TakeOnForm | null } & Pick<
  Props,
  'beat' | 'follow'
>) {
  const first = row.bars.findIndex((bar) => bar.number === now.bar + 1);
  const from = Math.max(0, first - (first % 2));
  const bars = row.bars.slice(from, from + 2);
  const [start, end] = [elementAt(bars, 0).start, elementAt(bars, bars.length - 1).end];
  const half: FormRowModel = {
    ...row,
    start,
    end,
    bars,
    chords: row.chords.filter((chord) => chord.start >= start - 1e-6 && chord.start < end - 1e-6),
  };
  return (
    <svg viewBox={`0 0 ${PHONE} ${HEAD + LANE}`} className="mt-auto mb-4 w-full sm:hidden" aria-hidden="true">
      <FormRow
        row={named ? half : nameless(half)}
        width={PHONE}
        formBeats={timeline.formBeats}
        choruses={[now.chorus]}
        take={line}
      />
      <Cursor row={half} offset={now.chorus * timeline.formBeats} beat={beat} follow={follow} width={PHONE} />
    </svg>
  );
}

/** Fits a long symbol into its column. */
const fitted = (symbol: string, size: number, room: number): number =>
  Math.min(size, room / chordWidth(symbol));

/**
 * One baseline, left to right: the chord, beats until the next, the next, and the note to land on. On a phone
 * they stand in two rows.
 */
function Sentence({ now, named }: { now: NowPlaying; named: boolean }) {
  return (
    <div aria-live="off">
      <p className="sr-only">
        {named && (
          <>
            <span data-testid="chord-now">{chordName(now.now)}</span>, next{' '}
            <span data-testid="chord-next">{chordName(now.next)}</span>
          </>
        )}
      </p>
      <svg viewBox="0 0 1216 276" className="hidden w-full sm:block" aria-hidden="true">
        <g transform="translate(0 -6)">
          {named ? <WideSentence now={now} /> : <Count now={now} size={256} y={232} width={1216} />}
        </g>
      </svg>
      <svg viewBox="0 0 358 356" className="w-full sm:hidden" aria-hidden="true">
        {named ? <PhoneSentence now={now} /> : <Count now={now} size={172} y={140} width={358} />}
      </svg>
    </div>
  );
}

const chordName = (chord: Chord | null): string => (chord ? chordText(chord.symbol) : 'N.C.');
const symbolOf = (chord: Chord | null): string => chord?.symbol ?? 'N.C.';

function Label({ x, y, text }: { x: number; y: number; text: string }) {
  return (
    <text x={x} y={y} fontSize={17} style={{ fill: 'var(--dim)' }}>
      {text}
    </text>
  );
}

function Numeral({ x, y, size, value }: { x: number; y: number; size: number; value: number }) {
  return (
    <text x={x} y={y} fontSize={size} fontWeight={640} style={{ fill: 'var(--now)' }}>
      {value}
    </text>
  );
}

function WideSentence({ now }: { now: NowPlaying }) {
  const { countIn, landOn: aim } = now;
  const counting = countIn !== null;
  return (
    <>
      <Label x={0} y={30} text={counting ? 'count-in' : 'now'} />
      {counting ? (
        <Numeral x={-9} y={232} size={256} value={countIn} />
      ) : (
        <ChordSvg x={-9} y={232} symbol={symbolOf(now.now)} size={fitted(symbolOf(now.now), 256, 468)} />
      )}
      {!counting && <Label x={488} y={94} text="beats until" />}
      {!counting && <Numeral x={482} y={232} size={now.beatsUntil > 9 ? 100 : 168} value={now.beatsUntil} />}
      <Label x={624} y={94} text={counting ? 'first' : 'next'} />
      <ChordSvg
        x={612}
        y={232}
        symbol={symbolOf(now.next)}
        size={fitted(symbolOf(now.next), 168, 262)}
        fill="var(--soft)"
      />
      {aim && !counting && <Aim aim={aim} />}
      <BeatBar now={now} x={0} y={264} width={408} />
    </>
  );
}

function Aim({ aim }: { aim: LandOn }) {
  return (
    <>
      <Label x={896} y={30} text="land on" />
      <ChordSvg x={888} y={232} symbol={aim.name} size={fitted(aim.name, 256, 178)} />
      {[`its ${intervalWord(aim.interval)},`, moveWords(aim.from.semitones)].map((words, line) => (
        <text key={words} x={1072} y={160 + line * 36} fontSize={26} style={{ fill: 'var(--soft)' }}>
          {words}
        </text>
      ))}
      <text x={1072} y={232} fontSize={26} style={{ fill: 'var(--soft)' }}>
        {sideWords(aim.from.semitones)}{' '}
        <tspan fontWeight={640} style={{ fill: 'var(--ink)' }}>
          {typeset(aim.from.name)}
        </tspan>
      </text>
    </>
  );
}

function PhoneSentence({ now }: { now: NowPlaying }) {
  const counting = now.countIn !== null;
  return (
    <>
      {counting ? (
        <Numeral x={-4} y={140} size={172} value={present(now.countIn)} />
      ) : (
        <ChordSvg x={-4} y={140} symbol={symbolOf(now.now)} size={fitted(symbolOf(now.now), 172, 350)} />
      )}
      <BeatBar now={now} x={0} y={174} width={358} />
      {!counting && (
        <>
          <Label x={0} y={222} text="beats" />
          <Numeral x={-2} y={326} size={now.beatsUntil > 9 ? 80 : 112} value={now.beatsUntil} />
        </>
      )}
      <Label x={96} y={222} text={counting ? 'first' : 'next'} />
      <ChordSvg
        x={94}
        y={326}
        symbol={symbolOf(now.next)}
        size={fitted(symbolOf(now.next), 112, 140)}
        fill="var(--soft)"
      />
      {now.landOn && !counting && (
        <>
          <Label x={250} y={222} text="land on" />
          <ChordSvg x={248} y={326} symbol={now.landOn.name} size={fitted(now.landOn.name, 112, 108)} />
        </>
      )}
    </>
  );
}

function moveWords(semitones: number): string {
  return (
    ['the note', 'a half step', 'a whole step', 'a minor third', 'a major third', 'a fourth', 'a tritone'][
      Math.abs(semitones)
    ] ?? `${Math.abs(semitones)} half steps`
  );
}

const sideWords = (semitones: number): string => {
  if (semitones === 0) return 'you have:';
  if (semitones > 0) return 'above';
  return 'below';
};

/** Nothing but the beat of the bar: the chord is for the ear. */
function Count({ now, size, y, width }: { now: NowPlaying; size: number; y: number; width: number }) {
  const wide = width > 1000;
  return (
    <>
      <Label x={0} y={wide ? 30 : 16} text={now.countIn === null ? 'beat' : 'count-in'} />
      <Numeral x={-9} y={y} size={size} value={now.countIn ?? now.beat + 1} />
      {wide && now.countIn === null && (
        <>
          <Label x={488} y={94} text="beats until the next chord" />
          <Numeral x={482} y={232} size={168} value={now.beatsUntil} />
        </>
      )}
      <BeatBar now={now} x={0} y={y + 32} width={wide ? 408 : 358} />
    </>
  );
}

/** The beats of the bar: past, present, to come; the present one also stands taller. */
function BeatBar({ now, x, y, width }: { now: NowPlaying; x: number; y: number; width: number }) {
  const each = (width + 8) / now.beats;
  return (
    <>
      {Array.from({ length: now.beats }, (_, beat) => {
        const present = now.countIn === null && beat === now.beat;
        const past = now.countIn === null && beat < now.beat;
        return (
          <rect
            key={beat}
            x={x + beat * each}
            y={y - (present ? 3 : 0)}
            width={each - 8}
            height={present ? 13 : 10}
            fill={dotFill(present, past)}
          />
        );
      })}
    </>
  );
}

function Whereabouts({ now, bars, choruses }: { now: NowPlaying; bars: number; choruses: number }) {
  return (
    <div className="text-[28px] leading-10 text-soft">
      <b className="text-ink" data-testid="chorus">
        Chorus {Math.min(now.chorus + 1, choruses)} of {choruses}
      </b>
      <br />
      <span data-testid="bar">
        bar {now.bar + 1} of {bars}
      </span>
      <div className="mt-3 flex gap-1" aria-hidden="true">
        {Array.from({ length: bars }, (_, bar) => (
          <i key={bar} className={`h-2.5 flex-1 ${barClass(bar, now)}`} />
        ))}
      </div>
    </div>
  );
}

function NeckNow({ now, position }: { now: NowPlaying; position: number }) {
  const tones = now.now?.tones.map((tone) => tone.pc) ?? [];
  const targets = now.landOn ? [now.landOn.pc] : [];
  const guitar = useGuitar();
  const { tuning } = instrumentOf(guitar);
  const nameOf = (pc: number) =>
    typeset(noteName(spellOver((targets.includes(pc) ? now.next : now.now) ?? present(now.next), pc)));
  return now.now || now.next ? (
    <Neck
      from={position}
      to={position + 4}
      tuning={tuning}
      leftHanded={guitar.leftHanded}
      tones={tones}
      targets={targets}
      nameOf={nameOf}
    />
  ) : null;
}

function dotFill(present: boolean, past: boolean) {
  if (present) return 'var(--now)';
  if (past) return 'var(--soft)';
  return 'var(--line)';
}

function barClass(bar: number, now: NowPlaying) {
  if (bar < now.bar) return 'bg-soft';
  if (bar === now.bar) return 'bg-now';
  return 'bg-line';
}
