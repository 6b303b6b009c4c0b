'use client';
import { useMemo } from 'react';
import type { LandingMark, Report } from '@/core/analyse';
import type { Timeline } from '@/core/chart';
import { intervalWord, typeset } from '@/core/findings';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';
import { ChordWords } from '@/ui/ChordWords';
import { GateLine } from '@/ui/form/Gate';
import { Pill } from '@/ui/form/Pill';
import { intervalLabel } from '@/ui/intervalLabel';
import type { FormChange } from './formChanges';
import { elementAt, present } from '@/core/shared';

type Group = {
  readonly mark: LandingMark;
  readonly interval: string | null;
  readonly height: number;
  readonly count: number;
  readonly choruses: readonly number[];
  /** The target it came to late. */ readonly then: string | null;
};

const ORDER: readonly LandingMark[] = ['target', 'target-late', 'chord-tone', 'not-met', 'rest'];
/** More groups than this are joined by their mark. */
const MOST_GROUPS = 5;

function groupsOf(formChange: FormChange, report: Report, marks: readonly LandingMark[]): Group[] {
  const of = (key: (index: number) => string) => {
    const found = new Map<string, number[]>();
    for (const index of formChange.changes) found.set(key(index), [...(found.get(key(index)) ?? []), index]);
    return [...found.values()]
      .map((indices): Group => {
        const { landing } = present(report.changes[elementAt(indices, 0)]);
        const same = indices.every(
          (index) => elementAt(report.changes, index).landing.interval === landing.interval,
        );
        const late = indices
          .map((index) => elementAt(report.changes, index).landing.resolutionIndex)
          .map((at) => (at === undefined ? null : present(report.notes[at]).interval));
        return {
          mark: present(marks[elementAt(indices, 0)]),
          interval: same ? landing.interval : null,
          height: { target: 0, 'chord-tone': 0, colour: 1, scale: 2 }[landing.verdict as string] ?? 4,
          count: indices.length,
          choruses: indices.map((index) => elementAt(report.changes, index).chorus),
          then:
            marks[elementAt(indices, 0)] === 'target-late' && late.every((one) => one === late[0])
              ? (late[0] ?? null)
              : null,
        };
      })
      .sort((a, b) => ORDER.indexOf(a.mark) - ORDER.indexOf(b.mark) || b.count - a.count);
  };
  const fine = of((index) => `${marks[index]} ${elementAt(report.changes, index).landing.interval}`);
  return fine.length > MOST_GROUPS ? of((index) => elementAt(marks, index)) : fine;
}

const WORDS: Record<LandingMark, string> = {
  target: 'target',
  'target-late': 'target, late',
  'chord-tone': 'chord tone',
  'not-met': 'not met',
  rest: 'at rest',
};

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
  timeline: Timeline;
  formChanges: readonly FormChange[];
  open: number;
  sounding: number | null;
  onOpen: (index: number) => void;
};

const TOP = 258;
const TALL = 356;
/** The least room of the change that is looked at. */
const OPEN = 432;

/**
 * For two metres away: one row of four bars, its changes folded into counts, the one that is looked at wide
 * open.
 */
export function StandBack({ report, marks, timeline, formChanges, open, sounding, onOpen }: Props) {
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
            timeline={timeline}
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
          timeline={timeline}
        />
      </svg>
    </div>
  );
}

type ColumnProps = {
  formChange: FormChange;
  report: Report;
  marks: readonly LandingMark[];
  timeline: Timeline;
  x: number;
  width: number;
  isOpen: boolean;
  sounding: number | null;
  choruses: number;
  onOpen: () => void;
};

