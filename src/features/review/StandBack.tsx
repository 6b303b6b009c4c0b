'use client';
import { useMemo } from 'react';
import type { LandingMark, Report } from '@/core/analyse';
import { typeset } from '@/core/music';
import { ChordWords } from '@/ui/ChordWords';
import type { FormChange } from './formChanges';
import { FormChangeColumn } from './FormChangeColumn';
import { elementAt } from '@/core/shared';

/** What is said of one change: soft, then bold. */
export function formChangeWords(
  formChange: FormChange,
  report: Report,
  marks: readonly LandingMark[],
): { soft: string; bold: string } {
  const judged = formChange.changes.filter((index) => marks[index] !== 'rest');
  const met = judged.filter((index) => marks[index] === 'target').length;
  const late = judged.filter((index) => marks[index] === 'target-late').length;
  const soft = typeset(
    `Into ${formChange.to} at bar ${formChange.bar}${formChange.beatInBar > 0 ? `, beat ${Math.round(formChange.beatInBar) + 1}` : ''}:`,
  );
  if (judged.length === 0) return { soft, bold: 'always at rest.' };
  let count: string;
  if (met === judged.length) {
    if (judged.length === 1) count = 'met';
    else count = 'met every time';
  } else if (met === 0) count = 'never met on time';
  else count = `met ${met} of ${judged.length} times`;
  return { soft, bold: `${count}${late > 0 ? `, ${late === 1 ? 'once' : `${late} times`} late` : ''}.` };
}

type Props = {
  report: Report;
  marks: readonly LandingMark[];
  formChanges: readonly FormChange[];
  open: number;
  sounding: number | null;
  onOpen: (index: number) => void;
};

/** The least room of the change that is looked at. */
const OPEN = 432;

/**
 * For two metres away: one row of four bars, its changes folded into counts, the one that is looked at wide
 * open.
 */
export function StandBack({ report, marks, formChanges, open, sounding, onOpen }: Props) {
  const formChange = formChanges[open];
  const row = useMemo(
    () =>
      formChange
        ? formChanges.map((one, index) => ({ one, index })).filter(({ one }) => one.row === formChange.row)
        : [],
    [formChanges, formChange],
  );
  if (!formChange)
    return <h1 className="m-8 text-[42px] leading-[54px] text-soft">No change was played in this take.</h1>;
  const words = formChangeWords(formChange, report, marks);
  const closed = Math.min(220, (1216 - OPEN) / Math.max(1, row.length - 1));
  const opened = Math.min(640, 1216 - closed * (row.length - 1));
  const widths = row.map(({ index }) => (index === open ? opened : closed));
  return (
    <div className="flex grow flex-col" data-testid="stand-back">
      <div className="mx-4 mt-5 flex flex-wrap items-baseline justify-between gap-x-6 sm:mx-8">
        <h1 className="text-[30px] leading-[40px] tracking-tight text-soft sm:text-[42px] sm:leading-[54px]">
          <ChordWords text={words.soft} />{' '}
          <b className="font-[640] text-ink">
            <ChordWords text={words.bold} />
          </b>
        </h1>
        <span className="text-xl text-dim">
          {report.summary.choruses} {report.summary.choruses === 1 ? 'chorus' : 'choruses'}
        </span>
      </div>
      <svg
        viewBox="0 100 1280 580"
        className="mx-auto hidden w-full max-w-[1600px] grow sm:block"
        role="img"
        aria-label={`${words.soft} ${words.bold}`}
      >
        {row.map(({ one, index }, place) => (
          <FormChangeColumn
            key={index}
            formChange={one}
            report={report}
            marks={marks}
            x={32 + widths.slice(0, place).reduce((sum, width) => sum + width, 0)}
            width={elementAt(widths, place)}
            isOpen={index === open}
            sounding={index === open ? sounding : null}
            choruses={report.summary.choruses}
            onOpen={() => onOpen(index)}
          />
        ))}
      </svg>
      <svg
        viewBox="0 100 470 580"
        className="w-full grow sm:hidden"
        role="img"
        aria-label={`${words.soft} ${words.bold}`}
      >
        <FormChangeColumn
          formChange={formChange}
          report={report}
          marks={marks}
          x={16}
          width={432}
          isOpen
          sounding={sounding}
          choruses={report.summary.choruses}
          onOpen={() => undefined}
        />
      </svg>
    </div>
  );
}
