import { chordParts, chordText } from './chordParts';

/** A chord symbol in running text, typeset. */
export function ChordSymbol({ symbol }: { symbol: string }) {
  const { root, accidental, minor, figures, bass } = chordParts(symbol);
  return (
    <span className="ch">
      <span aria-hidden="true">
        {root}
        {accidental && <i>{accidental}</i>}
        {minor && <u>{minor}</u>}
        {figures && <sup>{figures}</sup>}
        {bass && <>/{bass}</>}
      </span>
      <span className="sr-only">{chordText(symbol)}</span>
    </span>
  );
}

type SvgProps = {
  x: number;
  y: number;
  symbol: string;
  size: number;
  weight?: number;
  fill?: string;
  anchor?: 'start' | 'middle' | 'end';
};

/**
 * A chord symbol in a drawing: root at 640, accidental 0.76 raised, `m` 0.66 on the baseline, figures 0.62
 * with their top at the cap line.
 */
export function ChordSvg({
  x,
  y,
  symbol,
  size,
  weight = 640,
  fill = 'var(--ink)',
  anchor = 'start',
}: SvgProps) {
  const { root, accidental, minor, figures, bass } = chordParts(symbol);
  const parts: [string, number, number][] = [
    [accidental, 0.76, 0.13],
    [minor, 0.66, 0],
    [figures, 0.62, 0.267],
    [bass && `/${bass}`, 0.72, 0],
  ];
  let raised = 0;
  return (
    <text x={x} y={y} fontSize={size} fontWeight={weight} textAnchor={anchor} style={{ fill }}>
      {root}
      {parts
        .filter(([text]) => text)
        .map(([text, scale, rise]) => {
          const dy = -size * (rise - raised);
          raised = rise;
          return (
            <tspan key={text + scale} fontSize={size * scale} dx={size * 0.025} dy={dy}>
              {text}
            </tspan>
          );
        })}
    </text>
  );
}
