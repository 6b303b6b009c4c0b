'use client';
import { useEffect, useMemo, useState } from 'react';
import { ask } from '@/audio/persistence/serverTakes';
import type { Judgement } from '@/core/review';
import { judgeTake } from '@/core/review';
import { compareTakes, type Comparison } from '@/core/findings';
import { PLANS, PLAN_IDS, planFromWords, type PlanId, type PlanWords } from '@/core/plan';
import { readChart, timelineOf, type Timeline } from '@/core/chart';
import { ChordSvg, ChordSymbol } from '@/ui/ChordSymbol';
import { ChordWords } from '@/ui/ChordWords';
import { FormLane } from '@/ui/form/FormLane';
import { GUTTER, rowGeometry, type LaneSpec } from '@/ui/form/geometry';
import { formRows } from '@/ui/form/formRows';
import { takeOnForm } from '@/ui/form/takeOnForm';
import { caseOf, type ReviewData } from './useReview';
import { present, elementAt } from '@/core/shared';

/** Another take of the same form. */
export type SiblingTake = {
  readonly id: string;
  readonly number: number;
  readonly when: string;
  readonly tempo: number;
};
type Props = {
  data: ReviewData;
  judgement: Judgement;
  siblings: readonly SiblingTake[];
  onHear: (beat: number) => void;
};

/** What stands beside the take: other takes, or the same one judged otherwise. */
type Side = {
  readonly name: string;
  readonly sub: string;
  readonly judgement: Pick<Judgement, 'report' | 'marks'>;
};
const MOST = 4;

/**
 * Takes of one form one over the other, or one take judged in two ways: what differs, and whether it is more
 * than chance.
 */
