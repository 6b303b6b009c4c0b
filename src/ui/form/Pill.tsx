type Props = {
  x: number;
  y: number;
  width: number;
  height: number;
  tier: number;
  label?: string;
  size?: number;
};

/** The size a label is printed in inside a pill; null where it does not fit. */
export function labelFont(label: string, width: number, size: number): number | null {
  const font = label.length > 2 ? Math.min(size, (width - 2) / label.length / 0.56) : size;
  return label !== '' && font >= 9 && width >= font * label.length * 0.58 ? font : null;
}

/** One note: heights 0 to 2 solid and paler, 3 hollow, 4 dashed; its interval printed where there is room. */
export function Pill({ x, y, width, height, tier, label = '', size = 11.5 }: Props) {
  const radius = height / 2;
  const font = labelFont(label, width, size);
  const solid = tier < 3;
  return (
    <>
      {solid ? (
        <rect
          x={x}
          y={y - radius}
          width={width}
          height={height}
          rx={Math.min(radius, width / 2)}
          fill={`var(--h${tier})`}
        />
      ) : (
        <rect
          x={x + 0.75}
          y={y - radius + 0.75}
          width={Math.max(1, width - 1.5)}
          height={height - 1.5}
          rx={Math.max(0, Math.min(radius, width / 2) - 0.75)}
          fill="var(--row)"
          stroke={`var(--h${tier})`}
          strokeWidth={1.5}
          strokeDasharray={tier === 4 ? '3.5 2.5' : undefined}
        />
      )}
      {font !== null && (
        <text
          x={x + width / 2}
          y={y + font * 0.335}
          fontSize={font}
          fontWeight={660}
          textAnchor="middle"
          style={{ fill: solid ? 'var(--on)' : 'var(--ink)' }}
        >
          {label}
        </text>
      )}
    </>
  );
}
