'use client';
import { useCallback, useMemo } from 'react';
import {
  fromRoot,
  noteName,
  pitchClass,
  readChord,
  rootPc,
  type Chord,
  type Key,
  type Scale,
} from '@/core/music';
import { shapesNear, type Instrument } from '@/core/neck';
import { elementAt, modulo, unwrap } from '@/core/shared';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { RunOnPage } from '@/ui/page/RunOnPage';
import { degreeOver, type Study } from './studyView';

/** As many arpeggios as one sheet holds. */
const MOST_CHORDS = 8;

type Props = { study: Study; position: number; instrument: Instrument };

/** The home scale and the arpeggio of each chord as they lie nearest to a position, on staff and tablature. */
export function SheetRuns({ study, position, instrument }: Props) {
  const chords = useMemo(() => chordsOf(study), [study]);
  const [first] = chords;
  const home = study.plan.homeScales[0];
  if (!first || !home) return null;
  const rest = { position, instrument };
  return (
    <>
      <h2 className="mb-1 text-[20px] font-[620]">{home.name}</h2>
      <OneRun {...rest} chord={spellingOf(home)} musicalKey={first.musicalKey} pcs={home.pcs} />
      <div className="grid gap-x-8 sm:grid-cols-2">
        {chords.slice(0, MOST_CHORDS).map((one) => (
          <section key={one.chord.symbol} className="break-inside-avoid">
            <h3 className="text-[19px] font-[620]">
              <ChordSymbol symbol={one.chord.symbol} />
            </h3>
            <OneRun
              {...rest}
              {...one}
              pcs={fromRoot(
                one.chord,
                one.chord.tones.map(({ pc }) => pc),
              )}
            />
          </section>
        ))}
      </div>
      {chords.length > MOST_CHORDS && (
        <p className="text-soft">
          The first {MOST_CHORDS} of {chords.length} chords.
        </p>
      )}
    </>
  );
}

type RunProps = {
  pcs: readonly number[];
  chord: Chord;
  musicalKey: Key | null;
  position: number;
  instrument: Instrument;
};

function OneRun({ pcs, chord, musicalKey, position, instrument }: RunProps) {
  const [shape] = useMemo(() => shapesNear(pcs, position, { instrument }), [pcs, position, instrument]);
  const degreeOf = useCallback((pc: number) => degreeOver(chord, rootPc(chord), pc), [chord]);
  if (!shape) return <p className="text-soft">No hand plays it in one position.</p>;
  return (
    <RunOnPage
      touches={shape.run.touches}
      chord={chord}
      musicalKey={musicalKey}
      instrument={instrument}
      degreeOf={degreeOf}
      whole
    />
  );
}

/** A chord on the scale's root that spells its notes as the scale does: minor, dominant or major. */
function spellingOf({ root, pcs }: Scale): Chord {
  const has = (semitones: number) => pcs.includes(modulo(pitchClass(root) + semitones, 12));
  const major = has(11) ? 'maj7' : '7';
  return unwrap(readChord(`${noteName(root)}${has(3) && !has(4) ? 'm7' : major}`));
}

/** Each chord of the form once, in the order in which they come, with the key it stands in. */
function chordsOf({ cells, timeline }: Study): { chord: Chord; musicalKey: Key | null }[] {
  const found = new Map<string, { chord: Chord; musicalKey: Key | null }>();
  for (const { chord, index } of cells)
    if (chord && !found.has(chord.symbol))
      found.set(chord.symbol, { chord, musicalKey: elementAt(timeline.chordSpans, index).key });
  return [...found.values()];
}