export function CompareView({ data, judgement, siblings: kin, onHear }: Props) {
  const [chosen, setChosen] = useState<readonly string[]>(() => kin.slice(0, 1).map(({ id }) => id));
  const [loaded, setLoaded] = useState<ReadonlyMap<string, ReviewData>>(new Map());
  const [trouble, setTrouble] = useState<string | null>(null);
  const [other, setOther] = useState<Otherwise | null>(null);
  const missing = chosen.find((id) => !loaded.has(id));
  useEffect(() => {
    if (missing === undefined) return;
    let gone = false;
    ask<ReviewData>(`/api/takes/${missing}`)
      .then((review) => {
        if (!gone) setLoaded((now) => new Map(now).set(missing, review));
      })
      .catch(() => {
        if (!gone) {
          setTrouble('That take could not be fetched. Choose it again.');
          setChosen((now) => now.filter((id) => id !== missing));
        }
      });
    return () => {
      gone = true;
    };
  }, [missing]);
  const toggle = (id: string) => {
    setTrouble(null);
    setOther(null);
    setChosen((now) =>
      now.includes(id) ? now.filter((one) => one !== id) : [...now, id].slice(-(MOST - 1)),
    );
  };
  const otherwise = useMemo(() => (other ? judgedOtherwise(data, other) : null), [data, other]);
  const sides = useMemo((): Side[] => {
    const own: Side = { name: `take ${data.take.number}`, sub: data.take.when, judgement };
    if (otherwise)
      return [
        { ...own, sub: `by ${PLANS[data.take.plan.id].short}` },
        ...(otherwise.ok ? [{ name: 'otherwise', sub: otherwise.name, judgement: otherwise.judgement }] : []),
      ];
    return [
      ...kin
        .filter(({ id }) => chosen.includes(id) && loaded.has(id))
        .map((one): Side => ({
          name: `take ${one.number}`,
          sub: `${one.when}, at ${one.tempo}`,
          judgement: present(loaded.get(one.id)),
        })),
      own,
    ].sort((a, b) => Number(a.name.slice(5)) - Number(b.name.slice(5)));
  }, [data, judgement, kin, chosen, loaded, otherwise]);
  const comparison = useMemo(
    () =>
      sides.length > 1
        ? compareTakes(
            sides.map((side) => side.judgement),
            judgement.timeline.formBeats,
          )
        : null,
    [sides, judgement],
  );
  return (
    <>
      {comparison ? (
        <h1 className="mb-4 text-[22px] leading-[30px] font-[480] tracking-tight text-soft sm:text-[25px] sm:leading-8">
          <ChordWords text={comparison.soft} />
          <br />
          <b className="font-[620] text-ink">
            <ChordWords text={comparison.bold} />
          </b>
        </h1>
      ) : (
        <h1 className="mb-4 text-[25px] leading-8 font-[480] text-soft">
          {kin.length === 0
            ? 'This is the only take of its form so far. '
            : 'Choose a take to hold beside this one. '}
          <b className="font-[620] text-ink">Or judge it by another plan.</b>
        </h1>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-6 lg:grid-cols-[minmax(0,856fr)_minmax(280px,304fr)]">
        <div className="min-w-0">
          {comparison && (
            <Bands sides={sides} comparison={comparison} timeline={judgement.timeline} onHear={onHear} />
          )}
        </div>
        <aside className="min-w-0">
          {comparison && <Differences comparison={comparison} sides={sides} />}
          {kin.length > 0 && (
            <fieldset className="mt-5 border-t border-line pt-3">
              <legend className="sr-only">Takes of this form</legend>
              <h2 className="heading">Takes of this form</h2>
              <div className="max-h-44 overflow-y-auto">
                {kin.map((one) => (
                  <label key={one.id} className="flex gap-2.5 py-1 text-[15px]">
                    <input
                      type="checkbox"
                      checked={!other && chosen.includes(one.id)}
                      onChange={() => toggle(one.id)}
                    />
                    <b className="font-[620]">{one.number}</b>
                    <span className="text-dim">
                      {one.when}, at {one.tempo}
                    </span>
                  </label>
                ))}
              </div>
            </fieldset>
          )}
          <JudgeOtherwise data={data} value={other} onChange={setOther} />
          {otherwise && !otherwise.ok && (
            <p role="alert" className="mt-2 border-l-[3px] border-now pl-3 text-[15px] text-ink">
              {otherwise.message}
            </p>
          )}
          {trouble && (
            <p role="alert" className="mt-2 border-l-[3px] border-now pl-3 text-[15px] text-ink">
              {trouble}
            </p>
          )}
        </aside>
      </div>
    </>
  );
}

type Otherwise = { readonly plan: PlanWords; readonly chartText: string; readonly shiftMs: number };

function judgedOtherwise(
  data: ReviewData,
  { plan, chartText, shiftMs }: Otherwise,
): { ok: true; judgement: Judgement; name: string } | { ok: false; message: string } {
  const chart = readChart(chartText);
  if (!chart.ok) return { ok: false, message: `This chart cannot be read: ${chart.problems[0].message}` };
  const readPlan = planFromWords(plan);
  if (!readPlan.ok) return { ok: false, message: readPlan.problems[0].message };
  const beats = timelineOf(chart.value, 120).formBeats;
  const own = readChart(data.take.chartText);
  if (own.ok && timelineOf(own.value, 120).formBeats !== beats)
    return {
      ok: false,
      message: `The other chart has ${beats} beats, this one ${timelineOf(own.value, 120).formBeats}: they must be as long.`,
    };
  const differs = [
    plan.id !== data.take.plan.id || plan.home !== data.take.plan.home
      ? `by ${PLANS[plan.id].short}${plan.home ? `, home ${plan.home}` : ''}`
      : '',
    chartText !== data.take.chartText ? 'over other chords' : '',
    shiftMs !== 0 ? `${Math.abs(shiftMs)} ms ${shiftMs > 0 ? 'later' : 'earlier'}` : '',
  ]
    .filter(Boolean)
    .join(', ');
  return {
    ok: true,
    name: differs || 'the same',
    judgement: judgeTake({
      ...caseOf(data, data.edits),
      plan,
      chartText,
      offsetSec: data.take.offsetSec - shiftMs / 1000,
    }),
  };
}

/**
 * The same notes by another plan, over other chords, or begun elsewhere: nothing is kept, it only stands
 * beside.
 */
function JudgeOtherwise({
  data,
  value,
  onChange,
}: {
  data: ReviewData;
  value: Otherwise | null;
  onChange: (value: Otherwise | null) => void;
}) {
  const now = value ?? { plan: data.take.plan, chartText: data.take.chartText, shiftMs: 0 };
  const [text, setText] = useState(data.take.chartText);
  const [home, setHome] = useState(data.take.plan.home ?? '');
  return (
    <section aria-label="Judge it otherwise" className="mt-5 border-t border-line pt-3">
      <h2 className="heading">Judge it otherwise</h2>
      <label className="grid grid-cols-[84px_1fr] items-center gap-2 py-1 text-[15px] text-dim">
        Plan
        <select
          className="field !py-1 text-ink"
          value={now.plan.id}
          onChange={(event) =>
            onChange({ ...now, plan: { id: event.target.value as PlanId, ...(home ? { home } : {}) } })
          }
        >
          {PLAN_IDS.map((id) => (
            <option key={id} value={id}>
              {PLANS[id].name}
            </option>
          ))}
        </select>
      </label>
      <label className="grid grid-cols-[84px_1fr] items-center gap-2 py-1 text-[15px] text-dim">
        Home scale
        <input
          className="field !py-1 text-ink"
          placeholder="as the plan has it"
          value={home}
          onChange={(event) => setHome(event.target.value)}
          onBlur={() => {
            if (home !== (now.plan.home ?? '')) {
              const { home: _home, ...plan } = now.plan;
              onChange({ ...now, plan: { ...plan, ...(home.trim() ? { home: home.trim() } : {}) } });
            }
          }}
        />
      </label>
      <label className="grid grid-cols-[84px_1fr] items-center gap-2 py-1 text-[15px] text-dim">
        Start
        <span className="flex items-center gap-2">
          <input
            type="number"
            step={10}
            className="field w-24 !py-1 text-ink"
            value={now.shiftMs}
            onChange={(event) =>
              onChange({
                ...now,
                shiftMs: Math.max(-5000, Math.min(5000, Math.round(Number(event.target.value) || 0))),
              })
            }
          />{' '}
          ms later
        </span>
      </label>
      <details className="mt-1 text-[15px]">
        <summary className="cursor-pointer text-dim hover:text-ink">Over other chords</summary>
        <textarea
          aria-label="Other chords"
          className="field mt-1 h-32 w-full font-mono text-sm text-ink"
          spellCheck={false}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => {
            if (text !== now.chartText) onChange({ ...now, chartText: text });
          }}
        />
      </details>
      {value && (
        <button
          type="button"
          className="quiet mt-2"
          onClick={() => {
            setText(data.take.chartText);
            setHome(data.take.plan.home ?? '');
            onChange(null);
          }}
        >
          Back to the takes
        </button>
      )}
    </section>
  );
}

const WIDTH = 856;
const LEFT = 92;
const LANE = 22;
const HEAD = 30;

function Bands({
  sides,
  comparison,
  timeline,
  onHear,
}: {
  sides: readonly Side[];
  comparison: Comparison;
  timeline: Timeline;
  onHear: (beat: number) => void;
}) {
  const rows = useMemo(() => formRows(timeline), [timeline]);
  const drawn = useMemo(
    () => sides.map(({ judgement: { report, marks } }) => takeOnForm(report, marks)),
    [sides],
  );
  const choruses = sides.map(({ judgement: { report } }) => report.summary.choruses);
  const tall = HEAD + choruses.reduce((sum, count) => sum + count * LANE + 10, 0) + 12;
  return (
    <div className="overflow-x-auto">
      <div className="min-w-[680px]">
        {rows.map((row) => {
          const geometry = rowGeometry(row, WIDTH - LEFT);
          const x = (beat: number) => geometry.x(beat) + LEFT;
          return (
            <svg
              key={row.index}
              viewBox={`0 0 ${WIDTH} ${tall}`}
              className="block w-full"
              role="img"
              aria-label={`Bars ${elementAt(row.bars, 0).number} to ${elementAt(row.bars, row.bars.length - 1).number}, one take over the other; the table beside says what differs`}
            >
              {row.chords.map((chord) => {
                const formChange = comparison.byChange.find(
                  ({ beat }) => Math.abs(beat - chord.start) < 1e-3,
                );
                const counts = formChange?.rates.map(({ met, of }) => (of === 0 ? '–' : String(met)));
                const same = counts && new Set(counts).size === 1;
                return (
                  <g key={chord.start}>
                    <line
                      x1={x(chord.start)}
                      y1={4}
                      x2={x(chord.start)}
                      y2={tall - 16}
                      stroke={chord.changes ? 'var(--dim)' : 'var(--line)'}
                    />
                    <ChordSvg
                      x={x(chord.start) + 8}
                      y={21}
                      symbol={chord.symbol}
                      size={Math.max(10, Math.min(19, (x(chord.end) - x(chord.start) - 50) / 2.4))}
                      fill={chord.changes ? 'var(--ink)' : 'var(--soft)'}
                    />
                    {counts && x(chord.end) - x(chord.start) > 66 && (
                      <text
                        x={x(chord.end) - 8}
                        y={20}
                        fontSize={14}
                        fontWeight={same ? 400 : 660}
                        textAnchor="end"
                        style={{ fill: same ? 'var(--dim)' : 'var(--ink)' }}
                      >
                        {same ? counts[0] : counts.join(' → ')}
                      </text>
                    )}
                  </g>
                );
              })}
              {sides.map((side, place) => {
                const top =
                  HEAD + choruses.slice(0, place).reduce((sum, count) => sum + count * LANE + 10, 0);
                return (
                  <g key={side.name} transform={`translate(${LEFT} ${top})`}>
                    <text
                      x={-LEFT}
                      y={16}
                      fontSize={14}
                      fontWeight={place === sides.length - 1 ? 640 : 480}
                      style={{ fill: place === sides.length - 1 ? 'var(--ink)' : 'var(--soft)' }}
                    >
                      {side.name}
                    </text>
                    {row.index === 0 &&
                      side.sub
                        .split(', ')
                        .slice(0, 2)
                        .map((line, at) => (
                          <text
                            key={at}
                            x={-LEFT}
                            y={32 + at * 14}
                            fontSize={11}
                            style={{ fill: 'var(--dim)' }}
                          >
                            {line.slice(0, 18)}
                          </text>
                        ))}
                    {Array.from({ length: elementAt(choruses, place) }, (_, chorus) => {
                      const lane: LaneSpec = { chorus, view: 'closed', height: LANE };
                      return (
                        <g key={chorus} transform={`translate(0 ${chorus * LANE})`}>
                          <rect
                            x={geometry.left}
                            y={1}
                            width={geometry.right - geometry.left}
                            height={LANE - 2}
                            fill="var(--row)"
                          />
                          <text
                            x={GUTTER - 10}
                            y={15}
                            fontSize={11}
                            textAnchor="end"
                            style={{ fill: 'var(--dim)' }}
                          >
                            {chorus + 1}
                          </text>
                          <FormLane
                            row={row}
                            width={WIDTH - LEFT}
                            formBeats={timeline.formBeats}
                            choruses={[chorus]}
                            take={elementAt(drawn, place)}
                            lane={lane}
                            geometry={geometry}
                            onBeat={onHear}
                          />
                        </g>
                      );
                    })}
                  </g>
                );
              })}
            </svg>
          );
        })}
      </div>
    </div>
  );
}

/** Differences on one axis with Newcombe’s interval: solid and pale where it leaves zero. */
function Differences({ comparison, sides }: { comparison: Comparison; sides: readonly Side[] }) {
  const ROW = 50;
  const at = (value: number) => 96 + (value + 1) * 100;
  return (
    <section aria-label="What differs">
      <h2 className="text-base font-[640]">Targets met on time</h2>
      <p className="flex justify-end gap-24 text-[13px] text-dim">
        <span>worse</span>
        <span>better</span>
      </p>
      <ul>
        {comparison.kinds.map((kind) => (
          <li
            key={`${kind.from} ${kind.to}`}
            className="grid grid-cols-[minmax(0,1fr)_150px] items-center border-t border-line py-1"
          >
            <span>
              <span className="text-[13px] text-soft">
                <ChordSymbol symbol={kind.from} />
              </span>{' '}
              <b className="ml-1.5">
                <ChordSymbol symbol={kind.to} />
              </b>
              <br />
              <span className="text-[15px] text-soft">
                {kind.rates.map(({ met, of }) => `${met} of ${of}`).join(' → ')}
              </span>
            </span>
            <svg
              viewBox={`96 0 204 ${ROW}`}
              className="w-full"
              role="img"
              aria-label={
                kind.difference === null
                  ? 'not played in both'
                  : `${Math.round(kind.difference * 100)} points, between ${Math.round(kind.interval[0] * 100)} and ${Math.round(kind.interval[1] * 100)}: ${kind.word}`
              }
            >
              <line x1={at(0)} y1={0} x2={at(0)} y2={ROW} stroke="var(--dim)" strokeDasharray="2 4" />
              {kind.difference !== null && (
                <>
                  <line
                    x1={at(kind.interval[0])}
                    y1={ROW / 2}
                    x2={at(kind.interval[1])}
                    y2={ROW / 2}
                    stroke={kind.word === 'unclear' ? 'var(--h3)' : 'var(--h0)'}
                    strokeWidth={kind.word === 'unclear' ? 2 : 4}
                  />
                  <circle
                    cx={at(kind.difference)}
                    cy={ROW / 2}
                    r={kind.word === 'unclear' ? 5.5 : 7}
                    fill={kind.word === 'unclear' ? 'var(--h3)' : 'var(--h0)'}
                  />
                </>
              )}
            </svg>
          </li>
        ))}
      </ul>
      <table className="mt-3 w-full text-[15px]">
        <caption className="sr-only">Numbers of each take</caption>
        <thead className="sr-only">
          <tr>
            <th scope="col">Number</th>
            {sides.map(({ name }) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {comparison.numbers.map(({ name, values }) => (
            <tr key={name}>
              <th scope="row" className="py-1 text-left font-normal text-soft">
                {name}
              </th>
              {values.map((value, index) => (
                <td
                  key={index}
                  className={`py-1 pl-3 text-right ${index === values.length - 1 ? 'font-[640] text-ink' : 'text-soft'}`}
                >
                  {value}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
