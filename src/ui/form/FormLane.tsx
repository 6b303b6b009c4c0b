import type { Beats } from '@/core/shared';
import { LandingLine } from './LandingLine';
import { type FormRowProps, type LaneSpec, type RowGeometry } from './geometry';
import { ClosedNotes, contour, placeNotes, slopeOf, type Placed } from './laneNotes';
import { Brackets, ChangeMarks, Phrases, StepOuts } from './laneMarks';
import type { TakeOnForm } from './takeOnForm';
import { NoteMark } from './NoteMark';

type LaneProps = FormRowProps & { lane: LaneSpec; geometry: RowGeometry };

/** One chorus of a row: its ground or ledges, notes, figures, phrases and changes. */
export function FormLane(props: LaneProps) {
  const { row, lane, formBeats, take, geometry, fix } = props;
  const offset = lane.chorus * formBeats;
  const [from, to] = [row.start + offset - 1, row.end + offset];
  const x = (beat: Beats) => geometry.x(beat - offset);
  const slope = slopeOf(lane, take, from, to);
  const placed = take ? placeNotes(take, from, to, x, lane, slope) : [];
  const drawing: LaneDrawing = { from, to, x, slope, placed };
  return (
    <>
      <Ground {...props} drawing={drawing} />
      {take && lane.view === 'closed' && <ClosedLane take={take} lane={lane} drawing={drawing} />}
      {take && lane.view !== 'closed' && <OpenLane {...props} take={take} drawing={drawing} />}
      {fix && <Fix fix={fix} placed={placed} slope={slope} view={lane.view} />}
      <Cursor {...props} drawing={drawing} />
    </>
  );
}

/** Where the beats and notes of a lane lie; `from` a beat before its first bar. */
type LaneDrawing = {
  readonly from: Beats;
  readonly to: Beats;
  readonly x: (beat: Beats) => number;
  readonly slope: ReturnType<typeof slopeOf>;
  readonly placed: readonly Placed[];
};
type PartProps = LaneProps & { drawing: LaneDrawing };

/** What lies under the notes: the ground or the ledges, where it is pressed, what is marked. */
function Ground(props: PartProps) {
  const { row, lane, formBeats, geometry, onBeat, marked, drawing } = props;
  const { from, to, x, slope } = drawing;
  const { view, height, chorus } = lane;
  return (
    <>
      {view === 'height' && (
        <line
          x1={geometry.left}
          y1={slope.ground}
          x2={geometry.right}
          y2={slope.ground}
          stroke="var(--line)"
        />
      )}
      {view === 'pitch' && <Ledges {...props} slope={slope} />}
      {onBeat && (
        <rect
          x={geometry.left}
          y={1}
          width={geometry.right - geometry.left}
          height={height - 3}
          fill="transparent"
          className="cursor-pointer"
          onClick={(event) => onBeat(beatUnder(event, geometry, row.start + chorus * formBeats))}
        />
      )}
      {marked && marked[1] > from + 1 && marked[0] < to && (
        <rect
          x={x(Math.max(marked[0], from + 1))}
          y={height - 3}
          width={Math.max(3, x(Math.min(marked[1], to)) - x(Math.max(marked[0], from + 1)))}
          height={3}
          fill="var(--now)"
          pointerEvents="none"
        />
      )}
    </>
  );
}

const Contour = ({ placed, width }: { placed: readonly Placed[]; width: number }) => (
  <path d={contour([...placed])} stroke="var(--h4)" strokeWidth={width} fill="none" pointerEvents="none" />
);

type ClosedProps = { take: TakeOnForm; lane: LaneSpec; drawing: LaneDrawing };

/** A lane that is folded: the line and its changes, nothing that could be read. */
function ClosedLane({ take, lane, drawing: { from, to, x, placed } }: ClosedProps) {
  return (
    <>
      <ChangesOfFolded take={take} chorus={lane.chorus} from={from} to={to} x={x} height={lane.height} />
      <Contour placed={placed.filter(({ lead }) => !lead)} width={1} />
      <ClosedNotes placed={[...placed]} />
    </>
  );
}

function OpenLane({ take, lane, geometry, selected, onNote, drawing }: PartProps & { take: TakeOnForm }) {
  const { from, to, x, slope } = drawing;
  const placed = [...drawing.placed];
  const changes = { take, chorus: lane.chorus, from, to, x, height: lane.height };
  return (
    <>
      <ChangeMarks {...changes} what="lines" />
      <Contour placed={placed} width={1.5} />
      {placed.map((one) => (
        <NoteMark
          key={`${one.note.index}-${one.part.from}`}
          one={one}
          selected={selected}
          onNote={onNote}
          slope={slope}
          beatWidth={geometry.beatWidth}
        />
      ))}
      <Brackets take={take} placed={placed} />
      <StepOuts take={take} placed={placed} />
      <BandRests alone={take.alone} from={from + 1} to={to} x={x} />
      <Phrases take={take} from={from} to={to} x={x} height={lane.height} />
      <ChangeMarks {...changes} what="words" />
    </>
  );
}

