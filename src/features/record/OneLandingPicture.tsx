import type { LandingMark } from '@/core/analyse';
import type { OneLanding } from '@/core/findings';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { GateLine } from '@/ui/form/Gate';
import { Pill } from '@/ui/form/Pill';
import { intervalLabel } from '@/ui/intervalLabel';

const WORDS: Record<LandingMark, string> = {
  target: 'on its target',
  'target-late': 'target, late',
  'chord-tone': 'other chord tone',
  'not-met': 'not met',
  rest: 'at rest',
};
const EACH = 138;
const GAP = 10;

/**
 * One kind of change, folded over the take: the gate by mark, from not met above to the target below, with
 * counts to be read from afar.
 */
export function OneGatePicture({ gate }: { gate: OneLanding }) {
  const height = gate.groups.length * EACH;
  return (
    <figure aria-label={`From ${gate.from} to ${gate.to}`} className="w-[390px] max-w-full">
      <figcaption className="text-[32px] leading-[72px] text-soft">
        <ChordSymbol symbol={gate.from} />
        <span className="mx-5 text-[24px] text-dim">to</span>
        <b className="text-[58px] text-ink">
          <ChordSymbol symbol={gate.to} />
        </b>
      </figcaption>
      <svg
        viewBox={`0 0 390 ${height}`}
        width={390}
        className="mt-4 max-w-full"
        role="img"
        aria-label={gate.groups.map(({ mark, count }) => `${WORDS[mark]}: ${count}`).join(', ')}
      >
        {gate.groups.map(({ mark, count, chips }, index) => {
          const y = index * EACH;
          const met = mark === 'target' || mark === 'target-late';
          return (
            <g key={mark}>
              <GateLine x={14} from={y} to={y + EACH - GAP} mark={mark} scale={4} />
              <text
                x={80}
                y={y + 92}
                fontSize={104}
                fontWeight={640}
                textAnchor="middle"
                style={{ fill: met ? 'var(--ink)' : 'var(--soft)' }}
              >
                {count}
              </text>
              <text
                x={136}
                y={y + 42}
                fontSize={24}
                fontWeight={580}
                style={{ fill: met ? 'var(--ink)' : 'var(--soft)' }}
              >
                {WORDS[mark]}
              </text>
              {chips.map((chip, place) => {
                const x = 136 + place * (chips.some(({ then }) => then) ? 124 : 60);
                if (chip.interval === null)
                  return place === 0 ? (
                    <text key={place} x={x} y={y + 86} fontSize={20} style={{ fill: 'var(--dim)' }}>
                      no landing
                    </text>
                  ) : null;
                return (
                  <g key={place}>
                    <Pill
                      x={x}
                      y={y + 78}
                      width={46}
                      height={32}
                      tier={chip.height}
                      label={intervalLabel(chip.interval)}
                      size={20}
                    />
                    {chip.then && (
                      <>
                        <path
                          d={`M${x + 49} ${y + 78}h9m-5 -5l6 5l-6 5`}
                          stroke="var(--soft)"
                          strokeWidth={2}
                          fill="none"
                        />
                        <Pill
                          x={x + 62}
                          y={y + 78}
                          width={46}
                          height={32}
                          tier={chip.then.height}
                          label={intervalLabel(chip.then.interval)}
                          size={20}
                        />
                      </>
                    )}
                  </g>
                );
              })}
            </g>
          );
        })}
      </svg>
    </figure>
  );
}
