import { timelineOf, type Chart, type Timeline } from '@/core/chart';
import { typeset } from '@/core/music';
import { noteName, spellOver } from '@/core/music';
import { handsOf, planOn, type Plan, type PlanChoice } from '@/core/plan';
import { elementAt, present } from '@/core/shared';
import { Neck } from '@/ui/Neck';
import { FormRow } from '@/ui/form/FormRow';
import { formRows, type FormRowModel } from '@/ui/form/formRows';
import { HEAD, LANE, rowGeometry } from '@/ui/form/geometry';
import type { TakeOnForm } from '@/ui/form/takeOnForm';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { nowPlaying, type NowPlaying } from '@/ui/stage/nowPlaying';
import { memo, useCallback, useEffect, useMemo, useRef } from 'react';
import type { Help } from '../shell/preferences';
import { Sentence } from './StageSentence';

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
  const plan = useMemo(() => planOn(chart, timeline, choice).plan, [choice, chart, timeline]);
  const rows = useMemo(() => formRows(timeline), [timeline]);
  const now = nowPlaying(timeline, plan, beat);
  const row = rows.find((one) => one.bars.some((bar) => bar.number === now.bar + 1)) ?? elementAt(rows, 0);
  return (
    <div className="mx-4 flex grow flex-col gap-5 sm:mx-8">
      <Sentence now={help >= 1 ? { ...now, landOn: null } : now} named={help < 2} />
      <div className="grid gap-6 lg:grid-cols-[408px_minmax(0,1fr)] lg:gap-[72px]">
        <Whereabouts now={now} bars={timeline.bars.length} choruses={choruses} />
        <div className="mx-auto w-full max-w-[736px]">
          {help === 0 && <NeckNow now={now} plan={plan} timeline={timeline} position={position} />}
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

/** The row with its changes and bars, its chords unsaid: what sounds is for the ear. */
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

type NeckProps = { now: NowPlaying; plan: Plan; timeline: Timeline; position: number };

/** The neck where the hand is to be over the coming chord: as the plan has it, else where the player has set it. */
function NeckNow({ now, plan, timeline, position }: NeckProps) {
  const { index, chorus } = now.upcoming;
  const tones = now.now?.tones.map((tone) => tone.pc) ?? [];
  const targets = now.landOn ? [now.landOn.pc] : [];
  const guitar = useGuitar();
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const { tuning } = instrument;
  const hands = useMemo(
    () => handsOf(plan, timeline, chorus, instrument),
    [plan, timeline, chorus, instrument],
  );
  const from = elementAt(hands, index) ?? position;
  const nameOf = (pc: number) =>
    typeset(noteName(spellOver((targets.includes(pc) ? now.next : now.now) ?? present(now.next), pc)));
  return now.now || now.next ? (
    <Neck
      from={from}
      to={from + 4}
      tuning={tuning}
      leftHanded={guitar.leftHanded}
      tones={tones}
      targets={targets}
      nameOf={nameOf}
    />
  ) : null;
}

function barClass(bar: number, now: NowPlaying) {
  if (bar < now.bar) return 'bg-soft';
  if (bar === now.bar) return 'bg-now';
  return 'bg-line';
}
