'use client';
import { useMemo } from 'react';
import type { Report } from '@/core/analyse';
import { noteName, readChord, spellOver, typeset } from '@/core/music';
import { pathOf } from '@/core/neck';
import { pitchClassOf, unwrap } from '@/core/shared';
import { instrumentOf, useGuitar } from '../instrument';
import { NeckMap, type NeckMark } from './NeckMap';

type Props = {
  report: Report;
  /** The beat that sounds; null where nothing does. */
  beat: number | null;
  name: string;
};

/** Where a line lies: the places of the bar that is heard, or of the first four. */
export function LineOnNeck({ report, beat, name }: Props) {
  const guitar = useGuitar();
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const notes = useMemo(() => report.notes.filter(({ top }) => top), [report]);
  const path = useMemo(
    () =>
      pathOf(
        notes.map(({ onsetBeat, durationBeats, midi, position }) => ({
          onsetBeat,
          durationBeats,
          midi: Math.round(midi),
          position,
        })),
        { instrument },
      ),
    [notes, instrument],
  );
  if (!path.ok) return null;
  const from = beat === null ? 0 : Math.floor(beat / 4) * 4;
  const marks = new Map<string, NeckMark>();
  notes.forEach((note, index) => {
    const place = path.value.path[index];
    if (!place || note.onsetBeat < from - 0.2 || note.onsetBeat >= from + (beat === null ? 16 : 4)) return;
    marks.set(`${place.string} ${place.fret}`, {
      string: place.string,
      fret: place.fret,
      label: note.chord
        ? typeset(noteName(spellOver(unwrap(readChord(note.chord)), pitchClassOf(Math.round(note.midi)))))
        : '',
      look: lookOf(note.height),
    });
  });
  const frets = [...marks.values()].map(({ fret }) => fret).filter((fret) => fret > 0);
  if (frets.length === 0) return null;
  const low = Math.max(1, Math.min(...frets));
  return (
    <div className="mt-3 max-w-[520px]">
      <NeckMap
        tuning={instrument.tuning}
        from={low}
        to={Math.max(low + 4, ...frets)}
        marks={[...marks.values()]}
        leftHanded={guitar.leftHanded}
        width={520}
        gap={24}
        label={`${name} on the neck, frets ${low} to ${Math.max(...frets)}`}
        size={12}
      />
    </div>
  );
}

function lookOf(height: number): 'tone' | 'scale' | 'neighbour' {
  if (height === 0) return 'tone';
  return height <= 2 ? 'scale' : 'neighbour';
}
