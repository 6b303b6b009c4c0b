import { stayThrough, underHand, type Instrument, type HandStop } from '@/core/neck';
import { intervalOver } from '@/core/music';
import { handsOf } from '@/core/plan';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';
import { intervalLabel } from '@/ui/intervalLabel';
import { typeset } from '@/core/music';
import { NeckMap, type NeckMark } from '@/ui/neck/NeckMap';
import { counted, guidePcs, type Study, type StudyCell } from './studyView';
import { elementAt } from '@/core/shared';

type Props = {
  study: Study;
  /** The lowest fret of the hand over each chord. */
  hands: readonly number[];
  instrument: Instrument;
  leftHanded: boolean;
  selected: number;
  barsARow: number;
  onSelect: (index: number) => void;
};

/**
 * The whole form under one hand: a window of the neck for every chord, and the path of one guide tone through
 * them.
 */
export function PlaceView(props: Props) {
  const { study, hands, instrument, leftHanded, selected, barsARow, onSelect } = props;
  const stops = threadAt(study, hands, instrument);
  const rows = Array.from({ length: Math.ceil(study.timeline.bars.length / barsARow) }, (_, row) =>
    study.timeline.bars.slice(row * barsARow, (row + 1) * barsARow),
  );
  return (
    <div className="overflow-y-auto">
      {rows.map((bars, row) => (
        <div
          key={elementAt(bars, 0).index}
          className="mb-2 grid gap-x-5"
          style={{ gridTemplateColumns: `repeat(${barsARow}, minmax(0, 1fr))` }}
        >
          {bars.map((bar) => {
            const cells = study.cells.filter((cell) => cell.bar === bar.index + 1);
            return (
              <div
                key={bar.index}
                className="grid gap-x-3"
                style={{ gridTemplateColumns: `repeat(${cells.length}, minmax(0, 1fr))` }}
              >
                {cells.map((cell, place) => (
                  <Window
                    key={cell.index}
                    cell={cell}
                    study={study}
                    stop={elementAt(stops, cell.index)}
                    before={stops[cell.index - 1] ?? null}
                    position={elementAt(hands, cell.index)}
                    instrument={instrument}
                    leftHanded={leftHanded}
                    number={place === 0 ? bar.index + 1 : null}
                    on={cell.index === selected}
                    small={cells.length > 1}
                    numbers={row === rows.length - 1 || barsARow === 1 || moves(hands)}
                    onSelect={onSelect}
                  />
                ))}
              </div>
            );
          })}
        </div>
      ))}
    </div>
  );
}

/** Where the hand is over each chord: as the plan has it, else at the position. */
export const handsAt = (study: Study, position: number, instrument: Instrument): number[] =>
  handsOf(study.plan, study.timeline, 0, instrument).map((hand) => hand ?? position);

const moves = (hands: readonly number[]): boolean => hands.some((hand) => hand !== hands[0]);

/** Guide tones of every chord where the hand is: the ring follows the cheapest path. */
export const threadAt = (study: Study, hands: readonly number[], instrument: Instrument): HandStop[] =>
  stayThrough(
    study.cells.map(({ chord }) => (chord ? guidePcs(chord) : [])),
    hands,
    instrument,
  );

