import { scaleLinear } from 'd3-scale';
import type { LandingMark } from '@/core/analyse';
import { LandingLines } from './LandingLine';
import { elementAt } from '@/core/shared';

/** A take drawn small: notes as [onset, end, height] in beats, changes as [beat, mark]. */
export type TakeProfileData = {
  readonly beats: number;
  readonly notes: readonly (readonly [number, number, number])[];
  readonly landings: readonly (readonly [number, LandingMark])[];
};

const WIDTH = 544;
const HEIGHT = 44;
/** One shape for all notes of a height: a page of forty takes is forty times five shapes, not six thousand. */
const HEIGHTS = [0, 1, 2, 3, 4];

/** @param width of the drawing, in its own units; a line of the list where it is not said */
export function TakeProfile({ profile, width = WIDTH }: { profile: TakeProfileData; width?: number }) {
  const x = scaleLinear().domain([0, profile.beats]).range([0, width]).clamp(true);
  const y = scaleLinear()
    .domain([0, 4])
    .range([HEIGHT - 16, 6]);
  const path = profile.notes
    .slice(1)
    .map(([onset, , height], index) => {
      const [, end, before] = elementAt(profile.notes, index);
      return onset - end <= 0.5
        ? `M${x(end).toFixed(1)} ${y(before)}L${x(onset).toFixed(1)} ${y(height)}`
        : '';
    })
    .join('');
  return (
    <svg viewBox={`0 0 ${width} ${HEIGHT}`} className="w-full" aria-hidden="true">
      <path d={path} stroke="var(--h4)" fill="none" />
      {HEIGHTS.map((height) => (
        <path
          key={height}
          className="notes"
          fill={`var(--h${height})`}
          d={profile.notes
            .filter((note) => note[2] === height)
            .map(
              ([onset, end]) =>
                `M${(x(onset) + 0.3).toFixed(1)} ${y(height) - 2}h${Math.max(1.6, x(end) - x(onset) - 0.8).toFixed(1)}v4h-${Math.max(1.6, x(end) - x(onset) - 0.8).toFixed(1)}z`,
            )
            .join('')}
        />
      ))}
      <LandingLines
        landings={profile.landings.map(([beat, mark]) => ({ x: x(beat), mark }))}
        from={HEIGHT - 11}
        to={HEIGHT}
        scale={0.65}
      />
    </svg>
  );
}
