type Waiting = { readonly draw: () => void; readonly isInSight: boolean };

let waiting: readonly Waiting[] = [];
let frame: number | null = null;

/**
 * Draws one thing a frame, what is in sight before what is near it: the first lines of a page stand at once, and
 * no key is kept waiting by those below.
 * @returns takes it out again, where it has not been drawn yet
 */
export function drawSoon(draw: () => void, isInSight: boolean): () => void {
  const one = { draw, isInSight };
  waiting = [...waiting, one];
  frame ??= requestAnimationFrame(drawNext);
  return () => {
    waiting = waiting.filter((other) => other !== one);
  };
}

function drawNext(): void {
  frame = null;
  const next = waiting.find(({ isInSight }) => isInSight) ?? waiting[0];
  if (!next) return;
  waiting = waiting.filter((other) => other !== next);
  if (waiting.length > 0) frame = requestAnimationFrame(drawNext);
  next.draw();
}
