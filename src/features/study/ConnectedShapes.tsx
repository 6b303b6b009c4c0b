'use client';
import { useMemo } from 'react';
import { intervalOver, noteName, spellOver, typeset, type Chord } from '@/core/music';
import {
  chordShapes,
  countMoves,
  formsByStringSet,
  movesBetween,
  nearestShape,
  type ChordShape,
  type Instrument,
  type StringMove,
} from '@/core/neck';
import { elementAt, pitchClassOf } from '@/core/shared';
import { intervalLabel } from '@/ui/intervalLabel';
import { NeckMap, type NeckArrow, type NeckMark } from '@/ui/neck/NeckMap';
import { counted, nextChange, type Study } from './studyView';

type Props = { study: Study; index: number; position: number; instrument: Instrument; leftHanded: boolean };

const SHOWN = 4;

/** Grips near the hand, each with the grip of the next chord that lies nearest: what stays, what moves. */
export function NextShapes({ study, index, position, instrument, leftHanded }: Props) {
  const { chord } = elementAt(study.cells, index);
  const next = nextChange(study, index).chord;
  const pairs = useMemo(() => {
    if (!chord || !next) return [];
    const choices = chordShapes(next, { instrument, position, most: 40 });
    return chordShapes(chord, { instrument, position })
      .slice(0, SHOWN)
      .flatMap((shape) => {
        const nearest = nearestShape(shape, choices);
        return nearest ? [{ shape, nearest, moves: movesBetween(shape, nearest) }] : [];
      });
  }, [chord, next, instrument, position]);
  if (!chord || !next) return <p className="text-soft">No chord follows here.</p>;
  if (pairs.length === 0) return <p className="text-soft">No grip of both chords lies near this position.</p>;
  return (
    <div className="grid gap-x-8 gap-y-5 sm:grid-cols-2">
      {pairs.map(({ shape, moves }) => (
        <figure key={shape.frets.join(' ')}>
          <figcaption className="heading">{movesInWords(moves)}</figcaption>
          <MovesOnNeck
            moves={moves}
            chord={chord}
            next={next}
            instrument={instrument}
            leftHanded={leftHanded}
          />
        </figure>
      ))}
    </div>
  );
}

function movesInWords(moves: readonly StringMove[]): string {
  const { stay, byOne, further } = countMoves(moves);
  const parts = [
    stay > 0 ? `${counted(stay)} ${stay === 1 ? 'stays' : 'stay'}` : '',
    byOne > 0 ? `${counted(byOne)} ${byOne === 1 ? 'moves' : 'move'} one fret` : '',
    further > 0 ? `${counted(further)} ${further === 1 ? 'moves' : 'move'} further` : '',
  ].filter(Boolean);
  const words = parts.join(', ');
  return words === '' ? 'No string is common to both' : words.charAt(0).toUpperCase() + words.slice(1);
}

type MovesProps = {
  moves: readonly StringMove[];
  chord: Chord;
  next: Chord;
  instrument: Instrument;
  leftHanded: boolean;
};

function MovesOnNeck({ moves, chord, next, instrument, leftHanded }: MovesProps) {
  const pcAt = (string: number, fret: number) =>
    pitchClassOf(elementAt(instrument.tuning, string - 1) + fret);
  const marks = new Map<string, NeckMark>();
  const arrows: NeckArrow[] = [];
  for (const { string, from, to } of moves) {
    if (to !== null && to !== from)
      marks.set(`${string} ${to}`, {
        string,
        fret: to,
        label: typeset(noteName(spellOver(next, pcAt(string, to)))),
        look: 'target',
      });
    if (from !== null)
      marks.set(`${string} ${from}`, {
        string,
        fret: from,
        label: intervalLabel(intervalOver(chord, pcAt(string, from))),
        look: 'tone',
        ring: from === to,
      });
    if (from !== null && to !== null && from !== to && from > 0 && to > 0) arrows.push({ string, from, to });
  }
  const frets = [...marks.values()].map(({ fret }) => fret).filter((fret) => fret > 0);
  const from = Math.max(1, Math.min(...frets));
  return (
    <NeckMap
      tuning={instrument.tuning}
      from={from}
      to={Math.max(from + 4, ...frets)}
      marks={[...marks.values()]}
      arrows={arrows}
      leftHanded={leftHanded}
      width={400}
      gap={24}
      size={12.5}
      label={`${typeset(chord.symbol)} to ${typeset(next.symbol)}: ${moves
        .map(({ string, from: was, to }) => `string ${string} from ${was ?? 'silent'} to ${to ?? 'silent'}`)
        .join(', ')}`}
    />
  );
}

