import type { Progress } from '@/core/scheduling';
import { typeset } from '@/core/music';

const WIDTH = 480;
const HEIGHT = 72;
const FRETS = 17;

/**
 * Keys that were played in, and where on the neck the hand was: as much for what is missing as for what is
 * there.
 */
export function Covered({ keys, places }: Pick<Progress, 'keys' | 'places'>) {
  const most = Math.max(1, ...places.map(({ notes }) => notes));
  const all = places.reduce((sum, { notes }) => sum + notes, 0);
  const x = (fret: number) => (Math.min(FRETS, fret) / (FRETS + 1)) * WIDTH;
  return (
    <>
      <section aria-label="Keys covered">
        <h2 className="heading border-b border-line">Keys covered</h2>
        <ul>
          {keys.map(({ key, takes, fastest }) => (
            <li key={key} className="flex gap-4 border-b border-line py-2">
              <b className="grow font-[580]">{typeset(key)}</b>
              <span className="text-soft">
                {takes} {takes === 1 ? 'take' : 'takes'}, fastest{' '}
                <b className="text-ink">{Math.round(fastest)}</b>
              </span>
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="Places on the neck">
        <h2 className="heading border-b border-line">Places on the neck</h2>
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT + 26}`}
          className="mt-3 w-full max-w-[480px]"
          role="img"
          aria-label={places.map(({ fret, notes }) => `fret ${fret}: ${notes} notes`).join(', ')}
        >
          <line x1={0} y1={HEIGHT} x2={WIDTH} y2={HEIGHT} stroke="var(--line)" strokeWidth={2} />
          {places.map(({ fret, notes }) => (
            <rect
              key={fret}
              x={x(fret) + 3}
              y={HEIGHT - (60 * notes) / most}
              width={WIDTH / (FRETS + 1) - 6}
              height={(60 * notes) / most}
              fill={notes * 5 >= most ? 'var(--h0)' : 'var(--h3)'}
            />
          ))}
          {Array.from({ length: FRETS + 1 }, (_, fret) => (
            <text
              key={fret}
              x={x(fret) + WIDTH / (FRETS + 1) / 2}
              y={HEIGHT + 18}
              fontSize={13}
              textAnchor="middle"
              style={{ fill: places.some((place) => place.fret === fret) ? 'var(--soft)' : 'var(--dim)' }}
            >
              {fret === 0 ? 'open' : fret}
            </text>
          ))}
        </svg>
        <p className="text-sm text-dim">
          {all} notes by the fret under the index finger, as they most probably lay
        </p>
      </section>
    </>
  );
}
