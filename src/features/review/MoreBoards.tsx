'use client';
import type { Report } from '@/core/analyse';
import { beatInForm, type Timeline } from '@/core/chart';
import { approachTable } from '@/core/findings';
import { intervalWord } from '@/core/music';
import { intervalLabel } from '@/ui/intervalLabel';
import { Board } from './BoardFrame';

/** How targets were led into. */
export function ApproachesBoard({ report }: { report: Report }) {
  const { rows, arrived, left } = approachTable(report);
  return (
    <section aria-label="Approaches">
      <h2 className="flex flex-wrap items-baseline gap-x-3 text-[15px] text-dim">
        <b className="text-base text-ink">Approaches</b>
        {arrived} arrived, {left} chromatic {left === 1 ? 'note' : 'notes'} did not
      </h2>
      <table className="mt-1 w-full text-left text-[15px]">
        <thead>
          <tr className="text-sm text-dim">
            <th scope="col" className="font-normal">
              Led in
            </th>
            <th scope="col" className="w-16 text-right font-normal">
              below
            </th>
            <th scope="col" className="w-16 text-right font-normal">
              above
            </th>
            <th scope="col" className="w-16 text-right font-normal">
              both
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, below, above, both }) => (
            <tr key={name} className="border-t border-line">
              <th scope="row" className="py-1 font-normal">
                {name}
              </th>
              {[
                name === 'Enclosure' ? null : below,
                name === 'Enclosure' ? null : above,
                name === 'Enclosure' ? both : null,
              ].map((value, index) => (
                <td
                  key={index}
                  className={`text-right ${value ? 'text-lg font-[640] text-ink' : 'text-dim'}`}
                >
                  {value ?? ''}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** How the line moves: its steps, and what it does at a stretch. */
export function LineBoard({ report }: { report: Report }) {
  const { line } = report;
  const moves: readonly (readonly [string, number])[] = [
    ['the same note', line.repeats],
    ['a step', line.steps],
    ['a skip', line.skips],
    ['a leap', line.leaps],
  ];
  const most = Math.max(1, ...moves.map(([, count]) => count));
  return (
    <Board
      name="Line"
      facts={`${line.rising} up, ${line.falling} down; turns ${line.directionChanges} times; longest run one way ${line.longestRun}; ${line.tiesAcrossBars} held over a bar line; ${line.slurred} slurred`}
      table={{
        caption: 'Moves of the line',
        head: ['Move by', 'Times'],
        rows: moves.map(([name, count]) => [name, count]),
      }}
    >
      <svg
        viewBox="0 0 416 116"
        className="mt-2 w-full"
        role="img"
        aria-label="Moves of the line; the table says the same"
      >
        {moves.map(([name, count], index) => (
          <g key={name}>
            <text x={0} y={22 + index * 28} fontSize={15} style={{ fill: 'var(--ink)' }}>
              {name}
            </text>
            <rect
              x={116}
              y={9 + index * 28}
              width={Math.max(1, (count / most) * 244)}
              height={17}
              fill={`var(--h${Math.min(2, index)})`}
            />
            <text
              x={124 + (count / most) * 244}
              y={22 + index * 28}
              fontSize={14}
              fontWeight={640}
              style={{ fill: 'var(--soft)' }}
            >
              {count}
            </text>
          </g>
        ))}
      </svg>
    </Board>
  );
}

/** The same as coverage by chord, by the chord’s place in the key, and for the whole take. */
export function FunctionBoard({ report }: { report: Report }) {
  const intervals = [
    ...new Set(report.coverageByFunction.flatMap(({ byInterval }) => Object.keys(byInterval))),
  ];
  const order = [
    '1',
    'b9',
    '9',
    '#9',
    'b3',
    'n3',
    '3',
    '4',
    '#11',
    'b5',
    'n5',
    '5',
    '#5',
    'b13',
    '6',
    'n7',
    'b7',
    '7',
  ];
  intervals.sort((a, b) => order.indexOf(a) - order.indexOf(b));
  return (
    <section aria-label="Coverage by function">
      <h2 className="text-[15px] text-dim">
        <b className="mr-3 text-base text-ink">By function</b>notes of each interval, by the chord’s place in
        the key
      </h2>
      <div className="mt-1 overflow-x-auto">
        <table className="w-full text-right text-[15px]">
          <thead>
            <tr className="text-sm text-dim">
              <th scope="col" className="text-left font-normal">
                chord
              </th>
              {intervals.map((interval) => (
                <th key={interval} scope="col" className="px-1 font-normal" title={intervalWord(interval)}>
                  {intervalLabel(interval)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {report.coverageByFunction.map((row) => (
              <tr key={row.function} className="border-t border-line">
                <th scope="row" className="py-1 text-left font-[620]">
                  {intervalLabel(row.function)}
                </th>
                {intervals.map((interval) => {
                  const cell = row.byInterval[interval];
                  return (
                    <td key={interval} className={cell ? 'px-1 font-[560]' : 'px-1 text-dim'}>
                      {cell?.count ?? '·'}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** Where in the form phrases begin and end. */
export function StartsBoard({ report, timeline }: { report: Report; timeline: Timeline }) {
  const perBar = timeline.bars.map((bar) => {
    const within = (beat: number) => {
      const inForm = beatInForm(timeline, beat);
      return inForm >= bar.start - 1e-6 && inForm < bar.end - 1e-6;
    };
    return {
      bar: bar.index + 1,
      starts: report.phrases.filter(({ startBeat }) => startBeat >= 0 && within(startBeat)).length,
      ends: report.phrases.filter(({ endBeat }) => within(Math.max(0, endBeat - 1e-6))).length,
    };
  });
  const most = Math.max(1, ...perBar.flatMap(({ starts, ends }) => [starts, ends]));
  const column = 752 / perBar.length;
  return (
    <Board
      name="Where phrases begin and end"
      facts="up: begins in this bar; down: ends in it"
      table={{
        caption: 'Phrases by bar of the form',
        head: ['Bar', 'Begin', 'End'],
        rows: perBar.map(({ bar, starts, ends }) => [bar, starts, ends]),
      }}
    >
      <svg
        viewBox="0 0 752 112"
        className="mt-2 w-full"
        role="img"
        aria-label="Phrases by bar; the table says the same"
      >
        <line x1={0} y1={50} x2={752} y2={50} stroke="var(--dim)" />
        {perBar.map(({ bar, starts, ends }, index) => (
          <g key={bar}>
            <rect
              x={index * column + 3}
              y={50 - (starts / most) * 42}
              width={Math.max(2, column - 6)}
              height={(starts / most) * 42}
              fill="var(--h0)"
            />
            <rect
              x={index * column + 3}
              y={51}
              width={Math.max(2, column - 6)}
              height={(ends / most) * 42}
              fill="var(--h2)"
            />
            {(perBar.length <= 16 || index % 4 === 0) && (
              <text
                x={index * column + column / 2}
                y={110}
                fontSize={12}
                textAnchor="middle"
                style={{ fill: 'var(--dim)' }}
              >
                {bar}
              </text>
            )}
          </g>
        ))}
      </svg>
    </Board>
  );
}
