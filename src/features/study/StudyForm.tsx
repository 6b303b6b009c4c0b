'use client';
import { useEffect, useRef } from 'react';
import { typeset } from '@/core/music';
import { StudyRow } from './StudyRow';
import { BAR, ROW, rowsOf } from './studyRows';
import type { Study } from './studyView';

type Props = {
  study: Study;
  selected: number;
  sounding: number | null;
  barsARow: number;
  onSelect: (index: number) => void;
};

/**
 * The form to read: chords with their degrees and what the home scale lacks, and the thread of thirds and
 * sevenths through them.
 */
export function StudyForm({ study, selected, sounding, barsARow, onSelect }: Props) {
  const rows = rowsOf(study, barsARow);
  const holder = useRef<HTMLDivElement>(null);
  const rowOf = rows.findIndex((row) => row.cells.some((cell) => cell.index === selected));
  useEffect(() => {
    const place = holder.current;
    if (!place || place.scrollHeight <= place.clientHeight) return;
    const scale = place.clientWidth / (barsARow * BAR + 8);
    const [top, bottom] = [rowOf * ROW * scale, (rowOf + 1) * ROW * scale];
    if (top < place.scrollTop || bottom > place.scrollTop + place.clientHeight)
      place.scrollTo({ top: Math.max(0, top - 8) });
  }, [rowOf, barsARow]);
  return (
    <div ref={holder} className="study-form overflow-x-hidden overflow-y-auto sm:max-h-[410px]" tabIndex={0}>
      <svg
        viewBox={`-4 0 ${barsARow * BAR + 8} ${rows.length * ROW + 4}`}
        className="w-full"
        role="group"
        aria-label="Form with the thread of thirds and sevenths"
      >
        {rows.map((row, place) => (
          <StudyRow
            key={row.first}
            row={row}
            y={place * ROW}
            study={study}
            selected={selected}
            sounding={sounding}
            onSelect={onSelect}
          />
        ))}
      </svg>
      <FormTable study={study} />
    </div>
  );
}

/** The same as a table, for readers. */
function FormTable({ study }: { study: Study }) {
  return (
    <div className="sr-only">
      <table>
        <caption>Chords of the form with their degrees</caption>
        <thead>
          <tr>
            <th>Bar</th>
            <th>Chord</th>
            <th>Degree</th>
            <th>Home scale lacks</th>
            <th>Rub tones</th>
          </tr>
        </thead>
        <tbody>
          {study.cells.map((cell) => (
            <tr key={cell.index}>
              <th scope="row">{cell.bar}</th>
              <td>{cell.chord ? typeset(cell.chord.symbol) : 'no chord'}</td>
              <td>{cell.degree}</td>
              <td>{cell.lacks.join(', ')}</td>
              <td>{cell.rubs.join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
