import { max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import type { Progress } from '@/core/scheduling';
import { weekName } from './progressView';

/** Weeks at a glance: minutes as bars, takes as ticks in them, the fastest tempo beside. */
export function Weeks({ weeks, thisWeek }: { weeks: Progress['weeks']; thisWeek: number }) {
  const x = scaleLinear()
    .domain([0, Math.max(1, max(weeks, ({ minutes }) => minutes) ?? 0)])
    .range([0, 400]);
  return (
    <table className="w-full max-w-[900px] text-left">
      <caption className="sr-only">Weeks: minutes, takes, drills passed, fastest tempo</caption>
      <thead>
        <tr className="text-[15px] text-soft">
          <th scope="col" className="pb-1.5 font-[560]">
            week
          </th>
          <th scope="col" className="pb-1.5 font-[560]">
            minutes
          </th>
          <th scope="col" className="w-full pb-1.5">
            <span className="sr-only">picture</span>
          </th>
          <th scope="col" className="pb-1.5 pr-6 text-right font-[560]">
            takes
          </th>
          <th scope="col" className="pb-1.5 pr-6 text-right font-[560] whitespace-nowrap">
            drills passed
          </th>
          <th scope="col" className="pb-1.5 text-right font-[560]">
            fastest
          </th>
        </tr>
      </thead>
      <tbody>
        {[...weeks].reverse().map(({ week, minutes, takes, attempts, passed, fastest }) => (
          <tr key={week} className="border-t border-line">
            <th
              scope="row"
              className={`py-2.5 pr-6 whitespace-nowrap ${week === thisWeek ? 'font-[640]' : 'font-normal text-soft'}`}
            >
              {weekName(week, thisWeek)}
            </th>
            <td className="pr-6 text-right text-xl font-[640]">
              {minutes < 10 ? minutes.toFixed(1) : Math.round(minutes)}
            </td>
            <td>
              <svg viewBox="0 0 400 20" preserveAspectRatio="none" className="h-5 w-full" aria-hidden="true">
                <rect
                  x={0}
                  y={4}
                  width={x(minutes)}
                  height={12}
                  fill={week === thisWeek ? 'var(--h0)' : 'var(--h2)'}
                />
                {Array.from({ length: Math.max(0, takes - 1) }, (_, index) => (
                  <line
                    key={index}
                    x1={x((minutes / takes) * (index + 1))}
                    y1={4}
                    x2={x((minutes / takes) * (index + 1))}
                    y2={16}
                    stroke="var(--bg)"
                    strokeWidth={2}
                    vectorEffect="non-scaling-stroke"
                  />
                ))}
              </svg>
            </td>
            <td className="pr-6 text-right text-soft">{takes}</td>
            <td className="pr-6 text-right text-soft">{attempts === 0 ? '–' : `${passed} of ${attempts}`}</td>
            <td className="text-right text-soft">{fastest === null ? '–' : Math.round(fastest)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
