/** How far down stems, beams, ties and slurs go; the boxes of signs are those of their font and say nothing. */
export function lowestStroke(host: HTMLDivElement): number {
  const strokes = [
    ...host.querySelectorAll<SVGPathElement>(
      '.vf-stem path, .vf-beam path, .vf-stavetie path, .vf-slur path',
    ),
  ];
  return strokes.reduce((most, stroke) => {
    const { y, height } = stroke.getBBox();
    return Math.max(most, y + height);
  }, 0);
}