function FormChangeColumn({
  formChange,
  report,
  marks,
  x,
  width,
  isOpen,
  sounding,
  choruses,
  onOpen,
}: ColumnProps) {
  const groups = groupsOf(formChange, report, marks);
  const total = formChange.changes.length;
  // the room of a group is its share, but never less than its numeral needs
  const least = Math.min(TALL / groups.length, 84);
  const spare = TALL - least * groups.length;
  const heights = groups.map(({ count }) => least + (spare * count) / total);
  const size = Math.min(isOpen ? 92 : 52, (width - (isOpen ? 200 : 14)) / chordWidth(formChange.to));
  return (
    <g onClick={onOpen} className={isOpen ? undefined : 'cursor-pointer'}>
      {isOpen && (
        <>
          <rect x={x - 2} y={128} width={width - 16} height={494} fill="var(--row)" />
          <rect x={x - 2} y={621} width={width - 16} height={6} fill="var(--now)" />
        </>
      )}
      {!isOpen && <line x1={x - 2} y1={624} x2={x + width - 22} y2={624} stroke="var(--line)" />}
      <ChordSvg
        x={x + (isOpen ? 8 : 2)}
        y={218}
        symbol={formChange.to}
        size={size}
        fill={isOpen ? 'var(--ink)' : 'var(--soft)'}
      />
      {isOpen && sounding !== null && (
        <text x={x + width - 30} y={166} fontSize={22} textAnchor="end" style={{ fill: 'var(--dim)' }}>
          sounding
        </text>
      )}
      {isOpen &&
        Array.from({ length: Math.min(choruses, 8) }, (_, chorus) => (
          <text
            key={chorus}
            x={x + width - 30 - (Math.min(choruses, 8) - 1 - chorus) * 38}
            y={220}
            fontSize={34}
            fontWeight={560}
            textAnchor="end"
            style={{ fill: sounding === chorus ? 'var(--now)' : 'var(--dim)' }}
          >
            {chorus + 1}
          </text>
        ))}
      {groups.map((group, place) => {
        const tall = elementAt(heights, place);
        const y = TOP + TALL - heights.slice(0, place + 1).reduce((sum, one) => sum + one, 0);
        const middle = y + tall / 2;
        const strong = group.mark === 'target' || group.mark === 'target-late';
        const pill = isOpen ? { x: x + 38, w: 74, h: 46, size: 26 } : { x: x + 14, w: 50, h: 32, size: 21 };
        const sounds = sounding !== null && group.choruses.includes(sounding + 1);
        return (
          <g key={place}>
            <GateLine
              x={x + (isOpen ? 12 : 6)}
              from={y + 2}
              to={y + tall - 3}
              mark={group.mark}
              scale={isOpen ? 3 : 2.4}
            />
            {group.interval !== null ? (
              <Pill
                x={pill.x}
                y={middle}
                width={pill.w}
                height={pill.h}
                tier={group.height}
                label={intervalLabel(group.interval)}
                size={pill.size}
              />
            ) : (
              <text
                x={pill.x + pill.w / 2}
                y={middle + 8}
                fontSize={pill.size}
                textAnchor="middle"
                style={{ fill: 'var(--dim)' }}
              >
                –
              </text>
            )}
            {sounds && (
              <rect
                x={pill.x - 6}
                y={middle - pill.h / 2 - 6}
                width={pill.w + 12}
                height={pill.h + 12}
                rx={pill.h / 2 + 6}
                fill="none"
                stroke="var(--now)"
                strokeWidth={3.5}
              />
            )}
            <text
              x={x + (isOpen ? 160 : 92)}
              y={middle + (isOpen ? 36 : 26)}
              fontSize={isOpen ? 108 : 76}
              fontWeight={640}
              textAnchor="middle"
              style={{ fill: strong ? 'var(--ink)' : 'var(--soft)' }}
            >
              {group.count}
            </text>
            {isOpen && (
              <>
                <text
                  x={x + 206}
                  y={middle - 4}
                  fontSize={28}
                  fontWeight={640}
                  style={{ fill: 'var(--ink)' }}
                >
                  {group.interval === null ? WORDS[group.mark] : intervalWord(group.interval)}
                </text>
                {group.interval !== null && (
                  <text x={x + 206} y={middle + 28} fontSize={22} style={{ fill: 'var(--soft)' }}>
                    {group.then === null ? WORDS[group.mark] : `then ${intervalWord(group.then)}: late`}
                  </text>
                )}
              </>
            )}
          </g>
        );
      })}
      <text
        x={x + (isOpen ? 10 : 4)}
        y={660}
        fontSize={22}
        fontWeight={isOpen ? 560 : 400}
        style={{ fill: isOpen ? 'var(--ink)' : 'var(--dim)' }}
      >
        {formChange.beatInBar > 0 && !isOpen
          ? `beat ${Math.round(formChange.beatInBar) + 1}`
          : `bar ${formChange.bar}${formChange.beatInBar > 0 ? `, beat ${Math.round(formChange.beatInBar) + 1}` : ''}`}
      </text>
    </g>
  );
}
