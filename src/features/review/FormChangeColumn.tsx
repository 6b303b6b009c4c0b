import type { LandingMark, Report } from '@/core/analyse';
import { intervalWord } from '@/core/music';
import { elementAt } from '@/core/shared';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';
import { LandingLine } from '@/ui/form/LandingLine';
import { Pill } from '@/ui/form/Pill';
import { intervalLabel } from '@/ui/intervalLabel';
import { groupsOf, type FoldedLandings } from './landingGroups';
import type { FormChange } from './formChanges';

const TOP = 258;
const TALL = 356;
const LEAST_TALL = 84;
const MOST_CHORUSES = 8;

const WORDS: Record<LandingMark, string> = {
  target: 'target',
  'target-late': 'target, late',
  'chord-tone': 'chord tone',
  'not-met': 'not met',
  rest: 'at rest',
};

type Props = {
  formChange: FormChange;
  report: Report;
  marks: readonly LandingMark[];
  x: number;
  width: number;
  isOpen: boolean;
  sounding: number | null;
  choruses: number;
  onOpen: () => void;
};

/** One change of the form: its landings folded into counts, the one that is looked at wide open. */
export function FormChangeColumn(props: Props) {
  const { formChange, report, marks, x, width, isOpen, sounding, choruses, onOpen } = props;
  const groups = groupsOf(formChange, report, marks);
  // the room of a group is its share, but never less than its numeral needs
  const least = Math.min(TALL / groups.length, LEAST_TALL);
  const spare = TALL - least * groups.length;
  const heights = groups.map(({ count }) => least + (spare * count) / formChange.changes.length);
  const size = Math.min(isOpen ? 92 : 52, (width - (isOpen ? 200 : 14)) / chordWidth(formChange.to));
  return (
    <g onClick={onOpen} className={isOpen ? undefined : 'cursor-pointer'}>
      {isOpen ? (
        <>
          <rect x={x - 2} y={128} width={width - 16} height={494} fill="var(--row)" />
          <rect x={x - 2} y={621} width={width - 16} height={6} fill="var(--now)" />
        </>
      ) : (
        <line x1={x - 2} y1={624} x2={x + width - 22} y2={624} stroke="var(--line)" />
      )}
      <ChordSvg
        x={x + (isOpen ? 8 : 2)}
        y={218}
        symbol={formChange.to}
        size={size}
        fill={isOpen ? 'var(--ink)' : 'var(--soft)'}
      />
      {isOpen && <Choruses right={x + width - 30} count={choruses} sounding={sounding} />}
      {groups.map((group, place) => {
        const tall = elementAt(heights, place);
        const y = TOP + TALL - heights.slice(0, place + 1).reduce((sum, one) => sum + one, 0);
        const sounds = sounding !== null && group.choruses.includes(sounding + 1);
        return (
          <GroupMark key={place} group={group} x={x} y={y} tall={tall} isOpen={isOpen} sounds={sounds} />
        );
      })}
      <text
        x={x + (isOpen ? 10 : 4)}
        y={660}
        fontSize={22}
        fontWeight={isOpen ? 560 : 400}
        style={{ fill: isOpen ? 'var(--ink)' : 'var(--dim)' }}
      >
        {placeWords(formChange, isOpen)}
      </text>
    </g>
  );
}

function placeWords({ bar, beatInBar }: FormChange, isOpen: boolean): string {
  if (beatInBar === 0) return `bar ${bar}`;
  const beat = `beat ${Math.round(beatInBar) + 1}`;
  return isOpen ? `bar ${bar}, ${beat}` : beat;
}

type ChorusesProps = { right: number; count: number; sounding: number | null };

/** The choruses by number, the sounding one lit. */
function Choruses({ right, count, sounding }: ChorusesProps) {
  const shown = Math.min(count, MOST_CHORUSES);
  return (
    <>
      {sounding !== null && (
        <text x={right} y={166} fontSize={22} textAnchor="end" style={{ fill: 'var(--dim)' }}>
          sounding
        </text>
      )}
      {Array.from({ length: shown }, (_, chorus) => (
        <text
          key={chorus}
          x={right - (shown - 1 - chorus) * 38}
          y={220}
          fontSize={34}
          fontWeight={560}
          textAnchor="end"
          style={{ fill: sounding === chorus ? 'var(--now)' : 'var(--dim)' }}
        >
          {chorus + 1}
        </text>
      ))}
    </>
  );
}

type GroupProps = {
  group: FoldedLandings;
  x: number;
  y: number;
  tall: number;
  isOpen: boolean;
  sounds: boolean;
};

/** Landings of one kind: their mark, their tone, how many there were. */
function GroupMark({ group, x, y, tall, isOpen, sounds }: GroupProps) {
  const middle = y + tall / 2;
  const isMet = group.mark === 'target' || group.mark === 'target-late';
  const pill = isOpen ? { x: x + 38, w: 74, h: 46, size: 26 } : { x: x + 14, w: 50, h: 32, size: 21 };
  return (
    <g>
      <LandingLine
        x={x + (isOpen ? 12 : 6)}
        from={y + 2}
        to={y + tall - 3}
        mark={group.mark}
        scale={isOpen ? 3 : 2.4}
      />
      {group.interval === null ? (
        <text
          x={pill.x + pill.w / 2}
          y={middle + 8}
          fontSize={pill.size}
          textAnchor="middle"
          style={{ fill: 'var(--dim)' }}
        >
          –
        </text>
      ) : (
        <Pill
          x={pill.x}
          y={middle}
          width={pill.w}
          height={pill.h}
          tier={group.height}
          label={intervalLabel(group.interval)}
          size={pill.size}
        />
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
        style={{ fill: isMet ? 'var(--ink)' : 'var(--soft)' }}
      >
        {group.count}
      </text>
      {isOpen && <GroupWords group={group} x={x + 206} middle={middle} />}
    </g>
  );
}

function GroupWords({ group, x, middle }: { group: FoldedLandings; x: number; middle: number }) {
  const { interval, mark, then } = group;
  return (
    <>
      <text x={x} y={middle - 4} fontSize={28} fontWeight={640} style={{ fill: 'var(--ink)' }}>
        {interval === null ? WORDS[mark] : intervalWord(interval)}
      </text>
      {interval !== null && (
        <text x={x} y={middle + 28} fontSize={22} style={{ fill: 'var(--soft)' }}>
          {then === null ? WORDS[mark] : `then ${intervalWord(then)}: late`}
        </text>
      )}
    </>
  );
}
