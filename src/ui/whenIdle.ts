/** How long a screen is left alone first, in milliseconds: what the player came for goes first. */
const SETTLED = 3_000;
const AT_LATEST = 2_000;

/**
 * Does something once the screen has stood for some seconds and nothing else is to be done: what will be wanted next is
 * made ready.
 * @returns takes it back, where it has not been done yet
 */
export function whenIdle(action: () => void): () => void {
  let idle: number | null = null;
  const timer = setTimeout(() => {
    // not every browser says when it is idle
    if ('requestIdleCallback' in window) idle = requestIdleCallback(action, { timeout: AT_LATEST });
    else action();
  }, SETTLED);
  return () => {
    clearTimeout(timer);
    if (idle !== null) cancelIdleCallback(idle);
  };
}