/** Neighbouring grips of one chord on the same strings, and the plan's notes that lead from one to the next. */
export function ShapesUpTheNeck({ study, index, instrument, leftHanded }: Props) {
  const { chord, plan } = elementAt(study.cells, index);
  const ways = useMemo(() => {
    if (!chord) return [];
    return formsByStringSet(chord, 4, instrument).flatMap(({ strings, shapes }) => {
      const climbing = [...shapes].sort((a, b) => lowestFret(a) - lowestFret(b)).filter(isNewPlace);
      return climbing.slice(1).map((upper, at) => ({ strings, lower: elementAt(climbing, at), upper }));
    });
  }, [chord, instrument]);
  if (!chord) return <p className="text-soft">No chord sounds here.</p>;
  return (
    <div className="grid gap-x-8 gap-y-5 sm:grid-cols-2">
      {ways.map(({ strings, lower, upper }) => (
        <figure key={`${lower.frets.join(' ')} ${upper.frets.join(' ')}`}>
          <figcaption className="heading">
            strings {strings.join(' ')}, frets {spanOf(lower, upper).join(' to ')}
          </figcaption>
          <BetweenShapes
            lower={lower}
            upper={upper}
            strings={strings}
            material={plan.material}
            chord={chord}
            instrument={instrument}
            leftHanded={leftHanded}
          />
        </figure>
      ))}
    </div>
  );
}

const frettedOf = ({ frets }: ChordShape): number[] => frets.filter((fret): fret is number => fret !== null);
const lowestFret = (shape: ChordShape): number => Math.min(...frettedOf(shape));
const highestFret = (shape: ChordShape): number => Math.max(...frettedOf(shape));
const spanOf = (...shapes: readonly ChordShape[]): [number, number] => [
  Math.min(...shapes.map(lowestFret)),
  Math.max(...shapes.map(highestFret)),
];
const isNewPlace = (shape: ChordShape, at: number, all: readonly ChordShape[]): boolean =>
  at === 0 || lowestFret(shape) !== lowestFret(elementAt(all, at - 1));

type BetweenProps = {
  lower: ChordShape;
  upper: ChordShape;
  strings: readonly number[];
  material: readonly number[];
  chord: Chord;
  instrument: Instrument;
  leftHanded: boolean;
};

function BetweenShapes({ lower, upper, strings, material, chord, instrument, leftHanded }: BetweenProps) {
  const [from, to] = spanOf(lower, upper);
  const marks = new Map<string, NeckMark>();
  for (const string of strings)
    for (let fret = from; fret <= to; fret++)
      if (material.includes(pitchClassOf(elementAt(instrument.tuning, string - 1) + fret)))
        marks.set(`${string} ${fret}`, { string, fret, label: '', look: 'scale' });
  const put = (shape: ChordShape, look: NeckMark['look']) =>
    shape.frets.forEach((fret, low) => {
      if (fret === null) return;
      const string = shape.frets.length - low;
      const pc = pitchClassOf(elementAt(instrument.tuning, string - 1) + fret);
      marks.set(`${string} ${fret}`, { string, fret, label: intervalLabel(intervalOver(chord, pc)), look });
    });
  put(lower, 'tone');
  put(upper, 'lacks');
  return (
    <NeckMap
      tuning={instrument.tuning}
      from={from}
      to={Math.max(from + 4, to)}
      marks={[...marks.values()]}
      leftHanded={leftHanded}
      width={400}
      gap={24}
      size={12}
      label={`${typeset(chord.symbol)} at frets ${lower.frets.map((fret) => fret ?? 'silent').join(' ')} and ${upper.frets.map((fret) => fret ?? 'silent').join(' ')}`}
    />
  );
}
