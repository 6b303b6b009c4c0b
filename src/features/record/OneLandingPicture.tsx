import type { LandingMark } from '@/core/analyse';
import type { OneLanding } from '@/core/findings';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { LandingLine } from '@/ui/form/LandingLine';
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
 * One kind of change, folded over the take: the landing by mark, from not met above to the target below, with
 * counts to be read from afar.
 */
export function OneLandingPicture({ landing }: { landing: OneLanding }) {
  const height = landing.groups.length * EACH;
  return (
    <figure aria-label={`From ${landing.from} to ${landing.to}`} className="w-[390px] max-w-full">
      <figcaption className="text-[32px] leading-[72px] text-soft">
        <ChordSymbol symbol={landing.from} />
        <span className="mx-5 text-[24px] text-dim">to</span>
        <b className="text-[58px] text-ink">
          <ChordSymbol symbol={landing.to} />
        </b>
      </figcaption>
      <svg
        viewBox={`0 0 390 ${height}`}
        width={390}
        className="mt-4 max-w-full"
        role="img"
        aria-label={landing.groups.map(({ mark, count }) => `${WORDS[mark]}: ${count}`).join(', ')}
      >
        {landing.groups.map((group, index) => (
          <GroupRow key={group.mark} group={group} y={index * EACH} />
        ))}
      </svg>
    </figure>
  );
}

type Group = OneLanding['groups'][number];
type Chip = Group['chips'][number];

/** Landings of one kind: the landing, how many, and the tones they landed on. */
function GroupRow({ group: { mark, count, chips }, y }: { group: Group; y: number }) {
  const fill = mark === 'target' || mark === 'target-late' ? 'var(--ink)' : 'var(--soft)';
  const pitch = chips.some(({ then }) => then) ? 124 : 60;
  return (
    <g>
      <LandingLine x={14} from={y} to={y + EACH - GAP} mark={mark} scale={4} />
      <text x={80} y={y + 92} fontSize={104} fontWeight={640} textAnchor="middle" style={{ fill }}>
        {count}
      </text>
      <text x={136} y={y + 42} fontSize={24} fontWeight={580} style={{ fill }}>
        {WORDS[mark]}
      </text>
      {chips.map((chip, place) => (
        <ChipMark key={place} chip={chip} x={136 + place * pitch} y={y + 78} isFirst={place === 0} />
      ))}
    </g>
  );
}

const TonePill = ({ x, y, tone }: { x: number; y: number; tone: Pick<Chip, 'interval' | 'height'> }) => (
  <Pill
    x={x}
    y={y}
    width={46}
    height={32}
    tier={tone.height}
    label={intervalLabel(tone.interval)}
    size={20}
  />
);

function ChipMark({ chip, x, y, isFirst }: { chip: Chip; x: number; y: number; isFirst: boolean }) {
  if (chip.interval === null)
    return isFirst ? (
      <text x={x} y={y + 8} fontSize={20} style={{ fill: 'var(--dim)' }}>
        no landing
      </text>
    ) : null;
  return (
    <g>
      <TonePill x={x} y={y} tone={chip} />
      {chip.then && (
        <>
          <path d={`M${x + 49} ${y}h9m-5 -5l6 5l-6 5`} stroke="var(--soft)" strokeWidth={2} fill="none" />
          <TonePill x={x + 62} y={y} tone={chip.then} />
        </>
      )}
    </g>
  );
}
