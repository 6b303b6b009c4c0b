'use client';
import { useMemo, useState } from 'react';
import { noteName, spellOver, typeset, type Chord } from '@/core/music';
import { scalePairs, type Instrument, type PairKind, type ScalePair } from '@/core/neck';
import { elementAt, pitchClassOf } from '@/core/shared';
import { Select } from '@/ui/controls';
import { NeckMap, type NeckMark } from '@/ui/neck/NeckMap';
import type { Study } from './studyView';

type Props = { study: Study; index: number; instrument: Instrument; leftHanded: boolean };

const KINDS: readonly (readonly [PairKind, string])[] = [
  ['thirds', 'in thirds'],
  ['fourths', 'in fourths'],
  ['sixths', 'in sixths'],
  ['tenths', 'in tenths'],
];
/** Past the fifteenth fret it begins again. */
const LAST_FRET = 15;

/** The plan's notes two at a time along each pair of strings. */
export function PairsView({ study, index, instrument, leftHanded }: Props) {
  const [kind, setKind] = useState<PairKind>('thirds');
  const { chord, plan } = elementAt(study.cells, index);
  const { material } = plan;
  const sets = useMemo(
    () =>
      scalePairs(
        [...material].sort((a, b) => a - b),
        kind,
        instrument,
      ),
    [material, kind, instrument],
  );
  if (!chord) return <p className="text-soft">No chord sounds here.</p>;
  return (
    <div>
      <p className="mb-3 text-[15px] text-soft">
        what the plan plays,{' '}
        <Select label="How far apart" look="line" value={kind} options={KINDS} onChange={setKind} />
      </p>
      {sets.map(({ strings, pairs }) => (
        <figure key={strings.join(' ')} className="mb-5">
          <figcaption className="heading">strings {strings.join(' and ')}</figcaption>
          <PairsOnNeck
            strings={strings}
            pairs={pairs}
            chord={chord}
            instrument={instrument}
            leftHanded={leftHanded}
          />
        </figure>
      ))}
    </div>
  );
}

type PairsProps = {
  strings: readonly [number, number];
  pairs: readonly ScalePair[];
  chord: Chord;
  instrument: Instrument;
  leftHanded: boolean;
};

function PairsOnNeck({ strings, pairs, chord, instrument, leftHanded }: PairsProps) {
  const tones = chord.tones.map(({ pc }) => pc);
  const nameOf = (midi: number) => typeset(noteName(spellOver(chord, pitchClassOf(midi))));
  const markOf = (string: number, { fret, midi }: { fret: number; midi: number }): NeckMark => ({
    string,
    fret,
    label: nameOf(midi),
    look: tones.includes(pitchClassOf(midi)) ? 'tone' : 'neighbour',
  });
  const shown = pairs.filter(({ low, high }) => Math.max(low.fret, high.fret) <= LAST_FRET);
  return (
    <NeckMap
      tuning={strings.map((string) => elementAt(instrument.tuning, string - 1))}
      from={1}
      to={Math.min(LAST_FRET, instrument.frets)}
      marks={shown.flatMap(({ low, high }) => [markOf(1, high), markOf(2, low)])}
      links={shown.map(({ low, high }) => [
        { string: 1, fret: high.fret },
        { string: 2, fret: low.fret },
      ])}
      leftHanded={leftHanded}
      width={860}
      gap={30}
      size={12.5}
      names
      label={`Strings ${strings.join(' and ')}: ${shown
        .map(
          ({ low, high }) =>
            `${nameOf(low.midi)} at fret ${low.fret} with ${nameOf(high.midi)} at ${high.fret}`,
        )
        .join('; ')}`}
    />
  );
}
