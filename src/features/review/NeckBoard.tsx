'use client';
import { scaleLinear, scaleSqrt } from 'd3-scale';
import { useMemo } from 'react';
import type { Report } from '@/core/analyse';
import { fingeredTake, handCheck, placesSaid } from '@/core/findings';
import type { Instrument } from '@/core/neck';
import { planOn } from '@/core/plan';
import type { Judgement } from '@/core/review';
import { elementAt } from '@/core/shared';
import { handCheckWords, placesWords } from '@/presentation';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { Board } from './BoardFrame';

const WIDTH = 416;
const EDGE = 8;
const STRING = 32;
const TOP = 16;
/** With more frets than this only every other one is numbered. */
const MOST_NUMBERED = 12;

/**
 * Where the line probably lay: how long each place sounded; strong where the note is a chord tone most of the
 * time.
 */
export function NeckBoard({ judgement }: { judgement: Judgement }) {
  const { report } = judgement;
  const guitar = useGuitar();
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const places = useMemo(() => placesPlayed(report, instrument), [report, instrument]);
  if (places.length === 0) return null;
  const frets = places.map(({ fret }) => fret);
  const low = Math.max(0, Math.min(...frets) - 1);
  const high = Math.max(...frets, 4);
  const strings = instrument.tuning.length;
  const ends = guitar.leftHanded ? [WIDTH - EDGE, EDGE] : [EDGE, WIDTH - EDGE];
  const x = scaleLinear([low, high + 1], ends);
  return (
    <Board
      name="On the neck"
      facts={`${placesWords(placesSaid(report))}; size: time; figure: notes; pale: chord tones`}
      table={{
        caption: 'Places on the neck',
        head: ['Place', 'Notes', 'Beats', 'Chord tones'],
        rows: places.map(({ string, fret, count, beats, tones }) => [
          `string ${string}, fret ${fret}`,
          count,
          beats.toFixed(1),
          tones,
        ]),
      }}
    >
      <svg
        viewBox={`0 0 ${WIDTH} ${strings * STRING + 40}`}
        className="mt-2 w-full"
        role="img"
        aria-label="Places on the neck; the table says the same"
      >
        <Frets x={x} low={low} high={high} strings={strings} />
        <Places places={places} x={x} room={Math.abs(x(low + 1) - x(low)) / 2 - 1} />
      </svg>
      <HandMeant judgement={judgement} instrument={instrument} />
    </Board>
  );
}

/** What pitches can tell of the places of the hand that the plan names, and what they cannot. */
function HandMeant({ judgement, instrument }: { judgement: Judgement; instrument: Instrument }) {
  const { chart, timeline, plan, report } = judgement;
  const check = useMemo(
    () => handCheck(report, timeline, planOn(chart, timeline, plan).plan, instrument),
    [report, timeline, chart, plan, instrument],
  );
  return check && <p className="mt-2 text-[15px] leading-6 text-soft">{handCheckWords(check)}</p>;
}

type FretProps = { x: (fret: number) => number; low: number; high: number; strings: number };

function Frets({ x, low, high, strings }: FretProps) {
  const frets = Array.from({ length: high - low + 1 }, (_, index) => low + index);
  const bottom = TOP + (strings - 1) * STRING;
  return (
    <>
      {[...frets, high + 1].map((fret) => (
        <line
          key={fret}
          x1={x(fret)}
          y1={TOP}
          x2={x(fret)}
          y2={bottom}
          stroke="var(--line)"
          strokeWidth={1.5}
        />
      ))}
      {Array.from({ length: strings }, (_, string) => (
        <line
          key={string}
          x1={EDGE}
          y1={TOP + string * STRING}
          x2={WIDTH - EDGE}
          y2={TOP + string * STRING}
          stroke="var(--dim)"
          strokeWidth={1 + string * 0.16}
        />
      ))}
      {frets
        .filter((fret) => frets.length <= MOST_NUMBERED || fret % 2 === 1)
        .map((fret) => (
          <text
            key={fret}
            x={x(fret + 0.5)}
            y={strings * STRING + 22}
            fontSize={14}
            textAnchor="middle"
            style={{ fill: 'var(--soft)' }}
          >
            {fret}
          </text>
        ))}
    </>
  );
}

type PlacesProps = { places: readonly PlayedPlace[]; x: (fret: number) => number; room: number };

function Places({ places, x, room }: PlacesProps) {
  const radius = scaleSqrt([0, Math.max(...places.map(({ beats }) => beats))], [4, 16]);
  return places.map(({ string, fret, count, beats, tones }) => {
    const [cx, cy] = [x(fret + 0.5), TOP + (string - 1) * STRING];
    const r = Math.min(room, radius(beats));
    return (
      <g key={`${string} ${fret}`}>
        <circle cx={cx} cy={cy} r={r} fill={tones * 2 >= count ? 'var(--h0)' : 'var(--h2)'} />
        {r >= 9 && (
          <text
            x={cx}
            y={cy + 4.5}
            fontSize={12}
            fontWeight={640}
            textAnchor="middle"
            style={{ fill: 'var(--on)' }}
          >
            {count}
          </text>
        )}
      </g>
    );
  });
}

type PlayedPlace = {
  readonly string: number;
  readonly fret: number;
  readonly count: number;
  readonly beats: number;
  readonly tones: number;
};

function placesPlayed(report: Report, instrument: ReturnType<typeof instrumentOf>): PlayedPlace[] {
  const found = new Map<
    string,
    { string: number; fret: number; count: number; beats: number; tones: number }
  >();
  fingeredTake(report, instrument).touches.forEach((touch, index) => {
    if (!touch) return;
    const { string, fret } = touch;
    const note = elementAt(report.notes, index);
    const one = found.get(`${string} ${fret}`) ?? { string, fret, count: 0, beats: 0, tones: 0 };
    found.set(`${string} ${fret}`, {
      ...one,
      count: one.count + 1,
      beats: one.beats + note.durationBeats,
      tones: one.tones + (note.height === 0 ? 1 : 0),
    });
  });
  return [...found.values()].sort((a, b) => a.string - b.string || a.fret - b.fret);
}