/** How the thread crosses the changes in one place: how many by one fret, and the widest move. */
export function placeWords(
  study: Study,
  stops: readonly HandStop[],
  hands: readonly number[],
): [string, string] {
  const moved = hands.filter((hand, index) => index > 0 && hand !== hands[index - 1]).length;
  const moves: number[] = [];
  study.cells.forEach((cell, index) => {
    const [from, to] = [stops[(index - 1 + stops.length) % stops.length]?.thread, stops[index]?.thread];
    if (!cell.same && from && to) moves.push(Math.abs(to.midi - from.midi));
  });
  const missing = study.cells.filter(
    (cell, index) => cell.chord && elementAt(stops, index).places.length === 0,
  ).length;
  if (missing > 0)
    return [
      'This place does not hold the whole form:',
      `over ${counted(missing)} ${missing === 1 ? 'chord' : 'chords'} neither third nor seventh lies under the hand.`,
    ];
  const near = moves.filter((move) => move <= 1).length;
  return [
    moved === 0
      ? 'The whole form fits under one hand. Follow the ringed third or seventh:'
      : `The hand moves ${moved === 1 ? 'once' : `${counted(moved)} times`}, as your plan has it. Follow the ringed third or seventh:`,
    `of ${counted(moves.length)} changes it crosses ${near === moves.length ? 'all' : counted(near)} by one fret or none, and never more than ${counted(Math.max(0, ...moves))}.`,
  ];
}

type WindowProps = {
  cell: StudyCell;
  study: Study;
  stop: HandStop;
  before: HandStop | null;
  position: number;
  instrument: Instrument;
  leftHanded: boolean;
  number: number | null;
  on: boolean;
  small: boolean;
  numbers: boolean;
  onSelect: (index: number) => void;
};

function Window(props: WindowProps) {
  const { cell, stop, before, position, instrument, leftHanded, number, on, small, numbers, onSelect } =
    props;
  const last = Math.min(instrument.frets, position + (position >= 7 ? 5 : 4));
  const symbol = cell.chord?.symbol ?? 'N.C.';
  const width = small ? 140 : 286;
  return (
    <button
      type="button"
      onClick={() => onSelect(cell.index)}
      aria-current={on ? 'true' : undefined}
      className={`border-b-4 pb-1 text-left ${on ? 'border-now' : 'border-transparent'}`}
    >
      <svg viewBox={`0 0 ${width} 30`} className="w-full" aria-hidden="true">
        <ChordSvg
          x={0}
          y={22}
          symbol={symbol}
          size={Math.min(small ? 17 : 22, (width - 20) / chordWidth(symbol))}
          fill={cell.same ? 'var(--soft)' : 'var(--ink)'}
        />
        {number !== null && (
          <text x={width} y={21} fontSize={13} textAnchor="end" style={{ fill: 'var(--dim)' }}>
            {number}
          </text>
        )}
      </svg>
      <NeckMap
        tuning={instrument.tuning}
        from={position}
        to={last}
        marks={marksOf(props)}
        arrows={arrowsOf(before?.thread, stop.thread)}
        leftHanded={leftHanded}
        width={width}
        gap={21}
        numbers={numbers}
        size={small ? 9.5 : 12}
        label={`${typeset(symbol)} at frets ${position} to ${last}`}
      />
    </button>
  );
}

/** What the plan would play, and over it the chord's tones; the tone of the thread is ringed. */
function marksOf({ cell, study, stop, position, instrument }: WindowProps): NeckMark[] {
  const { chord } = cell;
  const home = elementAt(study.plan.homeScales, cell.index);
  const marks = new Map<string, NeckMark>();
  const put = (mark: NeckMark) => marks.set(`${mark.string} ${mark.fret}`, mark);
  for (const { string, fret } of underHand(cell.plan.material, position, instrument))
    put({ string, fret, label: '', look: 'scale' });
  const tones = chord?.tones.map((tone) => tone.pc) ?? [];
  for (const { string, fret, midi } of chord ? underHand(tones, position, instrument) : [])
    put({
      string,
      fret,
      label: chord ? intervalLabel(intervalOver(chord, midi % 12)) : '',
      look: home.pcs.includes(midi % 12) ? 'tone' : 'lacks',
      ring: stop.thread?.string === string && stop.thread.fret === fret,
    });
  return [...marks.values()];
}

/** The move of the thread along one string. */
function arrowsOf(from: HandStop['thread'] | undefined, to: HandStop['thread']) {
  if (!from || !to || from.string !== to.string || from.fret === to.fret) return [];
  return [{ string: from.string, from: from.fret, to: to.fret }];
}
