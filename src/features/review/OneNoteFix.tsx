'use client';
import { useMemo } from 'react';
import type { Report } from '@/core/analyse';
import { fingeringOf } from '@/core/findings';
import { typeset } from '@/core/music';
import { placesSounding, stringName } from '@/core/neck';
import { elementAt } from '@/core/shared';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { NeckMap } from '@/ui/neck/NeckMap';
import { KeyOf } from '../shell/commands/KeyOf';
import { noteNameIn } from './noteNames';
import type { FixAsked } from './places';

type Props = { report: Report; fix: FixAsked; onFix: (fix: FixAsked) => void };

/** The one-note fix: by how much, where it lies under the same hand, and a way to hear it. */
export function OneNoteFix({ report, fix, onFix }: Props) {
  const guitar = useGuitar();
  const note = elementAt(report.notes, fix.noteIndex);
  const from = Math.round(note.midi);
  const by = fix.toMidi - from;
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const { touchAt } = useMemo(() => fingeringOf(report, instrument), [report, instrument]);
  const place = touchAt(fix.noteIndex);
  const to =
    place &&
    (place.fret + by >= 0 && place.fret + by <= place.fret + 4
      ? { string: place.string, fret: place.fret + by }
      : placesSounding(fix.toMidi, instrument).sort(
          (a, b) => Math.abs(a.fret - place.fret) - Math.abs(b.fret - place.fret),
        )[0]);
  const [a, b] = [noteNameIn(report, fix.noteIndex), noteNameIn(report, fix.noteIndex, fix.toMidi)];
  return (
    <div className="mt-4 border-t border-line pt-2">
      <h3 className="text-sm font-[620] text-now">One-note fix</h3>
      <p className="text-[19px] leading-7">
        <b className="font-[640]">
          {a} to {b}
        </b>
        , {Math.abs(by) === 1 ? 'one fret' : `${Math.abs(by)} frets`} {by > 0 ? 'higher' : 'lower'}.
      </p>
      {place && to && (
        <div className="mt-1 max-w-[300px]">
          <NeckMap
            tuning={instrument.tuning}
            from={Math.max(1, Math.min(place.fret, to.fret) - 2)}
            to={Math.max(place.fret, to.fret) + 2}
            width={300}
            gap={17}
            size={11}
            leftHanded={guitar.leftHanded}
            label={`${a} on the ${typeset(stringName(elementAt(instrument.tuning, place.string - 1)))} string, fret ${place.fret}; ${b} at fret ${to.fret}`}
            marks={[
              { string: place.string, fret: place.fret, label: a, look: 'tone' },
              { string: to.string, fret: to.fret, label: b, look: 'lacks' },
            ]}
            arrows={
              place.string === to.string && Math.abs(place.fret - to.fret) > 1
                ? [{ string: place.string, from: place.fret, to: to.fret }]
                : []
            }
          />
        </div>
      )}
      <p className="mt-1 text-[15px]">
        <button type="button" className="font-[580] text-now hover:underline" onClick={() => onFix(fix)}>
          Hear the fix <KeyOf command="review.form.fix" className="ml-1" />
        </button>{' '}
        <span className="text-dim">your own sound, that note moved</span>
      </p>
    </div>
  );
}
