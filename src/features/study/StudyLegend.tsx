import { Pill } from '@/ui/form/Pill';

/** What the marks mean: by their shade, and always by the name in them. */
export function StudyLegend({ place }: { place: boolean }) {
  return (
    <svg
      viewBox="0 0 224 62"
      className="mt-1 hidden w-[224px] shrink-0 xl:block"
      role="img"
      aria-label="Reading the marks"
    >
      <g fontSize={13}>
        <Pill x={0} y={10} width={26} height={16} tier={0} label="A" size={12} />
        <text x={36} y={14.5} style={{ fill: 'var(--soft)' }}>
          the home scale lacks it
        </text>
        <Pill x={0} y={31} width={26} height={16} tier={2} label="E♭" size={12} />
        <text x={36} y={35.5} style={{ fill: 'var(--soft)' }}>
          {place ? 'chord tone; a dot: plan note' : 'the home scale has it'}
        </text>
        {place ? (
          <rect
            x={1}
            y={44}
            width={24}
            height={15}
            rx={7.5}
            fill="none"
            stroke="var(--now)"
            strokeWidth={2}
          />
        ) : (
          <line x1={0} y1={55} x2={26} y2={49} stroke="var(--now)" strokeWidth={3} />
        )}
        <text x={36} y={56.5} style={{ fill: 'var(--soft)' }}>
          {place ? 'the third or seventh to follow' : 'moves by a half step'}
        </text>
      </g>
    </svg>
  );
}
