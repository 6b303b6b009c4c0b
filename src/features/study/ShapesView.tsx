'use client';
import { useMemo, useState } from 'react';
import {
  chordShapes,
  formsByStringSet,
  neighboursOf,
  smallShapes,
  type ChordShape,
  type Instrument,
  type StringSet,
} from '@/core/neck';
import { intervalOver } from '@/core/music';
import { typeset } from '@/core/music';
import { intervalLabel } from '@/ui/intervalLabel';
import { NeckMap, type NeckMark } from '@/ui/neck/NeckMap';
import { NextShapes, ShapesUpTheNeck } from './ConnectedShapes';
import { FingeringView } from './FingeringView';
import { PairsView } from './PairsView';
import { ScaleShapesView } from './ScaleShapesView';
import type { Study } from './studyView';
import { elementAt } from '@/core/shared';
import { ToggleRow } from '@/ui/controls';

const KINDS = {
  position: 'In this position',
  scales: 'Scale shapes',
  next: 'To the next chord',
  sets: 'Movable forms',
  neck: 'Up the neck',
  triads: 'Triads',
  guides: 'Third and seventh',
  pairs: 'Two notes at a time',
  neighbours: 'Shape and neighbours',
  fingering: 'Fingering',
} as const;
type Kind = keyof typeof KINDS;
/** Kinds that are grips of the chord, in groups; the others have a view of their own. */
type GripKind = 'position' | 'sets' | 'triads' | 'guides' | 'neighbours';

type Props = { study: Study; index: number; position: number; instrument: Instrument; leftHanded: boolean };

/**
 * How the chord and its scale lie under the hand: grips, scale shapes, the way to the next chord, two notes at a
 * time.
 */
export function ShapesView(props: Props) {
  const [kind, setKind] = useState<Kind>('position');
  return (
    <div>
      <ToggleRow
        label="Which shapes"
        className="mb-4 text-[15px]"
        value={kind}
        onChange={setKind}
        choices={(Object.keys(KINDS) as Kind[]).map((one) => [one, KINDS[one]])}
      />
      <ShapesOfKind {...props} kind={kind} />
    </div>
  );
}

function ShapesOfKind({ kind, ...props }: Props & { kind: Kind }) {
  switch (kind) {
    case 'fingering':
      return <FingeringView {...props} />;
    case 'scales':
      return <ScaleShapesView {...props} />;
    case 'next':
      return <NextShapes {...props} />;
    case 'neck':
      return <ShapesUpTheNeck {...props} />;
    case 'pairs':
      return <PairsView {...props} />;
    default:
      return <Grips {...props} kind={kind} />;
  }
}

/** Grips of the chord in groups: near the hand, on every string set, small ones, one with its neighbours. */
function Grips({ study, index, position, instrument, leftHanded, kind }: Props & { kind: GripKind }) {
  const { chord } = elementAt(study.cells, index);
  const groups = useMemo((): { name: string; shapes: readonly ChordShape[] }[] => {
    if (!chord) return [];
    const bySet = (sets: readonly StringSet[]) =>
      sets.map(({ strings, shapes }) => ({
        name: `strings ${strings.join(' ')}`,
        shapes: shapes.slice(0, 6),
      }));
    if (kind === 'sets') return bySet(formsByStringSet(chord, 4, instrument));
    if (kind === 'triads') return bySet(smallShapes(chord, 'triad', instrument));
    if (kind === 'guides') return bySet(smallShapes(chord, 'guide tones', instrument));
    return [
      {
        name: `frets ${Math.max(1, position - 1)} to ${position + 4}`,
        shapes: chordShapes(chord, { instrument, position }).slice(0, kind === 'neighbours' ? 4 : 12),
      },
    ];
  }, [chord, instrument, kind, position]);
  if (!chord) return <p className="text-soft">No chord sounds here.</p>;
  const home = elementAt(study.plan.homeScales, index);
  return (
    <>
      {groups.map(({ name, shapes }) => (
        <section key={name} className="mb-5" aria-label={name}>
          <h2 className="heading">{name}</h2>
          {shapes.length === 0 ? (
            <p className="text-soft">No grip of this kind lies here.</p>
          ) : (
            <div className="grid grid-cols-2 gap-x-6 gap-y-4 pt-1 sm:grid-cols-4">
              {shapes.map((shape) => (
                <Grip
                  key={shape.frets.join(' ')}
                  shape={shape}
                  instrument={instrument}
                  leftHanded={leftHanded}
                  withNeighbours={kind === 'neighbours'}
                  symbol={typeset(chord.symbol)}
                  isHome={(pc) => home.pcs.includes(pc)}
                  nameOf={(pc) => intervalLabel(intervalOver(chord, pc))}
                />
              ))}
            </div>
          )}
        </section>
      ))}
    </>
  );
}

type GripProps = {
  shape: ChordShape;
  instrument: Instrument;
  leftHanded: boolean;
  withNeighbours: boolean;
  symbol: string;
  isHome: (pc: number) => boolean;
  nameOf: (pc: number) => string;
};

function Grip({ shape, instrument, leftHanded, withNeighbours, symbol, isHome, nameOf }: GripProps) {
  const strings = shape.frets.length;
  const { neighbours } = neighboursOf(shape.frets, instrument);
  const marks = new Map<string, NeckMark>();
  if (withNeighbours)
    for (const { string, fret } of neighbours)
      marks.set(`${string} ${fret}`, { string, fret, label: '', look: 'scale' });
  shape.frets.forEach((fret, low) => {
    if (fret === null) return;
    const pc = (elementAt(instrument.tuning, strings - 1 - low) + fret) % 12;
    marks.set(`${strings - low} ${fret}`, {
      string: strings - low,
      fret,
      label: nameOf(pc),
      look: isHome(pc) ? 'tone' : 'lacks',
    });
  });
  const fretted = shape.frets.filter((fret): fret is number => fret !== null && fret > 0);
  const from = Math.max(1, Math.min(...fretted, 20) - (withNeighbours ? 1 : 0));
  const to = Math.max(from + 3, Math.max(...fretted, 0) + (withNeighbours ? 2 : 0));
  const fingers = shape.fingers.map((finger) => (finger === null ? 'x' : finger)).join(' ');
  return (
    <figure>
      <NeckMap
        tuning={instrument.tuning}
        from={from}
        to={to}
        marks={[...marks.values()]}
        leftHanded={leftHanded}
        width={240}
        gap={21}
        size={12}
        label={`${symbol}: frets ${shape.frets.map((fret) => fret ?? 'silent').join(' ')} from the low string`}
      />
      <figcaption className="mt-1 font-mono text-[13px] text-dim">fingers {fingers}</figcaption>
    </figure>
  );
}