function Cursor({ cursor, lane, drawing: { from, to, x } }: PartProps) {
  if (cursor === undefined || cursor === null || cursor < from + 1 || cursor >= to) return null;
  return (
    <line
      x1={x(cursor)}
      y1={-1}
      x2={x(cursor)}
      y2={lane.height - 1}
      stroke="var(--now)"
      strokeWidth={3}
      pointerEvents="none"
    />
  );
}

/** A dotted line over what was played without the band, named where it begins. */
function BandRests({
  alone,
  from,
  to,
  x,
}: {
  alone: TakeOnForm['alone'];
  from: Beats;
  to: Beats;
  x: (beat: Beats) => number;
}) {
  return (
    <g pointerEvents="none">
      {alone
        .filter(([start, end]) => end > from && start < to)
        .map(([start, end]) => {
          const [a, b] = [x(Math.max(start, from)) + 3, x(Math.min(end, to)) - 3];
          return (
            <g key={start} data-band-rests={start}>
              <path
                d={`M${a + 62} 6H${b}`}
                stroke="var(--soft)"
                strokeWidth={1.5}
                strokeDasharray="1 5"
                strokeLinecap="round"
              />
              <text x={a} y={10} fontSize={11} style={{ fill: 'var(--soft)' }}>
                band rests
              </text>
            </g>
          );
        })}
    </g>
  );
}

function beatUnder(
  event: React.MouseEvent<SVGRectElement>,
  { left, beatWidth }: RowGeometry,
  start: Beats,
): Beats {
  const matrix = event.currentTarget.getScreenCTM();
  const inside = matrix ? (event.clientX - matrix.e) / matrix.a : left;
  return start + (inside - left) / beatWidth;
}

/** A ledge for every chord tone within the lane, third and seventh brighter. */
function Ledges({ row, geometry, slope, lane }: LaneProps & { slope: ReturnType<typeof slopeOf> }) {
  const lines = row.chords.flatMap((chord) => {
    const [a, b] = [geometry.x(chord.start), geometry.x(chord.end)];
    const ledges = [];
    for (let midi = Math.ceil(slope.lowest); midi <= slope.highest; midi++) {
      const tone = chord.tones.find(({ pc }) => pc === ((midi % 12) + 12) % 12);
      if (tone)
        ledges.push(
          <line
            key={`${chord.start} ${midi}`}
            x1={a}
            y1={slope.y(midi)}
            x2={b}
            y2={slope.y(midi)}
            stroke={tone.guide ? 'var(--h3)' : 'var(--line)'}
            strokeWidth={1}
            opacity={tone.guide ? 0.75 : 1}
          />,
        );
    }
    return ledges;
  });
  return (
    <g pointerEvents="none" data-lane={lane.chorus}>
      {lines}
    </g>
  );
}

function ChangesOfFolded({
  take,
  chorus,
  from,
  to,
  x,
  height,
}: {
  take: TakeOnForm;
  chorus: number;
  from: Beats;
  to: Beats;
  x: (beat: Beats) => number;
  height: number;
}) {
  return (
    <>
      {take.changes
        .filter((change) => change.chorus === chorus && change.at >= from + 1 - 1e-6 && change.at < to - 1e-6)
        .map((change) => (
          <LandingLine
            key={change.index}
            x={x(change.at)}
            from={1}
            to={height - 3}
            mark={change.mark}
            scale={0.75}
          />
        ))}
    </>
  );
}

/** The note of the one-note fix where it would have been: a ring in the one accent, with the way there. */
function Fix({
  fix,
  placed,
  slope,
  view,
}: {
  fix: NonNullable<FormRowProps['fix']>;
  placed: readonly Placed[];
  slope: ReturnType<typeof slopeOf>;
  view: LaneSpec['view'];
}) {
  const one = placed.find(({ note, lead }) => note.index === fix.noteIndex && !lead);
  if (!one || view === 'closed') return null;
  const y = view === 'pitch' ? slope.y(fix.toMidi) : slope.ground;
  const middle = one.x + Math.min(one.width, 26) / 2;
  const away = Math.abs(y - one.y) > 4;
  return (
    <g pointerEvents="none" data-fix={fix.toMidi}>
      {away && (
        <path
          d={`M${middle} ${one.y + Math.sign(y - one.y) * (one.height / 2 + 2)}V${y - Math.sign(y - one.y) * 9}`}
          stroke="var(--now)"
          strokeWidth={2}
        />
      )}
      <rect
        x={one.x - 1}
        y={y - 9}
        width={Math.min(one.width, 26) + 2}
        height={18}
        rx={9}
        fill="var(--row)"
        stroke="var(--now)"
        strokeWidth={2}
      />
      <text
        x={middle}
        y={y + 4.2}
        fontSize={12}
        fontWeight={660}
        textAnchor="middle"
        style={{ fill: 'var(--ink)' }}
      >
        {fix.label}
      </text>
    </g>
  );
}
