'use client';
import dynamic from 'next/dynamic';
import { useCallback, useMemo } from 'react';
import { fromRoot, intervalOver, noteName, spellOver, typeset, type Chord, type Key } from '@/core/music';
import { fretsOf, shapesNear, type Instrument, type ScaleLayout, type ScaleShape } from '@/core/neck';
import { elementAt, pitchClassOf } from '@/core/shared';
import { Select, Switch } from '@/ui/controls';
import { intervalLabel } from '@/ui/intervalLabel';
import { NeckMap, type NeckMark } from '@/ui/neck/NeckMap';
import { prefer, usePreferences, type ShapeChoice } from '../shell/preferences';
import { degreeOver, type Study, type StudyCell } from './studyView';

// the engraver comes when a page is asked for
const RunOnPage = dynamic(() => import('@/ui/page/RunOnPage').then((made) => made.RunOnPage));

type Props = { study: Study; index: number; position: number; instrument: Instrument; leftHanded: boolean };

const MATERIALS: readonly (readonly [ShapeChoice['material'], string])[] = [
  ['plan', 'what the plan plays'],
  ['chord', 'the chord’s tones'],
  ['home', 'the home scale'],
];
const LAYOUTS: readonly (readonly [ScaleLayout, string])[] = [
  ['position', 'under one hand'],
  ['two', 'two notes a string'],
  ['three', 'three notes a string'],
  ['one', 'one note a string'],
  ['octave', 'one octave from the root'],
  ['string', 'along one string'],
];
const LABELS: readonly (readonly [ShapeChoice['labels'], string])[] = [
  ['intervals', 'intervals'],
  ['fingers', 'fingers'],
  ['notes', 'note names'],
];

/** The movable shapes of a scale or an arpeggio over the chosen chord, by number, the nearest to the hand first. */
export function ScaleShapesView({ study, index, position, instrument, leftHanded }: Props) {
  const { shapes: choice } = usePreferences();
  const choose = (change: Partial<ShapeChoice>) => prefer({ shapes: { ...choice, ...change } });
  const cell = elementAt(study.cells, index);
  const home = elementAt(study.plan.homeScales, index);
  const { layout, reach, material } = choice;
  const pcs = useMemo(() => materialOf(cell, home.pcs, material), [cell, home.pcs, material]);
  const shapes = useMemo(
    () => shapesNear(pcs, position, { instrument, layout, reach }),
    [pcs, instrument, layout, reach, position],
  );
  if (!cell.chord) return <p className="text-soft">No chord sounds here.</p>;
  return (
    <div>
      <p className="mb-2 flex flex-wrap items-center gap-x-5 gap-y-2 text-[15px] text-soft">
        <Select
          label="What lies on the neck"
          look="line"
          value={material}
          options={MATERIALS}
          onChange={(value) => choose({ material: value })}
        />
        <Select
          label="How it is laid out"
          look="line"
          value={layout}
          options={LAYOUTS}
          onChange={(value) => choose({ layout: value })}
        />
        <label>
          dots say{' '}
          <Select
            label="Dots say"
            look="line"
            value={choice.labels}
            options={LABELS}
            onChange={(value) => choose({ labels: value })}
          />
        </label>
        <label className="flex items-center gap-2">
          <Switch checked={reach} onChange={(value) => choose({ reach: value })} /> fingers may reach
        </label>
        <label className="flex items-center gap-2">
          <Switch checked={choice.page} onChange={(page) => choose({ page })} /> staff and tablature
        </label>
      </p>
      <p className="mb-4 text-[15px] text-dim">{numbering(layout)}</p>
      {shapes.length === 0 && <p className="text-soft">No hand plays it like this. Another layout does.</p>}
      <div className="grid gap-x-8 gap-y-5 sm:grid-cols-2">
        {shapes.map((shape) => (
          <Shape
            key={shape.number}
            shape={shape}
            root={elementAt(pcs, 0)}
            chord={cell.chord!}
            labels={choice.labels}
            instrument={instrument}
            leftHanded={leftHanded}
            musicalKey={choice.page ? elementAt(study.timeline.chordSpans, index).key : undefined}
          />
        ))}
      </div>
    </div>
  );
}

/** Pitch classes from the root up: the chord's, where it belongs to them, else the scale's own. */
function materialOf(cell: StudyCell, home: readonly number[], material: ShapeChoice['material']): number[] {
  if (material === 'home') return [...home];
  const { chord, plan } = cell;
  if (!chord) return [...plan.material];
  return fromRoot(chord, material === 'chord' ? chord.tones.map(({ pc }) => pc) : plan.material);
}

function numbering(layout: ScaleLayout): string {
  if (layout === 'octave' || layout === 'string') return 'A shape for each string it begins on.';
  return 'Shapes are numbered by the note they begin with on the lowest string: shape 1 begins with the root.';
}

type ShapeProps = {
  shape: ScaleShape;
  root: number;
  chord: Chord;
  labels: ShapeChoice['labels'];
  instrument: Instrument;
  leftHanded: boolean;
  /** The key it is written in on staff and tablature; undefined: it is not written. */
  musicalKey: Key | null | undefined;
};

function Shape({ shape, root, chord, labels, instrument, leftHanded, musicalKey }: ShapeProps) {
  const { touches } = shape.run;
  const tones = chord.tones.map(({ pc }) => pc);
  const look = (pc: number): NeckMark['look'] => {
    if (pc === root) return 'lacks';
    return tones.includes(pc) ? 'tone' : 'neighbour';
  };
  const say = {
    intervals: (pc: number) => intervalLabel(intervalOver(chord, pc)),
    notes: (pc: number) => typeset(noteName(spellOver(chord, pc))),
    fingers: (_: number, finger: number) => String(finger),
  }[labels];
  const degreeUnder = useCallback((pc: number) => degreeOver(chord, root, pc), [chord, root]);
  const marks = touches.map(({ string, fret, finger, midi }): NeckMark => {
    const pc = pitchClassOf(midi);
    return { string, fret, label: say(pc, finger), look: look(pc) };
  });
  const [from, to] = fretsOf(shape.run);
  return (
    <figure>
      <figcaption className="heading">{captionOf(shape)}</figcaption>
      <NeckMap
        tuning={instrument.tuning}
        from={from}
        to={Math.max(from + 4, to)}
        marks={marks}
        links={[touches]}
        leftHanded={leftHanded}
        width={400}
        gap={24}
        size={12.5}
        label={`${captionOf(shape)}: ${touches.map((touch) => `string ${touch.string} fret ${touch.fret} finger ${touch.finger}`).join(', ')}`}
      />
      {musicalKey !== undefined && (
        <RunOnPage
          touches={touches}
          chord={chord}
          musicalKey={musicalKey}
          instrument={instrument}
          degreeOf={degreeUnder}
        />
      )}
      {shape.run.shifts.length > 0 && (
        <p className="mt-1 text-[15px] text-soft">
          The hand moves at{' '}
          {shape.run.shifts
            .map((index) => elementAt(touches, index))
            .map(({ string, fret }) => `fret ${fret} on string ${string}`)
            .join(' and ')}
          .
        </p>
      )}
    </figure>
  );
}

function captionOf({ number, rootString, run: { reaches } }: ScaleShape): string {
  const root = rootString === null ? 'no root' : `root on string ${rootString}`;
  const reach = reaches === 0 ? '' : `, ${reaches} ${reaches === 1 ? 'reach' : 'reaches'}`;
  return `Shape ${number}, ${root}${reach}`;
}
