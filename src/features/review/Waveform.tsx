import { scaleLinear } from 'd3-scale';
import { area } from 'd3-shape';
import type { Peaks } from './peaks';

type Props = { peaks: Peaks; left: number; right: number; middle: number; tall: number };

/** The outline of some sound: highest and lowest sample of each piece, full scale as tall as the picture. */
export function Waveform({ peaks, left, right, middle, tall }: Props) {
  const x = scaleLinear().domain([0, peaks.length]).range([left, right]);
  const y = scaleLinear()
    .domain([-1, 1])
    .range([middle + tall / 2, middle - tall / 2]);
  const outline = area<Peaks[number]>()
    .x((_, index) => x(index))
    .y0(([, lowest]) => y(lowest) + 0.4)
    .y1(([highest]) => y(highest) - 0.4)
    .digits(1);
  return <path d={outline([...peaks]) ?? ''} fill="var(--h3)" pointerEvents="none" />;
}
