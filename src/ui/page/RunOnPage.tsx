'use client';
import { useCallback, useMemo } from 'react';
import type { Chord, Key } from '@/core/music';
import type { Instrument, RunTouch } from '@/core/neck';
import { pitchClassOf } from '@/core/shared';
import type { DegreeUnder } from './reportPage';
import { runBars } from './runBars';
import { ScoreList } from './ScoreList';
import { ScorePage } from './ScorePage';

type Props = {
  touches: readonly RunTouch[];
  chord: Chord;
  musicalKey: Key | null;
  instrument: Instrument;
  /** What stands under a note, by its pitch class. */
  degreeOf: (pc: number) => DegreeUnder;
  /** Draws what is not in sight too: for print. */
  whole?: boolean;
};

/** A scale or an arpeggio as its shape lies: in eighths from the lowest note, each on the string the shape has it on. */
export function RunOnPage({ touches, chord, musicalKey, instrument, degreeOf, whole = false }: Props) {
  const bars = useMemo(() => runBars(touches, chord, musicalKey), [touches, chord, musicalKey]);
  const under = useCallback(
    (index: number) => {
      const touch = touches[index];
      return touch ? degreeOf(pitchClassOf(touch.midi)) : null;
    },
    [touches, degreeOf],
  );
  return (
    <>
      <ScorePage bars={bars} strings={instrument.tuning.length} withStaff whole={whole} degreeOf={under} />
      <ScoreList bars={bars} degreeOf={(index) => under(index)?.label ?? ''} />
    </>
  );
}
