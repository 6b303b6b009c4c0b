import { scaleLinear } from 'd3-scale';
import type { Comparison } from '@/core/findings';
import { ChordSymbol } from '@/ui/ChordSymbol';
import type { Side } from './compareSides';

const ROW = 50;
/** From every target lost to every target won. */
const x = scaleLinear([-1, 1], [96, 296]);

type Props = { comparison: Comparison; sides: readonly Side[] };
type Kind = Comparison['kinds'][number];

/** Differences on one axis with Newcombe’s interval: solid and pale where it leaves zero. */
export function Differences({ comparison, sides }: Props) {
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
            <Interval kind={kind} />
          </li>
        ))}
      </ul>
      <Numbers comparison={comparison} sides={sides} />
    </section>
  );
}

const points = (share: number): number => Math.round(share * 100);

function intervalWords({ difference, interval, word }: Kind): string {
  if (difference === null) return 'not played in both';
  return `${points(difference)} points, between ${points(interval[0])} and ${points(interval[1])}: ${word}`;
}

function Interval({ kind }: { kind: Kind }) {
  const { difference, interval, word } = kind;
  const isUnclear = word === 'unclear';
  const colour = isUnclear ? 'var(--h3)' : 'var(--h0)';
  return (
    <svg viewBox={`96 0 204 ${ROW}`} className="w-full" role="img" aria-label={intervalWords(kind)}>
      <line x1={x(0)} y1={0} x2={x(0)} y2={ROW} stroke="var(--dim)" strokeDasharray="2 4" />
      {difference !== null && (
        <>
          <line
            x1={x(interval[0])}
            y1={ROW / 2}
            x2={x(interval[1])}
            y2={ROW / 2}
            stroke={colour}
            strokeWidth={isUnclear ? 2 : 4}
          />
          <circle cx={x(difference)} cy={ROW / 2} r={isUnclear ? 5.5 : 7} fill={colour} />
        </>
      )}
    </svg>
  );
}

function Numbers({ comparison, sides }: Props) {
  return (
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
  );
}
